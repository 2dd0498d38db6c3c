import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { ApiError, api } from "./api";
import { listenToServer, onServerBack, serverIsAway, useConnection } from "./connection";

/** The browser's stream of events, as far as it is used. */
class Stream {
  static open: Stream[] = [];
  onopen = () => {};
  onerror = () => {};
  constructor(readonly path: string) {
    Stream.open.push(this);
  }
  close(): void {
    Stream.open = Stream.open.filter((s) => s !== this);
  }
}
let stop = () => {};
beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal("EventSource", Stream);
  vi.stubGlobal("window", new EventTarget());
  stop = listenToServer();
  Stream.open[0].onopen();
});
afterEach(() => {
  stop();
  expect(Stream.open).toEqual([]);
  vi.useRealTimers();
  vi.unstubAllGlobals();
});
const isAway = () => useConnection.getState().awaySince !== null;

it("one answer that did not come is not said for ever while the stream goes on", async () => {
  const back = vi.fn();
  const deaf = onServerBack(back);
  const [first] = Stream.open;
  serverIsAway();
  expect(isAway()).toBe(true);
  await vi.advanceTimersByTimeAsync(1100);
  expect(Stream.open[0]).not.toBe(first);
  Stream.open[0].onopen();
  expect(isAway()).toBe(false);
  expect(back).toHaveBeenCalledTimes(1);
  deaf();
});

it("tries again with growing pauses, and at once when the network is back", async () => {
  Stream.open[0].onerror();
  expect(isAway()).toBe(true);
  await vi.advanceTimersByTimeAsync(1000);
  expect(Stream.open).toHaveLength(1);
  Stream.open[0].onerror();
  await vi.advanceTimersByTimeAsync(1000);
  expect(Stream.open).toHaveLength(0);
  window.dispatchEvent(new Event("online"));
  expect(Stream.open).toHaveLength(1);
  Stream.open[0].onopen();
  expect(isAway()).toBe(false);
});

it("a check that ends before everything was looked at does not pass for one that found nothing", async () => {
  const lines = (...steps: object[]) =>
    vi.stubGlobal("fetch", async () => new Response(steps.map((s) => `${JSON.stringify(s)}\n`).join("")));
  lines({ done: 1, of: 2, found: [] });
  await expect(api.verify(() => {})).rejects.toThrow(ApiError);
  lines({ done: 1, of: 2, found: [] }, { done: 2, of: 2, found: [] });
  await expect(api.verify(() => {})).resolves.toBeUndefined();
});
