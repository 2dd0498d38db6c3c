/** The widths, in pixels, that a board can be made for. */
export const BOARD_WIDTHS = [1280, 1440, 1920] as const;

/** The grounds that have a name: of the application's own colours, by day and by night. */
export const GROUNDS = ["none", "panel", "sheet", "well", "tint"] as const;
