// How long it takes from an act in a page until the frame that shows what it changed is on the screen, as the
// browser's own trace of its frames has it. Waiting in the page for the frame after the next counts the frame
// that nothing changed in: 15 ms too much.
import type { Page } from "@playwright/test";

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  ts: number;
  id?: string;
  id2?: { local?: string };
}
/** The marks that an act in a page sets by `performance.mark`. */
export const BEGAN = "act began";
export const CHANGED = "act changed the page";
const CATEGORIES = ["-*", "blink.user_timing", "disabled-by-default-devtools.timeline.frame"];

/**
 * Milliseconds from each `BEGAN` to the moment at which the frame with its `CHANGED` was shown, for all acts
 * that `acts` does in the page, one after the other. Throws when one of them never came to the screen.
 */
export async function untilOnScreen(page: Page, acts: () => Promise<void>): Promise<number[]> {
  const browser = page.context().browser();
  if (!browser) throw new Error("The page has no browser to trace.");
  await browser.startTracing(page, { categories: CATEGORIES });
  await acts();
  // The last frame may still be on its way, for long where the machine has other work.
  await page.waitForTimeout(2000);
  const { traceEvents } = JSON.parse(String(await browser.stopTracing())) as { traceEvents: TraceEvent[] };
  const events = traceEvents.toSorted((a, b) => a.ts - b.ts);
  const idOf = (event?: TraceEvent) => event?.id ?? event?.id2?.local;
  return events.flatMap((began, at) => {
    if (began.name !== BEGAN) return [];
    const after = (name: string, ph: string, from: number, is = (_: TraceEvent) => true) =>
      events.findIndex((e, k) => k > from && e.name === name && e.ph === ph && e.pid === began.pid && is(e));
    const commit = after("Commit", "b", after(CHANGED, "I", at));
    const own = after("PipelineReporter", "e", commit, (e) => idOf(e) === idOf(events[commit]));
    // The report of a frame is left out at times; that of the next ends when both are shown.
    const shown = own >= 0 ? own : after("PipelineReporter", "e", after("DrawFrame", "I", commit));
    if (commit < 0 || shown < 0) throw new Error("What an act changed did not come to the screen.");
    return [(events[shown].ts - began.ts) / 1000];
  });
}
