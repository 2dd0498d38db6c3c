import fc from "fast-check";
import { describe, expect, it } from "vitest";
import {
  boxOf,
  freePlace,
  insetsOf,
  makeRoom,
  type Place,
  type Placed,
  sectionOf,
  withMembers,
} from "./tile-layout";

const meets = (a: Omit<Place, "id">, b: Omit<Place, "id">) =>
  a.x < b.x + b.w && b.x < a.x + a.w && a.y < b.y + b.h && b.y < a.y + a.h;
const tile = (id: string, [x, y, w, h]: number[], type: Placed["type"] = "text"): Placed => ({
  id,
  type,
  heading: type === "section" ? "H" : "",
  x,
  y,
  w,
  h,
});
const boxes = fc.array(
  fc.record({
    x: fc.integer({ min: 0, max: 11 }),
    y: fc.integer({ min: 0, max: 60 }),
    w: fc.integer({ min: 1, max: 12 }),
    h: fc.integer({ min: 1, max: 30 }),
    type: fc.constantFrom<Placed["type"]>("text", "text", "text", "section"),
  }),
  { minLength: 1, maxLength: 14 },
);
const boardOf = (given: Omit<Placed, "id">[]): Placed[] =>
  given.map((p, i) => ({ id: `t${i}`, ...p, x: Math.min(p.x, 12 - p.w) }));
const at = (places: Place[], id: string) => {
  const found = places.find((p) => p.id === id);
  if (!found) throw new Error(`no ${id}`);
  const { x, y, w, h } = found;
  return [x, y, w, h];
};
/** A board on which nothing lies on anything but in its section. */
const settled = (given: Omit<Placed, "id">[]): Placed[] => {
  const tiles = boardOf(given);
  const places = makeRoom(tiles, []);
  return tiles.map((t, i) => ({ ...t, ...places[i] }));
};

describe("making room", () => {
  it("leaves no tile under another but in its own section, whatever is moved where", () => {
    fc.assert(
      fc.property(boxes, boxes, fc.nat(), (given, wanted, which) => {
        const tiles = settled(given);
        const one = tiles[which % tiles.length];
        const target = wanted[0];
        const members = withMembers(new Set([one.id]), tiles);
        const [dx, dy] = [Math.min(target.x, 12 - one.w) - one.x, target.y - one.y];
        const moved = tiles
          .filter((t) => members.has(t.id))
          .map((t) => ({ ...t, x: t.x + dx, y: Math.max(0, t.y + dy) }));
        const places = makeRoom(tiles, moved);
        const after = tiles.map((t, i) => ({ ...t, ...places[i] }));
        for (const [i, a] of after.entries())
          for (const b of after.slice(i + 1)) {
            const isWithin = sectionOf(a, after)?.id === b.id || sectionOf(b, after)?.id === a.id;
            expect(meets(a, b) && !isWithin).toBe(false);
          }
        expect(places.every((p) => p.x >= 0 && p.x + p.w <= 12 && p.y >= 0)).toBe(true);
        // What was settled already stays.
        expect(makeRoom(after, [])).toEqual(places);
      }),
      { numRuns: 500, seed: 13 },
    );
  });

  it("moves nothing that is not in the way, and leaves free rows free", () => {
    const tiles = [tile("a", [0, 0, 4, 10]), tile("b", [4, 30, 4, 10]), tile("c", [0, 50, 12, 4])];
    const places = makeRoom(tiles, [{ id: "a", x: 8, y: 3, w: 4, h: 10 }]);
    expect(at(places, "a")).toEqual([8, 3, 4, 10]);
    expect(at(places, "b")).toEqual([4, 30, 4, 10]);
    expect(at(places, "c")).toEqual([0, 50, 12, 4]);
  });

  it("puts what is in the way below, and what that is in the way of too", () => {
    const tiles = [tile("a", [0, 40, 4, 10]), tile("b", [0, 0, 4, 10]), tile("c", [0, 10, 4, 10])];
    const places = makeRoom(tiles, [{ id: "a", x: 0, y: 5, w: 4, h: 10 }]);
    expect([at(places, "a")[1], at(places, "b")[1], at(places, "c")[1]]).toEqual([5, 15, 25]);
  });

  it("takes a section's own tiles along, and lets it grow for them", () => {
    const tiles = [
      tile("s", [0, 0, 6, 20], "section"),
      tile("a", [0, 5, 6, 15]),
      tile("b", [0, 20, 6, 10]),
      tile("n", [6, 0, 6, 10]),
    ];
    // A tile that is put into the section pushes its own down; what stood below it goes on below.
    const into = makeRoom(tiles, [{ id: "n", x: 0, y: 5, w: 6, h: 10 }]);
    expect(at(into, "s")).toEqual([0, 0, 6, 30]);
    expect(at(into, "a")).toEqual([0, 15, 6, 15]);
    expect(at(into, "b")).toEqual([0, 30, 6, 10]);
    // A tile above pushes the section with what is in it.
    const above = makeRoom(tiles, [{ id: "n", x: 5, y: 0, w: 6, h: 10 }]);
    expect(at(above, "s")).toEqual([0, 10, 6, 20]);
    expect(at(above, "a")).toEqual([0, 15, 6, 15]);
    expect([...withMembers(new Set(["s"]), tiles)]).toEqual(["s", "a"]);
  });
});

