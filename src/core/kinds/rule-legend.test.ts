import { describe, expect, it } from "vitest";
import { casesOf, visualOf } from "@/testing/craft/cases";
import { sceneOf } from "../view/picture";
import { KINDS } from ".";

/** The kinds whose marks can be coloured by rules. */
const RULED = KINDS.filter(({ parts }) =>
  parts.some(({ id, dials }) =>
    dials.some(
      (d) =>
        `${id}.${d.id}` === "colours.by" && d.type === "choice" && d.options.some((o) => o.value === "rule"),
    ),
  ),
);

describe("rules that colour marks", () => {
  it.each(RULED.map(({ id }) => id))(
    "stand in the legend of %s from the start, each with its symbol",
    (id) => {
      const ruled = casesOf(id).find((c) => c.name === "colours by rule");
      // One value says its rule in words of its own.
      if (!ruled || id === "number") return;
      const textsAt = (dials: object) =>
        sceneOf(visualOf(id, { ...ruled.dials, ...dials }), ruled.data).marks.flatMap((m) =>
          m.part === "legend" ? [m.type === "text" ? m.text : m.type] : [],
        );
      const said = textsAt({});
      expect(said).toContain("weak");
      expect(said).toContain("strong");
      expect(said.filter((s) => s === "polygon").length, "symbols").toBeGreaterThanOrEqual(2);
      expect(textsAt({ "legend.place": "none" })).toEqual([]);
      for (const place of ["start", "track", "outside", "inside", "none"])
        expect(textsAt({ "labels.place": place, "labels.content": "category share" }), place).toContain(
          "weak",
        );
    },
  );
});
