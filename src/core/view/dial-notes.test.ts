import { describe, expect, it } from "vitest";
import { visualOf } from "@/testing/craft/cases";
import { sampleData, VALUES } from "@/testing/craft/sample-data";
import { KINDS, type KindId, kindOf } from "../kinds";
import type { NumberDial } from "../kinds/anatomy/dial";
import type { Visual } from "../project/schema";
import { dialNotes } from "./dial-notes";
import { readTyped, typedProblem } from "./dial-number";
import { sceneOf } from "./picture";

const SMALL = { size: { width: 220, height: 160 } };
const FIVE = sampleData(VALUES.slice(0, 5));
const ONE = sampleData([86], { target: 100 });
const dialOf = (kind: string, key: string) => {
  const [part, id] = key.split(".");
  return kindOf(kind)
    .parts.find((p) => p.id === part)
    ?.dials.find((d) => d.id === id) as NumberDial;
};

describe("what a dial cannot have", () => {
  it("is said at the dial: how thick a ring is drawn where it has no room", () => {
    const visual = visualOf("progress ring", { "ring.thickness": 40 });
    const ring = sceneOf(visual, FIVE).marks.find((m) => m.type === "sector");
    if (ring?.type !== "sector") throw new Error("no ring is drawn");
    const drawn = Math.round(ring.outer - ring.inner);
    expect(drawn).toBeLessThan(20);
    expect(dialNotes(visual, FIVE).get("ring.thickness")).toBe(`Drawn at ${drawn} px at this size`);
    expect(dialNotes(visualOf("progress ring", { "ring.thickness": 8 }), FIVE).has("ring.thickness")).toBe(
      false,
    );
  });

  it("is said of numbers past the end of their dial, as documents from elsewhere have them", () => {
    const notes = dialNotes(visualOf("donut", { "motion.entry": 2000, "arc.hole": -5 }), FIVE);
    expect(notes.get("motion.entry")).toBe("Drawn at 1500 ms, its most");
    expect(notes.get("arc.hole")).toBe("Drawn at 0%, its least");
  });

  it("is said of texts: whether they wait for the pointer, for room, or for other values", () => {
    const shown = (kind: KindId, data = FIVE) => dialNotes(visualOf(kind), data).get("reading.shown");
    expect(shown("progress ring")).toBe("Empty until a part is pointed at: several have no one number");
    expect(shown("progress ring", ONE)).toBeUndefined();
    expect(shown("donut")).toBeUndefined();
    expect(shown("progress bar")).toBe("None is drawn with these dials and values");
    const tiny = (dials: Visual["dials"], data = FIVE) =>
      dialNotes(visualOf("donut", dials, { size: { width: 96, height: 72 } }), data);
    expect(tiny({}).get("heading.shown")).toBe("None is drawn at this size");
    expect(tiny({}, { ...FIVE, title: "", subtitle: "" }).has("heading.shown")).toBe(false);
    expect(tiny({ "labels.content": "share" }).get("labels.content")).toBe("None is drawn at this size");
  });

  it("is nothing where nobody set a number, but for texts that are missing", () => {
    for (const { id } of KINDS)
      for (const data of [FIVE, ONE])
        for (const more of [{}, SMALL])
          for (const key of dialNotes(visualOf(id, {}, more), data).keys())
            expect(key, id).toMatch(/\.(shown|content)$/);
  });

  it("is the same however shapes are painted, whatever outlines and dashes take of them", () => {
    const painted = [
      ...["soft", "ramp", "embossed", "outline"].map((shade) => ({ "surface.shade": shade })),
      { "surface.dashes": 24 },
    ];
    for (const { id, parts } of KINDS) {
      const numbers = parts.flatMap((part) =>
        part.dials.flatMap((d) => (d.type === "number" ? [[`${part.id}.${d.id}`, d.default] as const] : [])),
      );
      const dials = Object.fromEntries(numbers.filter(([key]) => !/^surface\.|\.size$/.test(key)));
      const notesOf = (paint: Visual["dials"]) =>
        [...dialNotes(visualOf(id, { ...dials, ...paint }), FIVE)].filter(([key]) => key in dials);
      for (const paint of painted) expect(notesOf(paint), JSON.stringify(paint)).toEqual(notesOf({}));
    }
  });

  it("is nothing while there is no answer", () => {
    const visual = visualOf("donut", { "heading.size": 32 }, SMALL);
    expect(dialNotes(visual, FIVE).get("heading.size")).toMatch(/^Drawn at /);
    expect(dialNotes(visual, { ...FIVE, problem: "" }).size).toBe(0);
    expect(dialNotes(visual, { ...FIVE, rows: [] }).size).toBe(0);
  });
});

describe("a number typed for a dial", () => {
  const thickness = dialOf("progress ring", "ring.thickness");
  it("is read with its unit or without", () => {
    expect(["20", "20 px", "20px", " 20 PX ", "20,5", "20.5px"].map((t) => readTyped(thickness, t))).toEqual([
      20, 20, 20, 20, 20.5, 20.5,
    ]);
    expect(["", "px", "20 %", "20 30", "1e3", "twenty", "NaN"].map((t) => readTyped(thickness, t))).toEqual(
      Array(7).fill(null),
    );
  });

  it("is refused past the ends, with both of them, and never replaced", () => {
    expect(typedProblem(thickness, "20")).toBeNull();
    expect(typedProblem(thickness, "61")).toBe("From 2 px to 60 px.");
    expect(typedProblem(thickness, "-1")).toBe("From 2 px to 60 px.");
    expect(typedProblem(thickness, "twenty")).toBe("Write a number, for example 18 px.");
    expect(typedProblem(dialOf("donut", "motion.entry"), "2000")).toBe("From 0 ms to 1500 ms.");
    expect(typedProblem(dialOf("donut", "arc.hole"), "96%")).toBe("From 0% to 95%.");
  });
});
