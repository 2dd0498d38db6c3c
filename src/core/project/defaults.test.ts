import { expect, test } from "vitest";
import {
  newBoard,
  newFilter,
  newInput,
  newInputControl,
  newMeasure,
  newVisual,
  visualTile,
} from "./defaults";
import { boardSchema, inputSchema, measureSchema, visualSchema } from "./schema";

test("what is new has the defaults that the schema gives", () => {
  const visual = { id: "v", name: "V", kind: "donut" };
  expect(newVisual(visual)).toEqual(visualSchema.parse(visual));
  const measure = { id: "m", name: "m", label: "M", table: null, formula: "1" };
  expect(newMeasure(measure)).toEqual(measureSchema.parse({ ...measure, format: {} }));
  const input = { id: "i", name: "i", label: "I", type: "number", value: 1 } as const;
  expect(newInput(input)).toEqual(inputSchema.parse({ ...input, format: {} }));
  const board = { id: "b", name: "B" };
  expect(newBoard(board)).toEqual(boardSchema.parse(board));
  const place = { x: 0, y: 0, w: 4, h: 21 };
  const tiles = [{ id: "t", type: "visual", visual: "v", ...place }];
  const filter = { id: "c", label: "C", table: "t", column: "c" };
  const controls = [
    { type: "filter", ...filter },
    { type: "input", id: "d", input: "i" },
  ];
  expect(
    newBoard({
      ...board,
      tiles: [{ ...visualTile("t", "v"), ...place, phone: null } as never],
      controls: [newFilter(filter), newInputControl({ id: "d", input: "i" })],
    }),
  ).toEqual(boardSchema.parse({ ...board, tiles, controls }));
});

test("what is given stands before the defaults", () => {
  const keep = { first: 3, others: false };
  expect(newVisual({ id: "v", name: "V", kind: "donut", keep }).keep).toEqual(keep);
  const measure = newMeasure({ id: "m", name: "m", label: "M", table: null, formula: "1", note: "n" });
  expect(measure.note).toBe("n");
});
