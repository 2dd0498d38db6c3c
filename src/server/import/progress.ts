/**
 * Hears how far a piece of work has come: the share done, 0 to 1, and how many rows were read where
 * that is known.
 */
export type Progress = (share: number, rows?: number) => void;

/** Who follows a piece of work: hears how far it has come, and can have it stopped. */
export interface Follower {
  progress: Progress;
  signal?: AbortSignal;
}
