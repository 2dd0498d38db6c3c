import { readdirSync, readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";
import { migrateDocument } from "./migrations";
import { emptyProject, FORMAT_VERSION, projectSchema } from "./schema";

const folder = new URL("./stored/", import.meta.url);
const stored = (version: number) =>
  JSON.parse(readFileSync(new URL(`version-${version}.json`, folder), "utf8"));

describe("stored documents", () => {
  it("of every version before today's are kept here", () => {
    const versions = Array.from({ length: FORMAT_VERSION - 1 }, (_, i) => `version-${i + 1}.json`);
    expect(readdirSync(folder).sort()).toEqual(versions);
  });

  it.each(Array.from({ length: FORMAT_VERSION - 1 }, (_, i) => i + 1))(
    "of version %i open as they were",
    (version) => {
      const before = stored(version);
      const migrated = migrateDocument(before);
      if ("problem" in migrated) throw new Error(migrated.problem);
      const project = projectSchema.parse(migrated.document);
      expect(project.version).toBe(FORMAT_VERSION);
      for (const part of ["tables", "links", "measures", "inputs", "visuals", "boards"] as const)
        expect(project[part]).toHaveLength(before[part].length);
      expect(project.measures.map((m) => m.formula)).toEqual(
        before.measures.map((m: { formula: string }) => m.formula),
      );
      // What is today's already is left as it is.
      expect(migrateDocument(project)).toEqual({ document: project });
    },
  );

  it("of version 3 keep what filters of boards begin with", () => {
    const migrated = migrateDocument(stored(3));
    if ("problem" in migrated) throw new Error(migrated.problem);
    const [board] = projectSchema.parse(migrated.document).boards;
    const filters = board.controls.filter((c) => c.type === "filter");
    expect(filters.map((f) => [f.id, f.as, f.begins])).toEqual([
      ["year", "buttons", { in: [2025] }],
      ["route", "buttons", { in: [] }],
    ]);
  });

  it("of version 4 keep their tiles as high as they were, and what stands aside", () => {
    const before = stored(4);
    const migrated = migrateDocument(before);
    if ("problem" in migrated) throw new Error(migrated.problem);
    const { boards } = projectSchema.parse(migrated.document);
    // A row was 44 pixels with a gap of 12; now it is 8, and the gap is of the tile's own.
    const was = before.boards[0].tiles.map(({ y, h }: { y: number; h: number }) => [y * 56, h * 56 - 12]);
    expect(boards[0].tiles.map(({ y, h }) => [y * 8, h * 8 - 12])).toEqual(was);
    expect(boards[0].tiles[0]).toMatchObject({ aside: true, as: "drawing", phone: null });
    expect(boards[0]).toMatchObject({ width: "fluid", look: { frame: "own" }, phoneOrder: [] });
    expect(boards[0].controls.at(-1)).toMatchObject({ as: "stretch", begins: { from: 10, to: null } });
  });

  it("of version 5 become row by row, and say so of each visual that this changes", () => {
    const migrated = migrateDocument(stored(5));
    if ("problem" in migrated) throw new Error(migrated.problem);
    const { visuals } = projectSchema.parse(migrated.document);
    const changed = visuals.filter((v) => v.changed.includes("own targets"));
    expect(changed.map((v) => v.id)).toEqual(["by-route-plan"]);
    expect(changed[0].target).toEqual({ measure: expect.any(String) });
  });

  it("of version 5 tell ratios without digits apart, and leave all other digits as they were", () => {
    const before = stored(5);
    const migrated = migrateDocument(before);
    if ("problem" in migrated) throw new Error(migrated.problem);
    const { measures, visuals } = projectSchema.parse(migrated.document);
    const changed = measures.filter((m, i) => m.format.decimals !== before.measures[i].format.decimals);
    expect(changed.map((m) => [m.name, m.format.decimals])).toEqual([["riders_a_seat", "automatic"]]);
    expect(visuals[0].dials).toMatchObject({ "figures.decimals": "automatic" });
    expect(Object.keys(visuals[0].dials)).not.toContain("labels.digits");
  });

  it("of version 2 keep what stems are measured from, and rings without names", () => {
    const visual = (kind: string, dials: object) => ({ id: kind.slice(0, 4), name: kind, kind, dials });
    const before = {
      ...emptyProject("p"),
      version: 2,
      visuals: [
        visual("lollipop", { "domain.baseline": 20, "head.diameter": 9 }),
        visual("progress ring", { "labels.names": false }),
      ],
    };
    const migrated = migrateDocument(before);
    if ("problem" in migrated) throw new Error(migrated.problem);
    const [stems, ring] = projectSchema.parse(migrated.document).visuals;
    expect(stems).toMatchObject({ baseline: { number: 20 }, dials: { "head.diameter": 9 } });
    expect(ring).toMatchObject({ baseline: null, dials: { "labels.place": "none" } });
  });

  it("that no version wrote, or a newer one, are refused with a sentence", () => {
    const problem = (value: unknown) => {
      const migrated = migrateDocument(value);
      return "problem" in migrated ? migrated.problem : null;
    };
    expect(problem({ ...emptyProject("p"), version: FORMAT_VERSION + 1 })).toContain(
      "newer version of Cavlo",
    );
    for (const version of [0, -1, 1.5, "1", null, undefined])
      expect(problem({ ...emptyProject("p"), version })).toContain("does not say");
    for (const value of [null, 7, "x", [], {}, { format: "other", version: 1 }])
      expect(problem(value)).toContain("not the document");
  });
});
