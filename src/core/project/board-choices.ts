/** The widths, in pixels, that a board can be made for. */
export const BOARD_WIDTHS = [1280, 1440, 1920] as const;

/** The most pictures of a project. */
export const MOST_PICTURES = 60;

/** The most tiles of a board. */
export const MOST_TILES = 100;

/** The grounds that have a name: of the application's own colours, by day and by night. */
export const GROUNDS = ["none", "panel", "sheet", "well", "tint"] as const;
