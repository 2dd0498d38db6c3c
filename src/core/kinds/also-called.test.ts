import { expect, it } from "vitest";
import { ALSO_CALLED, kindsCalled } from "./also-called";
import { KINDS } from "./index";

const all = KINDS.flatMap((kind) => ALSO_CALLED[kind.id].map((called) => ({ kind, ...called })));

it("each name leads to one kind, and is no kind's own", () => {
  const names = [...all.map((c) => c.name), ...KINDS.map((k) => k.label)].map((n) => n.toLowerCase());
  expect(names.filter((n, i) => names.indexOf(n) !== i)).toEqual([]);
});

it.each(all.map((c) => [c.name, c] as const))(
  "%s has dials that its kind has, at values that they take",
  (_, { kind, dials = {} }) => {
    for (const [id, value] of Object.entries(dials)) {
      const [partId, dialId] = id.split(".");
      const dial = kind.parts.find((p) => p.id === partId)?.dials.find((d) => d.id === dialId);
      expect(dial, `${kind.id} has ${id}`).toBeDefined();
      if (dial?.type === "number") expect(value).toSatisfy((v: number) => v >= dial.min && v <= dial.max);
      else if (dial?.type === "choice") expect(dial.options.map((o) => o.value)).toContain(value);
      else expect(typeof value).toBe(dial?.type === "toggle" ? "boolean" : "string");
    }
  },
);

it("a search finds a kind by what people call it, and a form with its dials", () => {
  const found = (text: string) => kindsCalled(text, KINDS).map((f) => `${f.kind}: ${f.name}`);
  expect(found("pie")).toEqual(["donut: Pie", "waffle: Waffle"]);
  expect(found("Speedo")).toEqual(["gauge: Speedometer"]);
  expect(kindsCalled("speedo", KINDS)[0].dials).toHaveProperty(["scale.ticks"], 10);
  expect(found("thermometer")).toEqual(["progress bar: Thermometer"]);
  expect(found("bullet")).toEqual(["progress bar: Progress bar"]);
  expect(found("progress circle")).toEqual(["progress ring: Progress ring"]);
  expect(found("number card")).toEqual(["number: Number"]);
  expect(found("no such thing")).toEqual([]);
  expect(found("")).toEqual(KINDS.map((k) => `${k.id}: ${k.label}`));
});
