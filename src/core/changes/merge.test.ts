import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { demoProject } from "../../demo/project";
import { QUILLHAVEN } from "../../demo/quillhaven";
import { ReadingGuess } from "../data/reading-guess";
import { newMeasure, newVisual } from "../project/defaults";
import { type Edit, edited } from "../project/edits";
import { type Project, tableSchema } from "../project/schema";
import { documentSchema } from "../view/document";
import { brokenIn, namedIn, namedInAny } from "./broken";
import { changesBetween, inverse, withChanges } from "./changes";
import { merge } from "./merge";

const tables = QUILLHAVEN.map((t) => {
  const guesses = t.columns.map(() => new ReadingGuess());
  let rows = 0;
  for (const row of t.rows()) {
    if (++rows > 400) break;
    for (const [i, cell] of row.entries()) guesses[i].add(cell);
  }
  const columns = t.columns.map((name, i) => ({ name, reading: guesses[i].settle().reading }));
  return tableSchema.parse({ id: t.name, name: t.name, rows, columns, source: { file: "" } });
});
const demo = documentSchema.parse(demoProject(tables));
const [donut, other] = demo.visuals;
const [board] = demo.boards;
const apply = (project: Project, ...edits: Edit[]) => edits.reduce(edited, project);

/** Edits of everything that windows change at the same time, against what stands in the demo. */
const pick = <T>(list: readonly T[]) => fc.constantFrom(...list);
const visual = pick(demo.visuals);
const measure = pick(demo.measures);
const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .tuple(visual, pick(["arc.hole", "legend.place", "__proto__", "a+b"]), fc.integer({ min: 1, max: 90 }))
    .map(([{ id }, dial, value]): Edit => ({ type: "set dial", id, dial, value })),
  fc
    .tuple(visual, pick(["A", "{measure}", "{passengers} now"]))
    .map(([{ id }, title]): Edit => ({ type: "change visual", id, change: { title } })),
  fc
    .tuple(visual, measure)
    .map(([{ id }, { id: value }]): Edit => ({ type: "change visual", id, change: { value } })),
  fc.tuple(visual, visual).map(
    ([a, b]): Edit => ({
      type: "change visual",
      id: a.id,
      change: { split: b.split, target: b.target },
    }),
  ),
  visual.map(({ id }): Edit => ({ type: "remove visual", id })),
  measure.map(({ id }): Edit => ({ type: "remove measure", id })),
  fc
    .tuple(measure, pick(["riders", "cost", "share"]))
    .map(([{ id }, name]): Edit => ({ type: "change measure", id, change: { name } })),
  fc.tuple(measure, fc.integer({ min: 0, max: 4 })).map(
    ([{ id, format }, decimals]): Edit => ({
      type: "change measure",
      id,
      change: { format: { ...format, decimals } },
    }),
  ),
  fc.tuple(pick(["n1", "n2"]), measure).map(
    ([id, { name, label }]): Edit => ({
      type: "add measure",
      measure: newMeasure({
        id,
        name: `half_${id}`,
        label: `Half ${label}`,
        table: null,
        formula: `${name} / 2`,
      }),
    }),
  ),
  fc.tuple(pick(["v1", "v2"]), measure).map(
    ([id, { id: value, label }]): Edit => ({
      type: "add visual",
      visual: newVisual({ id, name: label, kind: "number", value }),
    }),
  ),
  fc.tuple(pick(board.tiles), fc.nat(11), fc.nat(20)).map(
    ([{ id, w, h }, x, y]): Edit => ({
      type: "place tiles",
      board: board.id,
      places: [{ id, x: Math.min(x, 12 - w), y, w, h }],
    }),
  ),
  pick(board.tiles).map(({ id }): Edit => ({ type: "remove tiles", board: board.id, tiles: [id] })),
  fc
    .shuffledSubarray(
      demo.visuals.map((v) => v.id),
      { minLength: 1 },
    )
    .map((ids): Edit => ({ type: "order items", list: "visuals", ids })),
  pick(demo.tables).map(({ id }): Edit => ({ type: "rename table", id, name: `${id} of all` })),
  pick(demo.inputs).chain(({ id }) =>
    fc.integer().map((value): Edit => ({ type: "change input", id, change: { value } })),
  ),
);
const edits = fc.array(edit, { minLength: 1, maxLength: 6 });
/** The demo after edits; what is there already is not added again. */
const made = (list: Edit[]) =>
  list.reduce((project, one) => {
    const added =
      one.type === "add measure" ? one.measure.id : one.type === "add visual" ? one.visual.id : "";
    return namedIn(project).ids.has(added) ? project : edited(project, one);
  }, demo);

