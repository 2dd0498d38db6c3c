import type { BoardAction, BoardState } from "@/core/view/board-state";
import { addressOf, isOfState } from "@/core/view/state-address";
import type { Presented } from "./board-controls";

/** An address with more than this is one that others may not take. */
const LONGEST = 6000;

/** The same, or null where an address would be too long to say the state. */
export function wholeState(search: string, state: BoardState, presented: Presented): string | null {
  const whole = withState(search, state, presented);
  const isSaid = addressOf(state, presented.board, presented.project).length === 0 || isInAddress(whole);
  return isSaid ? whole : null;
}
const isInAddress = (search: string) => [...new URLSearchParams(search)].some(([name]) => isOfState(name));

/**
 * The part of an address from its question mark on, with a state in the place of the one that it says;
 * without any where that would be too long.
 */
export function withState(search: string, state: BoardState, { board, project }: Presented): string {
  const before = [...new URLSearchParams(search)].filter(([name]) => !isOfState(name));
  const text = (pairs: [string, string][]) => {
    const all = new URLSearchParams([...before, ...pairs]).toString();
    return all && `?${all}`;
  };
  const whole = text(addressOf(state, board, project));
  return whole.length <= LONGEST ? whole : text([]);
}

/** What is done with one thing so soon after each other is one step of going back, in milliseconds. */
const ONE_STEP = { input: 2000, category: 500 };
let last = { name: "", at: 0 };

/**
 * What goes on if it is done again: an input or a stretch that is turned, a text that is typed, or a category
 * that is clicked twice.
 */
function goingOn(action: BoardAction): { name: string; within: number } {
  if (action.type === "set input") return { name: `input ${action.name}`, within: ONE_STEP.input };
  if (action.type === "set filter" && ("from" in action.setting || "contains" in action.setting))
    return { name: `filter ${action.control}`, within: ONE_STEP.input };
  if ((action.type === "pick" && !action.more) || action.type === "step down")
    return { name: `${action.visual} ${action.key}`, within: ONE_STEP.category };
  return { name: "", within: 0 };
}

/** How long what is turned must rest until its address is written, in milliseconds. */
const REST = 200;
let resting: ReturnType<typeof setTimeout> | undefined;

/**
 * Writes an address into the page's history: a step of its own for each thing that its reader did. A browser
 * takes its time for an address, so the board asks first; and while something is being turned, `live`, the
 * address waits until it rests.
 */
export function writeHistory(address: () => string, action: BoardAction, live = false): void {
  clearTimeout(resting);
  const write = () => writeNow(address(), action);
  if (live) resting = setTimeout(write, REST);
  else queueMicrotask(write);
}

/** Leaves unwritten what has not rested yet: the page goes elsewhere. */
export function leaveHistory(): void {
  clearTimeout(resting);
}

function writeNow(address: string, action: BoardAction): void {
  const now = Date.now();
  const { name, within } = goingOn(action);
  const goesOn = name !== "" && name === last.name && now - last.at < within;
  last = { name, at: now };
  // What is left out of an address was never a step of its own.
  if (goesOn || action.type === "become") window.history.replaceState(null, "", address);
  else window.history.pushState(null, "", address);
}
