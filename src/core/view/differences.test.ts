import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { demoProject } from "../../demo/project";
import { KINDS } from "../kinds";
import { newBoard, newInput, newMeasure, newVisual } from "../project/defaults";
import { type Edit, edited } from "../project/edits";
import { emptyProject, type Project } from "../project/schema";
import { differences } from "./differences";
import { wordsOf } from "./edit-words";

const visual = newVisual({ id: "v", name: "Passengers by route", kind: "donut", dials: { "arc.hole": 58 } });
const start: Project = {
  ...emptyProject("Season"),
  measures: [newMeasure({ id: "m", name: "riders", label: "Passengers", table: null, formula: "count(*)" })],
  inputs: [newInput({ id: "i", name: "goal", label: "Goal", type: "number", value: 84 })],
  visuals: [visual],
  boards: [newBoard({ id: "b", name: "Today" })],
};
const words = (edit: Edit, project = start) => wordsOf(edit, project, edited(project, edit));

describe("the words of an edit", () => {
  it("tell a dial by its own name, unit and options, and the visual", () => {
    expect(words({ type: "set dial", id: "v", dial: "arc.hole", value: 64 })).toBe(
      "Hole 58 % → 64 %, Passengers by route",
    );
    expect(words({ type: "set dial", id: "v", dial: "arc.direction", value: "counter" })).toBe(
      "Ring, direction clockwise → the other way, Passengers by route",
    );
    expect(words({ type: "set dial", id: "v", dial: "arc.hole", value: null })).toBe(
      "Hole 58 % → 62 %, Passengers by route",
    );
  });

  it("tell fields with their values where those are short", () => {
    expect(words({ type: "change visual", id: "v", change: { title: "Riders" } })).toBe(
      "Title nothing → “Riders”, Passengers by route",
    );
    expect(words({ type: "change input", id: "i", change: { value: 90 } })).toBe("Goal 84 → 90");
    expect(
      words({
        type: "change measure",
        id: "m",
        change: { format: { ...start.measures[0].format, decimals: 2 } },
      }),
    ).toBe("Format changed, Passengers");
    expect(words({ type: "rename board", id: "b", name: "Now" })).toBe("Board Today → Now");
    expect(words({ type: "remove measure", id: "m" })).toBe("Measure Passengers removed");
  });

  it("say something of what is not there either", () => {
    for (const edit of [
      { type: "set dial", id: "gone", dial: "arc.hole", value: 1 },
      { type: "set dial", id: "v", dial: "no.dial", value: 1 },
      { type: "remove link", id: "gone" },
      { type: "remove control", board: "b", control: "gone" },
      { type: "remove tiles", board: "gone", tiles: ["gone"] },
      { type: "change tile", board: "b", tile: "gone", change: { text: "x" } },
      { type: "change board", board: "gone", change: { width: 1280, look: { frame: "line" } } },
      { type: "place tiles", board: "b", places: [] },
    ] satisfies Edit[])
      expect(words(edit)).toMatch(/^[A-Za-z].{5,}/);
  });
});

describe("the differences of two documents", () => {
  const applied = (found: { edit: Edit }[], from: Project) => found.reduce((p, d) => edited(p, d.edit), from);

  it("are none between equal ones, whoever made them", () => {
    expect(differences(start, structuredClone(start))).toEqual([]);
  });

  it("name each dial, each member that came or went, and an order", () => {
    const b: Project = {
      ...start,
      name: "Year",
      measures: [],
      visuals: [
        newVisual({ id: "w", name: "New", kind: "rose" }),
        { ...visual, title: "T", dials: { "arc.hole": 64, "arc.gap": 1 } },
      ],
    };
    expect(differences(start, b).map((d) => d.words)).toEqual([
      "Project “Season” → “Year”",
      "Measure Passengers removed",
      "Visual New added",
      "Hole 58 % → 64 %, Passengers by route",
      "Gap 3 px → 1 px, Passengers by route",
      "Visual Passengers by route: Title nothing → “T”",
      "Visuals in another order",
    ]);
    expect(applied(differences(start, b), start)).toEqual(b);
  });

  it("make any document of any other when they are applied", () => {
    const id = fc.constantFrom("a", "b", "c", "d");
    const kind = fc.constantFrom(...KINDS.map((k) => k.id));
    const dials = fc.dictionary(
      fc.constantFrom("arc.hole", "arc.gap", "bar.width", "constructor"),
      fc.integer(),
    );
    const visuals = fc.uniqueArray(
      fc.record({ id, name: fc.string({ minLength: 1 }), kind, dials }).map((v) => newVisual(v)),
      { selector: (v) => v.id },
    );
    const measures = fc.uniqueArray(
      fc
        .record({ id, name: fc.string(), label: fc.string(), table: fc.constant(null), formula: fc.string() })
        .map((m) => newMeasure(m)),
      { selector: (m) => m.id },
    );
    const document = fc
      .record({ name: fc.string({ minLength: 1 }), visuals, measures })
      .map((parts): Project => ({ ...emptyProject("x"), ...parts }));
    fc.assert(
      fc.property(document, document, (a, b) => {
        const found = differences(a, b);
        expect(applied(found, a)).toEqual(b);
        for (const d of found) expect(d.words.trim()).not.toBe("");
      }),
      { numRuns: 300, seed: 11 },
    );
  });

  it("of the demo and an empty project tell everything, and nothing is left", () => {
    const demo = demoProject([]);
    const found = differences(emptyProject("Empty"), demo);
    expect(applied(found, emptyProject("Empty"))).toEqual(demo);
    expect(found.filter((d) => d.words.startsWith("Visual "))).toHaveLength(demo.visuals.length);
  });
});