describe("the changes between two documents", () => {
  it("make one of the other, and taken back the one before", () => {
    fc.assert(
      fc.property(edits, edits, (ofA, ofB) => {
        const [a, b] = [made(ofA), made(ofB)];
        const changes = changesBetween(a, b);
        expect(withChanges(a, changes)).toEqual({ document: b, missed: [] });
        expect(withChanges(b, inverse(changes))).toEqual({ document: a, missed: [] });
      }),
      { numRuns: 60 },
    );
  });

  it("are units that a person would call one: a dial, a place, a field of a measure's format", () => {
    const now = apply(
      demo,
      { type: "set dial", id: donut.id, dial: "arc.hole", value: 33 },
      {
        type: "change measure",
        id: demo.measures[0].id,
        change: { format: { ...demo.measures[0].format, prefix: "~" } },
      },
      { type: "remove tiles", board: board.id, tiles: [board.tiles[0].id] },
    );
    expect(changesBetween(demo, now).map(({ path }) => path.join(" "))).toEqual([
      `measures ${demo.measures[0].id} format prefix`,
      `visuals ${donut.id} dials arc.hole`,
      `boards ${board.id} tiles ${board.tiles[0].id}`,
      `boards ${board.id} tiles`,
    ]);
  });

  it("apply to what others went on with, and not where they changed the same or removed it", () => {
    const set = changesBetween(
      demo,
      apply(demo, { type: "set dial", id: donut.id, dial: "arc.hole", value: 33 }),
    );
    const renamed = apply(demo, { type: "change visual", id: donut.id, change: { title: "T" } });
    const { document, missed } = withChanges(renamed, set);
    expect(missed).toEqual([]);
    expect(document.visuals[0]).toMatchObject({ title: "T", dials: { "arc.hole": 33 } });
    for (const theirs of [
      apply(demo, { type: "set dial", id: donut.id, dial: "arc.hole", value: 44 }),
      apply(demo, { type: "remove visual", id: donut.id }),
    ])
      expect(withChanges(theirs, set)).toEqual({ document: theirs, missed: set });
  });
});

