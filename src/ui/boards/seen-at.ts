import { USUAL_WIDTH } from "@/core/project/tile-layout";

/** What a board is seen at while it is arranged. */
export type SeenAt = number | "phone";

/** The width of a phone that boards are seen at, and how high its screen is for it. */
export const PHONE_WIDTH = 390;
export const PHONE_SHAPE = 844 / 390;

/** Windows up to this width show a board in one column, as board.css has it. */
const ONE_COLUMN = 760;
/** A window that is higher than wide would show a board in one column. */
const USUAL_SHAPE = 9 / 16;
/** The height of the application's own head above a board, as --application-head in board.css. */
const APPLICATION_HEAD = 93;

/** Whether this window shows a board in one column. */
export const isNarrowWindow = (): boolean => window.innerWidth <= ONE_COLUMN;

/** The width of this window, where a board stands on a grid in it. */
export const windowWidth = (): number => (isNarrowWindow() ? USUAL_WIDTH : window.innerWidth);

/** How high for its width the room is that a board fills: that of this window is the likeliest. */
export function windowShape(): number {
  const { innerWidth, innerHeight } = window;
  return innerHeight > innerWidth ? USUAL_SHAPE : (innerHeight - APPLICATION_HEAD) / innerWidth;
}
