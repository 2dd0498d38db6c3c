import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { newMeasure, newVisual } from "../project/defaults";
import { type Edit, edited } from "../project/edits";
import { emptyProject, type Project } from "../project/schema";
import { breaks } from "./broken";
import { type History, stepBetween, stepped } from "./history";

const start: Project = {
  ...emptyProject("Season"),
  measures: [newMeasure({ id: "m", name: "two", label: "Two", table: null, formula: "1 + 1" })],
  visuals: ["a", "b", "c"].map((id) => newVisual({ id, name: id, kind: "number", value: "m" })),
};

/** A window that makes edits and takes them back, alone. */
function walked(edits: Edit[]): { documents: Project[]; history: History } {
  const documents = [start];
  const past = edits.map((edit) => {
    const before = documents[documents.length - 1];
    const next = edited(before, edit);
    documents.push(next);
    return stepBetween(before, next, edit.type);
  });
  return { documents, history: { past, future: [] } };
}

const visual = fc.constantFrom("a", "b", "c");
const edit: fc.Arbitrary<Edit> = fc.oneof(
  fc
    .tuple(visual, fc.string())
    .map(([id, title]): Edit => ({ type: "change visual", id, change: { title } })),
  fc
    .tuple(visual, fc.constantFrom("arc.hole", "__proto__", "constructor"), fc.option(fc.integer()))
    .map(([id, dial, value]): Edit => ({ type: "set dial", id, dial, value })),
  visual.map((id): Edit => ({ type: "remove visual", id })),
  fc.shuffledSubarray(["a", "b", "c"]).map((ids): Edit => ({ type: "order items", list: "visuals", ids })),
  fc
    .constantFrom("two", "three")
    .map((name): Edit => ({ type: "change measure", id: "m", change: { name } })),
);

describe("a history of edits", () => {
  it("leads back through every document and forth again", () => {
    fc.assert(
      fc.property(fc.array(edit, { maxLength: 8 }), (edits) => {
        const { documents, history } = walked(edits);
        let now: { document: Project } & History = { document: documents[documents.length - 1], ...history };
        for (const was of documents.slice(0, -1).reverse()) {
          const back = stepped(now.document, now, "back", null);
          expect(back).toMatchObject({ refused: null });
          if (back) now = back;
          expect(now.document).toEqual(was);
        }
        expect(stepped(now.document, now, "back", null)).toBeNull();
        for (const next of documents.slice(1)) {
          const forth = stepped(now.document, now, "forth", null);
          if (forth) now = forth;
          expect(now.document).toEqual(next);
        }
        expect(now.past).toEqual(history.past);
      }),
      { numRuns: 100 },
    );
  });

  it("refuses what others lean on since, in its words, and goes on", () => {
    const { documents, history } = walked([
      { type: "rename project", name: "Year" },
      {
        type: "add measure",
        measure: newMeasure({ id: "n", name: "four", label: "Four", table: null, formula: "two * 2" }),
      },
    ]);
    const others = edited(documents[2], {
      type: "add visual",
      visual: newVisual({ id: "d", name: "d", kind: "number", value: "n" }),
    });
    const first = stepped(others, history, "back", breaks);
    expect(first).toMatchObject({ document: others, refused: "add measure", future: [] });
    const second = first && stepped(first.document, first, "back", breaks);
    expect(second).toMatchObject({ document: { name: "Season" }, refused: null, past: [] });
    expect(second?.document.visuals).toHaveLength(4);
  });

  it("takes back what another window did not touch, whatever names of the sentence it writes", () => {
    const { documents, history } = walked([{ type: "change visual", id: "a", change: { title: "Typed" } }]);
    const before = edited(start, {
      type: "change visual",
      id: "a",
      change: { title: "{measure} by {split}" },
    });
    const past = [stepBetween(before, documents[1], "Title")];
    const others = edited(documents[1], { type: "change visual", id: "a", change: { subtitle: "Theirs" } });
    expect(stepped(others, { ...history, past }, "back", breaks)).toMatchObject({
      refused: null,
      document: { visuals: [{ title: "{measure} by {split}", subtitle: "Theirs" }, {}, {}] },
    });
  });
});