describe("two windows' documents", () => {
  it("merge by themselves where they touch different things: the schema takes it, references hold, and it is the same from either side", () => {
    let merged = 0;
    fc.assert(
      fc.property(edits, edits, (ofMine, ofTheirs) => {
        const [mine, theirs] = [made(ofMine), made(ofTheirs)];
        const { document, conflicts } = merge(demo, mine, theirs);
        expect(documentSchema.safeParse(document).success).toBe(true);
        const anywhere = namedInAny([mine, theirs]);
        const known = [mine, theirs].map((side) => brokenIn(side, anywhere));
        expect([...brokenIn(document, anywhere)].filter((f) => !known.some((k) => k.has(f)))).toEqual([]);
        if (conflicts.length > 0) return;
        merged++;
        expect(merge(demo, theirs, mine)).toEqual({ document, conflicts: [] });
      }),
      { numRuns: 100 },
    );
    // The property would hold of conflicts alone.
    expect(merged).toBeGreaterThan(10);
  });

  it("loses nothing of either where nothing conflicts", () => {
    fc.assert(
      fc.property(edits, (ofMine) => {
        const mine = made(ofMine);
        expect(merge(demo, mine, demo)).toEqual({ document: mine, conflicts: [] });
        expect(merge(demo, demo, mine)).toEqual({ document: mine, conflicts: [] });
        expect(merge(demo, mine, mine)).toEqual({ document: mine, conflicts: [] });
      }),
      { numRuns: 25 },
    );
  });

  it("conflict where both change the same unit, and either side can be kept", () => {
    const mine = apply(demo, { type: "set dial", id: donut.id, dial: "arc.hole", value: 33 });
    const theirs = apply(
      demo,
      { type: "set dial", id: donut.id, dial: "arc.hole", value: 44 },
      { type: "rename project", name: "Theirs" },
    );
    const { document, conflicts } = merge(demo, mine, theirs);
    expect(conflicts).toHaveLength(1);
    expect(document).toEqual(theirs);
    const taken = merge(demo, mine, theirs, () => true).document;
    expect(taken.name).toBe("Theirs");
    expect(taken.visuals[0].dials["arc.hole"]).toBe(33);
  });

  it("conflict where one removes what the other changes, as one question", () => {
    const changed = apply(
      demo,
      { type: "set dial", id: donut.id, dial: "arc.hole", value: 33 },
      { type: "change visual", id: donut.id, change: { title: "Mine" } },
    );
    const removed = apply(demo, { type: "remove visual", id: donut.id });
    for (const [mine, theirs] of [
      [changed, removed],
      [removed, changed],
    ]) {
      const { document, conflicts } = merge(demo, mine, theirs);
      expect(conflicts).toHaveLength(1);
      expect(document.visuals).toEqual(theirs.visuals);
      const taken = merge(demo, mine, theirs, () => true).document;
      expect(taken.visuals.map((v) => v.id).toSorted()).toEqual(mine.visuals.map((v) => v.id).toSorted());
      expect(taken.visuals.find((v) => v.id === donut.id)).toEqual(
        mine.visuals.find((v) => v.id === donut.id),
      );
    }
  });

  it("conflict where one uses what the other removed or called otherwise", () => {
    const used = demo.measures.find((m) => m.id === donut.value);
    if (!used) throw new Error("the first visual has a measure");
    const using = apply(demo, {
      type: "add measure",
      measure: newMeasure({
        id: "half",
        name: "half",
        label: "Half",
        table: null,
        formula: `${used.name} / 2`,
      }),
    });
    const renamed = apply(demo, { type: "change measure", id: used.id, change: { name: "something_else" } });
    const found = merge(demo, using, renamed);
    expect(found.conflicts).toHaveLength(1);
    expect(found.document).toEqual(renamed);
    const taken = merge(demo, using, renamed, () => true).document;
    expect(taken.measures.map((m) => m.name)).toEqual(expect.arrayContaining(["half", used.name]));
    const known = namedInAny([using, renamed]);
    expect(brokenIn(taken, known)).toEqual(brokenIn(demo, known));
  });

  it("conflict where a visual shows a measure that the other removed", () => {
    const added = made([
      { type: "add visual", visual: newVisual({ id: "v1", name: "V", kind: "number", value: "revenue" }) },
    ]);
    const removed = made([{ type: "remove measure", id: "revenue" }]);
    for (const [mine, theirs] of [
      [added, removed],
      [removed, added],
    ]) {
      const { document, conflicts } = merge(demo, mine, theirs);
      expect(conflicts).toHaveLength(1);
      expect(document).toEqual(theirs);
      expect(conflicts[0].theirs).not.toEqual([]);
    }
  });

  it("conflict where both give the same name", () => {
    const named = (id: string) =>
      apply(demo, {
        type: "add measure",
        measure: newMeasure({ id, name: "deaths", label: "Deaths", table: null, formula: "1" }),
      });
    expect(merge(demo, named("a"), named("b")).conflicts).toHaveLength(1);
  });

  it("keep a name that somebody typed beside a sentence that another window changed", () => {
    const typed = apply(demo, { type: "change visual", id: other.id, change: { name: "Mine" } });
    const value = demo.measures.find((m) => m.id !== other.value)?.id ?? null;
    const said = apply(demo, { type: "change visual", id: other.id, change: { value } });
    for (const { document, conflicts } of [merge(demo, typed, said), merge(demo, said, typed)]) {
      expect(conflicts).toEqual([]);
      expect(document.visuals.find((v) => v.id === other.id)).toMatchObject({ name: "Mine", value });
    }
  });

  it("let no tile lie under another when both put one on the same place", () => {
    const put = (id: string, tile: number): Project =>
      apply(demo, {
        type: "add tile",
        board: board.id,
        tile: { id, type: "visual", visual: demo.visuals[tile].id, as: "drawing", aside: false },
        size: { width: 6, height: 5 },
      });
    const { document, conflicts } = merge(demo, put("new1", 0), put("new2", 1));
    expect(conflicts).toEqual([]);
    const [a, b] = ["new1", "new2"].map((id) => document.boards[0].tiles.find((t) => t.id === id));
    expect(a && b && (a.y + a.h <= b.y || b.y + b.h <= a.y || a.x + a.w <= b.x || b.x + b.w <= a.x)).toBe(
      true,
    );
  });
});
