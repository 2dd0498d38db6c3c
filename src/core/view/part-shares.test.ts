import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { categoryKey, type RowKey, rowKey } from "../rows/row-key";
import { plainRow } from "../rows/visual-data";
import type { Datum, Mark, Scene, Shown } from "../scene/marks";
import { withParts } from "../scene/part-of";
import { partShares } from "./part-shares";

type Told = Parameters<typeof partShares>[0];
const OTHER = rowKey({ type: "other" });
const told = (
  rows: [RowKey, number | null, (number | null)[]?][],
  series: RowKey[] = [],
  more = {},
): Told => ({
  rows: rows.map(([key, value, cells = []]) => ({ ...plainRow(key, String(key), value), cells })),
  series: series.map((key) => ({ key, label: key, groups: 0, place: null, color: null, total: null })),
  total: null,
  addsUp: true,
  baseline: null,
  ...more,
});
const [A, B, C, D] = ["A", "B", "C", "D"].map(categoryKey);
const [X, Y] = ["x", "y"].map(categoryKey);

describe("the shares of parts", () => {
  it("are of each row, and of Other what is left of all rows", () => {
    const shares = partShares(
      told([
        [A, 10],
        [B, 4],
        [OTHER, 6],
      ]),
      told([
        [A, 5],
        [C, 2],
        [D, 1],
      ]),
    );
    expect([A, B, OTHER].map((key) => shares?.(key))).toEqual([0.5, 0, 0.5]);
    expect(shares?.(C)).toBeNull();
  });

  it("make up the whole again over parts that divide it, for every row", () => {
    const rows = fc.array(
      fc.record({ key: fc.integer({ min: 0, max: 9 }), n: fc.nat(100), mine: fc.boolean() }),
      {
        minLength: 1,
      },
    );
    fc.assert(
      fc.property(rows, fc.integer({ min: 1, max: 4 }), (all, first) => {
        const by = (some: typeof all) => {
          const sums = new Map<number, number>();
          for (const { key, n } of some) sums.set(key, (sums.get(key) ?? 0) + n);
          return [...sums].map(([key, n]): [RowKey, number] => [categoryKey(key), n]);
        };
        const whole = by(all);
        const kept = whole.slice(0, first);
        const rest = whole.slice(first).reduce((sum, [, n]) => sum + n, 0);
        const drawn = told(whole.length > first + 1 ? [...kept, [OTHER, rest]] : whole);
        const [mine, theirs] = [true, false].map((is) =>
          partShares(drawn, told(by(all.filter((r) => r.mine === is)))),
        );
        for (const { key, value } of drawn.rows) {
          const shares = (mine?.(key) ?? 0) + (theirs?.(key) ?? 0);
          expect(shares).toBeCloseTo(value === 0 ? 0 : 1, 9);
        }
      }),
      { numRuns: 300, seed: 4 },
    );
  });

  it("are of each cell where rows have series", () => {
    const whole = told(
      [
        [A, 6, [4, 2]],
        [OTHER, 8, [0, 8]],
      ],
      [X, Y],
    );
    const shares = partShares(
      whole,
      told(
        [
          [A, 3, [1, 2]],
          [B, 2, [2, 0]],
        ],
        [Y, X],
      ),
    );
    expect(shares?.(A, X)).toBe(0.5);
    expect(shares?.(A, Y)).toBe(0.5);
    expect(shares?.(OTHER, Y)).toBe(0.25);
    expect(shares?.(OTHER, X)).toBe(0);
    // Which of the series that are put together is picked cannot be told.
    expect(partShares(told([[A, 1, [1, 0]]], [X, OTHER]), whole)).toBeNull();
  });

  it("are none of averages, and of lengths that begin elsewhere", () => {
    expect(partShares(told([[A, 1]], [], { addsUp: false }), told([]))).toBeNull();
    expect(partShares(told([[A, 1]], [], { baseline: 2 }), told([]))).toBeNull();
  });
});

