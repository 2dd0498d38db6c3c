/** A region of the frame in pixels. */
export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}
