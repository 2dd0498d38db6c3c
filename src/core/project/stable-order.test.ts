import fc from "fast-check";
import { expect, it } from "vitest";
import { newVisual } from "./defaults";
import { emptyProject, type Project, projectSchema } from "./schema";
import { inStableOrder } from "./stable-order";

const withDials = (entries: [string, number][]): Project => ({
  ...emptyProject("P"),
  visuals: [newVisual({ id: "v", name: "V", kind: "donut", dials: Object.fromEntries(entries) })],
});

it("writes the same document in the same way, in whatever order it was made, and loses nothing", () => {
  const names = fc.uniqueArray(
    fc.oneof(fc.string(), fc.constantFrom("__proto__", "constructor", "b.2", "10")),
    {
      minLength: 2,
      maxLength: 8,
    },
  );
  fc.assert(
    fc.property(names, fc.infiniteStream(fc.double()), (all, order) => {
      const entries = all.map((name, i): [string, number] => [name, i]);
      const shuffled = entries
        .map((e) => ({ e, at: order.next().value as number }))
        .toSorted((a, b) => a.at - b.at)
        .map(({ e }) => e);
      const [one, other] = [inStableOrder(withDials(entries)), inStableOrder(withDials(shuffled))];
      expect(JSON.stringify(one)).toBe(JSON.stringify(other));
      expect(Object.entries(one.visuals[0].dials).length).toBe(all.length);
    }),
  );
  const project = withDials([["arc.hole", 40]]);
  expect(inStableOrder(project)).toEqual(project);
  expect(projectSchema.parse(inStableOrder(project))).toEqual(project);
});
