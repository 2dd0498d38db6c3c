import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { categoryKey } from "@/core/rows/row-key";
import { type BoardAction, UNTOUCHED } from "@/core/view/board-state";
import { leaveHistory, writeHistory } from "./history";

/** What a page's history has been told, as `push` and `replace` with the address. */
let told: string[] = [];
beforeEach(() => {
  vi.useFakeTimers();
  told = [];
  const history = {
    pushState: (_: unknown, __: string, address: string) => told.push(`push ${address}`),
    replaceState: (_: unknown, __: string, address: string) => told.push(`replace ${address}`),
  };
  vi.stubGlobal("window", { history });
});
afterEach(() => {
  leaveHistory();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

/** Writes an address, and lets the board that asked for it go on. */
const write = async (address: string, action: BoardAction, live = false) => {
  writeHistory(() => address, action, live);
  await Promise.resolve();
};

const stretch = (control: string, from: number): BoardAction => ({
  type: "set filter",
  control,
  setting: { from, to: null },
});

describe("the history of a page", () => {
  it("is written after the board has gone on, which may ask before", async () => {
    writeHistory(() => "?a", stretch("delay", 1));
    expect(told).toEqual([]);
    await Promise.resolve();
    expect(told).toEqual(["push ?a"]);
  });

  it("has one step for a thumb that is dragged, written once it rests or is let go", async () => {
    for (let i = 1; i <= 5; i++) {
      await write(`?${i}`, stretch("minutes", i), true);
      vi.advanceTimersByTime(150);
    }
    expect(told).toEqual([]);
    vi.advanceTimersByTime(50);
    expect(told).toEqual(["push ?5"]);
    await write("?6", stretch("minutes", 6), true);
    await write("?7", stretch("minutes", 7));
    expect(told).toEqual(["push ?5", "replace ?7"]);
    vi.advanceTimersByTime(10_000);
    expect(told).toHaveLength(2);
  });

  it("has a step of its own for another thumb, for the same one later, and for a choice", async () => {
    await write("?a", stretch("delay", 1));
    await write("?b", stretch("seats", 1));
    vi.advanceTimersByTime(3000);
    await write("?c", stretch("seats", 2));
    const chosen = (value: string): BoardAction => ({
      type: "set filter",
      control: "route",
      setting: { in: [value] },
    });
    await write("?d", chosen("Ferrow"));
    await write("?e", chosen("Orrin"));
    const lately = (count: number): BoardAction => ({
      type: "set filter",
      control: "date",
      setting: { relative: { unit: "day", from: -count, to: 0, anchor: "today" } },
    });
    await write("?g", lately(7));
    await write("?h", lately(30));
    expect(told).toEqual(["a", "b", "c", "d", "e", "g", "h"].map((at) => `push ?${at}`));
  });

  it("has one step for a text as it is typed, for an input that is turned, and for two clicks on a category", async () => {
    const typed = (contains: string): BoardAction => ({
      type: "set filter",
      control: "name",
      setting: { contains },
    });
    await write("?f", typed("f"));
    await write("?fe", typed("fe"));
    await write("?1", { type: "set input", name: "target", value: 1 });
    await write("?2", { type: "set input", name: "target", value: 2 });
    const key = categoryKey("Ferrow");
    const pick: BoardAction = { type: "pick", visual: "v", side: "split", key, more: false, shown: [] };
    await write("?p", pick);
    await write("?s", { type: "step down", visual: "v", key });
    expect(told).toEqual(["push ?f", "replace ?fe", "push ?1", "replace ?2", "push ?p", "replace ?s"]);
  });

  it("has no step for what is left out of an address, nor for what had not rested when the page went elsewhere", async () => {
    await write("?left", { type: "become", state: UNTOUCHED });
    expect(told).toEqual(["replace ?left"]);
    await write("?never", stretch("delay", 1), true);
    leaveHistory();
    vi.advanceTimersByTime(10_000);
    expect(told).toEqual(["replace ?left"]);
  });
});