describe("a tile over the edge of a section", () => {
  const section = { ...tile("s", [2, 10, 6, 20], "section"), heading: "H" };
  const tiles = [section, tile("in", [2, 15, 4, 10]), tile("n", [8, 30, 4, 10])];

  it("belongs to it where its middle is within: the section grows, and others give way", () => {
    const places = makeRoom(tiles, [{ id: "in", x: 5, y: 24, w: 4, h: 10 }]);
    expect(at(places, "s")).toEqual([2, 10, 7, 24]);
    expect(at(places, "in")).toEqual([5, 24, 4, 10]);
    expect(at(places, "n")).toEqual([8, 34, 4, 10]);
  });

  it("leaves it where its middle is outside, and then the section gives way", () => {
    const places = makeRoom(tiles, [{ id: "in", x: 8, y: 24, w: 4, h: 6 }]);
    expect(at(places, "s")).toEqual([2, 10, 6, 20]);
    const above = makeRoom(tiles, [{ id: "in", x: 2, y: 4, w: 4, h: 10 }]);
    expect([at(above, "in"), at(above, "s")]).toEqual([
      [2, 4, 4, 10],
      [2, 14, 6, 20],
    ]);
  });

  it("keeps off its heading", () => {
    expect(at(makeRoom(tiles, [{ id: "in", x: 2, y: 10, w: 4, h: 10 }]), "in")).toEqual([2, 15, 4, 10]);
    const bare = [{ ...section, heading: "" }, tiles[1]];
    expect(at(makeRoom(bare, [{ id: "in", x: 2, y: 10, w: 4, h: 10 }]), "in")).toEqual([2, 10, 4, 10]);
    expect(insetsOf({ ...tiles[1], y: 10 }, bare).top).toBe(12);
  });
});

describe("a free place", () => {
  it("meets nothing, is the first from the top, and is found on a full board of a hundred", () => {
    fc.assert(
      fc.property(boxes, fc.integer({ min: 1, max: 12 }), fc.integer({ min: 1, max: 30 }), (given, w, h) => {
        const tiles = settled(given);
        const free = freePlace(tiles, w, h);
        expect(tiles.some((t) => meets({ ...free, w, h }, t))).toBe(false);
        for (let y = 0; y < free.y; y++)
          for (let x = 0; x + w <= 12; x++) expect(tiles.some((t) => meets({ x, y, w, h }, t))).toBe(true);
      }),
      { numRuns: 200, seed: 4 },
    );
    const full = Array.from({ length: 100 }, (_, i) => tile(`t${i}`, [0, i * 280, 12, 280]));
    expect(freePlace(full, 4, 42)).toEqual({ x: 0, y: 28_000 });
  });
});

describe("boxes", () => {
  it("of the whole width take it, and of a row leave the gap below", () => {
    const wide = tile("a", [0, 0, 12, 42]);
    expect(boxOf(wide, [wide], 1240)).toEqual({ x: 0, y: 0, width: 1240, height: 324 });
    const third = tile("b", [4, 42, 4, 10]);
    expect(boxOf(third, [third], 1240)).toEqual({ x: 1252 / 3, y: 336, width: 405, height: 68 });
  });

  it("keep away from the edges of their section", () => {
    const tiles = [tile("s", [0, 0, 12, 30], "section"), tile("a", [0, 5, 6, 25]), tile("b", [6, 5, 6, 20])];
    expect(insetsOf(tiles[1], tiles)).toEqual({ left: 12, right: 0, top: 0, bottom: 24 });
    expect(insetsOf(tiles[2], tiles)).toEqual({ left: 0, right: 12, top: 0, bottom: 12 });
    expect(insetsOf(tiles[0], tiles)).toEqual({ left: 0, right: 0, top: 0, bottom: 12 });
  });
});
