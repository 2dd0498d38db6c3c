import { describe, expect, it } from "vitest";
import { madeTile } from "../../testing/made-board";
import { newBoard, newVisual } from "../project/defaults";
import type { Board, Tile } from "../project/schema";
import { contrast } from "../scene/colour";
import { groundColours, groundUnder, visualOnBoard } from "./board-look";
import { styleOf } from "./picture";

const design = { palettes: [], finishes: [], pictures: [] };
const visual = newVisual({
  id: "v",
  name: "V",
  kind: "donut",
  finish: "night",
  dials: { "arc.hole": 40, "colours.palette": "harbour" },
});
const tile = madeTile("t", "v", { x: 0, y: 5, w: 4, h: 20 });
const section: Tile = {
  id: "s",
  type: "section",
  heading: "",
  ground: { light: "#0b2b4a", night: "#f4e9c8" },
  border: false,
  phone: null,
  x: 0,
  y: 0,
  w: 12,
  h: 40,
};
const board = (look: Partial<Board["look"]>, tiles: Tile[] = [tile]) => {
  const made = newBoard({ id: "b", name: "B", tiles });
  return { ...made, look: { ...made.look, ...look } };
};
const seen = (on: Board, theme: "light" | "night" = "light") =>
  visualOnBoard(visual, tile, on, { theme, design });

describe("a board's look", () => {
  it("leaves visuals as they are where it says nothing of them", () => {
    expect(seen(board({}))).toBe(visual);
    expect(seen(board({ ground: "tint" }))).toBe(visual);
  });

  it("goes before their own palette, finish and frame, and leaves all else", () => {
    const dressed = seen(board({ palette: "orchard", finish: "soft", frame: "line" }));
    expect(dressed).toMatchObject({
      finish: "soft",
      dials: { "arc.hole": 40, "colours.palette": "orchard", "frame.border": true, "frame.filled": false },
    });
    expect(visual.dials["colours.palette"]).toBe("harbour");
    // The same look gives the same object, so that nothing is drawn again for it.
    expect(seen(board({ palette: "orchard", finish: "soft", frame: "line" }))).toBe(dressed);
  });

  it("draws what has no ground of its own in the inks that read on what lies under it", () => {
    const on = board({ frame: "bare" }, [tile, section]);
    expect(groundUnder(tile, on)).toEqual(section.type === "section" && section.ground);
    for (const [theme, ground] of [
      ["light", "#0b2b4a"],
      ["night", "#f4e9c8"],
    ] as const) {
      const style = styleOf(seen(on, theme), design);
      expect([style.toggle("frame.filled"), style.colour("frame.background", "")]).toEqual([true, ground]);
    }
    // A card keeps its own sheet.
    expect(seen(board({ frame: "card" }, [tile, section])).dials["frame.background"]).toBeUndefined();
  });

  it("has grounds on which their inks read, by day and at night", () => {
    for (const ground of ["panel", "sheet", "well", "tint"] as const)
      for (const theme of ["light", "night"] as const) {
        const painted = groundColours(ground, theme);
        if (!painted) throw new Error("no ground");
        expect(contrast(painted.background, painted.ink)).toBeGreaterThanOrEqual(7);
        expect(contrast(painted.background, painted.muted)).toBeGreaterThanOrEqual(4.5);
      }
    expect(groundColours("none", "light")).toBeNull();
  });
});
