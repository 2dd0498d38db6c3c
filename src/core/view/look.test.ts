import { describe, expect, it } from "vitest";
import { edited } from "../project/edits";
import { emptyProject, type Project, visualSchema } from "../project/schema";
import { changesKind, lookOf } from "./look";
import { styleOf } from "./picture";

const visual = (id: string, more: object = {}) =>
  visualSchema.parse({ id, name: id, kind: "donut", ...more });
const project = (...visuals: ReturnType<typeof visual>[]): Project => ({ ...emptyProject("P"), visuals });

describe("finishes", () => {
  it("a visual's look becomes a finish, its texts stay with it", () => {
    const before = project(
      visual("a", { finish: "soft", dials: { "arc.hole": 40, "reading.text": "{total} in all" } }),
      visual("b"),
    );
    const after = edited(before, {
      type: "save finish",
      visual: "a",
      finish: { id: "mine", name: "Mine" },
      look: lookOf(before.visuals[0]),
    });
    expect(after.finishes).toEqual([{ id: "mine", name: "Mine", base: "soft", dials: { "arc.hole": 40 } }]);
    expect(after.visuals[0]).toMatchObject({ finish: "mine", dials: { "reading.text": "{total} in all" } });
    // It looks as before, and the shipped finish it was made from still shows through.
    expect(styleOf(after.visuals[0], after).number("arc.hole")).toBe(40);
    expect(styleOf(after.visuals[0], after).choice("surface.shade")).toBe("soft");
    expect(before.visuals[0].finish).toBe("soft");
  });

  it("of a kind that has none of its dials it says so", () => {
    const mine = { dials: { "arc.hole": 40, "needle.hub": 3 } };
    expect(["donut", "gauge", "waffle"].map((kind) => changesKind(mine, kind))).toEqual([true, true, false]);
    expect(changesKind({ dials: {} }, "donut")).toBe(false);
  });

  it("changing a finish changes all that use it, except dials set by hand", () => {
    const base = {
      ...project(
        visual("a", { finish: "mine", dials: { "arc.gap": 9 } }),
        visual("b", { finish: "mine", dials: { "arc.hole": 20 } }),
      ),
    };
    const start: Project = {
      ...base,
      finishes: [{ id: "mine", name: "Mine", base: "plain", dials: { "arc.hole": 50 } }],
    };
    const after = edited(start, { type: "update finish", visual: "a", look: lookOf(start.visuals[0]) });
    const [a, b] = after.visuals.map((v) => styleOf(v, after));
    expect([a.number("arc.gap"), b.number("arc.gap")]).toEqual([9, 9]);
    expect([a.number("arc.hole"), b.number("arc.hole")]).toEqual([50, 20]);
    expect(after.visuals[0].dials).toEqual({});
  });

  it("a finish that is taken away leaves what it was made from", () => {
    const start: Project = {
      ...project(visual("a", { finish: "mine" })),
      finishes: [{ id: "mine", name: "Mine", base: "night", dials: {} }],
    };
    expect(edited(start, { type: "remove finish", id: "mine" }).visuals[0].finish).toBe("night");
  });

  it("the scale's start is not a matter of look", () => {
    expect(
      lookOf({
        kind: "lollipop",
        dials: { "domain.baseline": 5, "stem.width": 2, "labels.text": "{value}" },
      }),
    ).toEqual({ "stem.width": 2 });
  });
});

it("a palette that is taken away leaves no dial that names it", () => {
  const palette = {
    id: "p1",
    name: "Own",
    type: "categorical" as const,
    light: ["#112233", "#445566"],
    night: ["#ddeeff", "#ccbbaa"],
  };
  const start = edited(project(visual("a", { dials: { "colours.palette": "p1" } })), {
    type: "put palettes",
    palettes: [palette],
  });
  expect(start.palettes).toHaveLength(1);
  expect(
    edited(start, { type: "put palettes", palettes: [{ ...palette, name: "New" }] }).palettes,
  ).toMatchObject([{ name: "New" }]);
  expect(edited(start, { type: "remove palette", id: "p1" })).toMatchObject({
    palettes: [],
    visuals: [{ dials: {} }],
  });
});