const shown = (channel: Shown["channel"], row = A): Shown => ({ row, value: 1, channel });
const datum: Datum = { key: A, title: "A", lines: [] };
const scene = (...marks: Mark[]): Scene =>
  ({ marks, theme: "light", width: 9, height: 9, background: null, border: null }) as unknown as Scene;
const rect = (more: object): Mark =>
  ({
    id: "r",
    part: "bar",
    type: "rect",
    x: 10,
    y: 20,
    width: 40,
    height: 8,
    radii: [4, 4, 4, 4],
    surface: "data",
    shows: shown("length"),
    datum,
    ...more,
  }) as Mark;
const sector = (channel: Shown["channel"]): Mark =>
  ({
    id: "s",
    part: "arc",
    type: "sector",
    cx: 0,
    cy: 0,
    inner: 3,
    outer: 5,
    start: 90,
    end: 190,
    inset: 0,
    corners: [0, 0, 0, 0],
    surface: "data",
    shows: shown(channel),
  }) as Mark;
const parts = (share: number | null, ...marks: Mark[]) =>
  withParts(
    scene(...marks),
    () => share,
    (d, s) => ({ ...d, lines: [{ label: "picked", value: String(s) }] }),
  )?.marks;

describe("parts in front of their whole", () => {
  it("are in its scale, from where it grows, with the whole behind them", () => {
    const [ghost, part] = parts(0.25, rect({ grow: "left" })) ?? [];
    expect(ghost).toMatchObject({ id: "r", width: 40, opacity: 0.32, shows: shown("length") });
    expect(part).toMatchObject({ id: "part:r", x: 10, width: 10 });
    expect(part.shows).toBeUndefined();
    expect(part.datum).toEqual(ghost.datum);
    expect(part.datum?.lines).toEqual([{ label: "picked", value: "0.25" }]);
    expect(parts(0.25, rect({ grow: "right" }))?.[1]).toMatchObject({ x: 40, width: 10 });
    expect(parts(0.25, rect({ grow: "bottom" }))?.[1]).toMatchObject({ y: 26, height: 2 });
    expect(parts(0.25, rect({ grow: "top" }))?.[1]).toMatchObject({ y: 20, height: 2 });
  });

  it("are of a sweep, of an area or of a length", () => {
    expect(parts(0.5, sector("angle"))?.[1]).toMatchObject({ start: 90, end: 140 });
    expect(parts(0.5, sector("length"))?.[1]).toMatchObject({ outer: 4 });
    // Half of the area between 3 and 5: 9 + 16 / 2 = 17.
    expect(parts(0.5, sector("area"))?.[1]).toMatchObject({ outer: Math.sqrt(17) });
  });

  it("leave out what is written on a shape, whose colour is another now", () => {
    const text = (id: string, x: number) =>
      ({
        id,
        part: "labels",
        type: "text",
        x,
        y: 24,
        text: "7",
        size: 9,
        weight: 400,
        align: "middle",
        fill: "",
      }) as Mark;
    const found = parts(0.5, rect({ grow: "left", fill: "#123456" }), text("in", 30), text("beside", 60));
    expect(found?.map((m) => m.id)).toEqual(["r", "part:r", "beside"]);
  });

  it("are so many of the cells that are counted", () => {
    const cells = ["a", "b", "c", "d"].map((id) => rect({ id, shows: shown("count") }));
    expect(parts(0.5, ...cells)?.map((m) => m.opacity)).toEqual([undefined, undefined, 0.32, 0.32]);
  });

  it("are nothing where nothing of it is picked, and none where a picture cannot show them", () => {
    expect(parts(0, rect({ grow: "left" }))).toHaveLength(1);
    expect(parts(0.5, rect({ shows: shown("position") }))).toBeUndefined();
    expect(parts(0.5, rect({ grow: "left" }), rect({ grow: "left", id: "dash" }))).toBeUndefined();
    expect(parts(null, rect({ grow: "left" }))).toBeUndefined();
    expect(parts(1.2, rect({ grow: "left" }))).toBeUndefined();
    expect(parts(0.5)).toBeUndefined();
  });
});
