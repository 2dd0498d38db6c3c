import { expect, test } from "vitest";
import { newInput, newMeasure, newVisual } from "./defaults";
import { inputSchema, measureSchema, visualSchema } from "./schema";

test("what is new has the defaults that the schema gives", () => {
  const visual = { id: "v", name: "V", kind: "donut" };
  expect(newVisual(visual)).toEqual(visualSchema.parse(visual));
  const measure = { id: "m", name: "m", label: "M", table: null, formula: "1" };
  expect(newMeasure(measure)).toEqual(measureSchema.parse({ ...measure, format: {} }));
  const input = { id: "i", name: "i", label: "I", type: "number", value: 1 } as const;
  expect(newInput(input)).toEqual(inputSchema.parse({ ...input, format: {} }));
});

test("what is given stands before the defaults", () => {
  const keep = { first: 3, others: false };
  expect(newVisual({ id: "v", name: "V", kind: "donut", keep }).keep).toEqual(keep);
  const measure = newMeasure({ id: "m", name: "m", label: "M", table: null, formula: "1", note: "n" });
  expect(measure.note).toBe("n");
});
