import type { Handle } from "./marks";

const RAD = 180 / Math.PI;

/** The number that a pointer at (x, y) of the stage means for a handle. */
export function valueAt(handle: Handle, x: number, y: number): number {
  const { track, from, to, step } = handle;
  let share: number;
  if (track.type === "radial") {
    const along = (x - track.cx) * Math.sin(track.angle / RAD) - (y - track.cy) * Math.cos(track.angle / RAD);
    share = (along - track.r0) / (track.r1 - track.r0);
  } else if (track.type === "straight") {
    const [dx, dy] = [track.x1 - track.x0, track.y1 - track.y0];
    share = ((x - track.x0) * dx + (y - track.y0) * dy) / (dx * dx + dy * dy);
  } else {
    const angle = Math.atan2(x - track.cx, -(y - track.cy)) * RAD;
    const turn = (((angle - track.start) % 360) + 360) % 360;
    const sweep = track.end - track.start;
    // Past the end of the arc the nearer end is meant.
    const past = turn > sweep ? (turn - sweep < 360 - turn ? sweep : 0) : turn;
    share = past / sweep;
  }
  const value = from + Math.min(1, Math.max(0, share)) * (to - from);
  return Number((Math.round(value / step) * step).toPrecision(12));
}

/** How many steps of a handle a key goes. */
const KEY_STEPS: Record<string, number> = {
  ArrowRight: 1,
  ArrowUp: 1,
  ArrowLeft: -1,
  ArrowDown: -1,
  PageUp: 10,
  PageDown: -10,
};

/** The number that a key leads a handle to, within its two ends; null for keys that lead nowhere. */
export function keyedValue(
  handle: Pick<Handle, "value" | "from" | "to" | "step">,
  key: string,
): number | null {
  const [least, most] = [Math.min(handle.from, handle.to), Math.max(handle.from, handle.to)];
  if (key === "Home") return least;
  if (key === "End") return most;
  if (!Object.hasOwn(KEY_STEPS, key)) return null;
  const value = handle.value + KEY_STEPS[key] * handle.step;
  return Number(Math.min(most, Math.max(least, value)).toPrecision(12));
}
