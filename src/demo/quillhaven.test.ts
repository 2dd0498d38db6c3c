import { createHash } from "node:crypto";
import { describe, expect, it } from "vitest";
import { ReadingGuess } from "@/core/data/reading-guess";
import { checkFormula } from "@/core/formula/check";
import { kindOf } from "@/core/kinds";
import { scopeOf } from "@/core/project/names";
import { sceneOf } from "@/core/view/picture";
import { trialsOf } from "@/core/view/trials";
import { sampleData } from "@/testing/craft/sample-data";
import { demoProject } from "./project";
import { QUILLHAVEN } from "./quillhaven";

const rowsOf = (name: string) => [...(QUILLHAVEN.find((t) => t.name === name)?.rows() ?? [])];
const hash = (rows: unknown) => createHash("sha256").update(JSON.stringify(rows)).digest("hex");

describe("the demo", () => {
  it("gives the same bytes at every run", () => {
    for (const table of QUILLHAVEN) expect(hash([...table.rows()])).toBe(hash([...table.rows()]));
    expect(hash(rowsOf("routes"))).toBe("08031f0445df89377c341fa7199b21c8640512add49d4244f0d1e4b1119c2b1b");
    expect(hash(rowsOf("fares"))).toBe("d5cfd84ecdff54d41dfb43082c7e85335cbd4e5be5a19427f0a348def9288934");
    expect(hash(rowsOf("sailings"))).toBe("38653f61b6a79098de0f6907bcea42cd40bf54a2da7bba1784354c69a727c92e");
  });

  it("has the hard cases: losses, a missing month, a target passed, a long name", () => {
    const sailings = rowsOf("sailings");
    expect(sailings.length).toBeGreaterThan(110_000);
    expect(sailings.length).toBeLessThan(122_000);
    const margin = new Map<string, number>();
    const runs = new Map<string, number>();
    for (const [, route, vessel, , , , , revenue, cost] of sailings as string[][]) {
      margin.set(route, (margin.get(route) ?? 0) + Number(revenue) - Number(cost));
      runs.set(vessel, (runs.get(vessel) ?? 0) + 1);
    }
    expect([...margin].filter(([, m]) => m < 0).map(([route]) => route)).toEqual(
      expect.arrayContaining(["Skerry Light", "Tamsin Reach"]),
    );
    expect(sailings.some(([date, route]) => route === "Old Pier" && String(date).startsWith("2025-11"))).toBe(
      false,
    );
    expect(
      rowsOf("vessels").filter((v) => (runs.get(String(v[0])) ?? 0) > Number(v[5])).length,
    ).toBeGreaterThanOrEqual(1);
    expect([...margin.keys()].some((name) => name.length > 20)).toBe(true);
  });

  it("is a sound project: ten measures or more, each without a problem", () => {
    const tables = QUILLHAVEN.map((t) => {
      const guesses = t.columns.map(() => new ReadingGuess());
      for (const row of t.rows()) for (const [i, cell] of row.entries()) guesses[i].add(cell);
      return {
        id: t.name,
        name: t.name,
        rows: 0,
        columns: t.columns.map((name, i) => ({ name, reading: guesses[i].settle().reading })),
        source: { file: "", separator: ",", encoding: "utf-8", header: true },
      };
    });
    const project = demoProject(tables);
    expect(project.measures.length).toBeGreaterThanOrEqual(10);
    expect(project.inputs.length).toBeGreaterThanOrEqual(2);
    expect(project.visuals.length).toBeGreaterThanOrEqual(4);
    for (const m of project.measures)
      expect(checkFormula(m.formula, scopeOf(project), m.table, "group", m.name).problems, m.name).toEqual(
        [],
      );
  });

  it("says of no goal that it is reached where half a percent is missing", () => {
    const { visuals, measures, inputs } = demoProject([]);
    const claims = visuals.flatMap((visual) => {
      const format = measures.find((m) => m.id === visual.value)?.format;
      const goal = inputs.find(
        (i) => visual.target && "input" in visual.target && i.id === visual.target.input,
      );
      const target = goal ? Number(goal.value) : null;
      const data = sampleData([target ?? 0.86], { format, target });
      const under = trialsOf(visual, data).find((t) => t.id === "under");
      if (!under || !kindOf(visual.kind).roles.includes("target")) return [];
      const readings = sceneOf(visual, under.data).marks.flatMap((m) =>
        m.type === "text" && m.part === "reading" ? [m.text] : [],
      );
      return [{ name: visual.name, claim: readings.find((t) => /^100\s?%/.test(t)) }];
    });
    expect(claims.map((c) => c.name)).toEqual(
      expect.arrayContaining(["Passengers against the target", "Season progress", "Electric sailings"]),
    );
    expect(claims.filter((c) => c.claim !== undefined)).toEqual([]);
  });
});
