/** The board's grid in pixels: 12 columns, rows of one height, and the gap between tiles. */
export const ROW_HEIGHT = 44;
export const GAP = 12;
