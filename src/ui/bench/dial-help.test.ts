import { describe, expect, it } from "vitest";
import { KINDS } from "@/core/kinds";
import { DIAL_HELP } from "./dial-help";

const dials = KINDS.flatMap((kind) =>
  kind.parts.flatMap((part) =>
    part.dials.map((dial) => ({ key: `${part.id}.${dial.id}`, label: dial.label })),
  ),
);
const words = (text: string) => new Set(text.toLowerCase().match(/[a-z]+/g));

describe("the help of dials", () => {
  it("has a line for every dial of every kind, and none for what is no dial", () => {
    const keys = new Set(dials.map((d) => d.key));
    expect([...keys].filter((key) => !Object.hasOwn(DIAL_HELP, key))).toEqual([]);
    expect(Object.keys(DIAL_HELP).filter((key) => !keys.has(key))).toEqual([]);
  });
  it("says more than the label: at least three words that do not stand in it, in one line", () => {
    for (const { key, label } of dials) {
      const more = [...words(DIAL_HELP[key])].filter((word) => !words(label).has(word));
      expect(more.length, key).toBeGreaterThanOrEqual(3);
      expect(DIAL_HELP[key].length, key).toBeLessThanOrEqual(90);
      expect(DIAL_HELP[key], key).toMatch(/\.$/);
    }
  });
});
