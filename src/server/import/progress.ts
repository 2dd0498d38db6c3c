/**
 * Hears how far a piece of work has come: the share done, 0 to 1, and how many rows were read where that is
 * known.
 */
export type Progress = (share: number, rows?: number) => void;
