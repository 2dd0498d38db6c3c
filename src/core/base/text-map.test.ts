import fc from "fast-check";
import { expect, it } from "vitest";
import { seeded } from "../../demo/random";
import { TextMap } from "./text-map";

/** Texts at both sides of the length from which they are long, many of one length and with one beginning. */
const text = fc
  .tuple(fc.constantFrom(0, 3, 16_382, 16_383, 16_384, 40_000), fc.nat(30))
  .map(([length, end]) => `${"x".repeat(length)}${end}`);
const odd = fc.constantFrom("", "constructor", "__proto__", "\ud83d", "\ude00", `${"\ud83d".repeat(20_000)}`);

it("a map from texts gives what a plain one gives, however long they are", () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.oneof(text, odd), fc.nat()), { maxLength: 60 }), (entries) => {
      const [map, plain] = [new TextMap<number>(), new Map<string, number>()];
      for (const [key, value] of entries) {
        expect(map.get(key)).toBe(plain.get(key));
        map.set(key, value);
        plain.set(key, value);
        expect(map.size).toBe(plain.size);
      }
      for (const [key, value] of plain) expect(map.get(key)).toBe(value);
      expect([...map.keys()].sort()).toEqual([...plain.keys()].sort());
    }),
  );
});

it("texts of one hash are told apart", () => {
  // Found by trying: two ends of a long text that FNV-1a leaves with the same number.
  const before = "a".repeat(20_000);
  const byHash = new Map<number, string>();
  let pair: [string, string] | null = null;
  const seed = [...before].reduce((h, c) => Math.imul(h ^ c.charCodeAt(0), 0x01000193), 0x811c9dc5);
  const random = seeded(7);
  for (let i = 0; i < 400_000 && !pair; i++) {
    const end = String.fromCharCode(...[1, 2, 3, 4].map(() => 0x20 + Math.floor(random() * 0xd000)));
    const hash = [...end].reduce((h, c) => Math.imul(h ^ c.charCodeAt(0), 0x01000193), seed);
    const other = byHash.get(hash);
    if (other !== undefined && other !== end) pair = [before + other, before + end];
    byHash.set(hash, end);
  }
  expect(pair).not.toBeNull();
  const [one, other] = pair as [string, string];
  const map = new TextMap<number>();
  map.set(one, 1);
  expect(map.get(other)).toBeUndefined();
  map.set(other, 2);
  expect([map.get(one), map.get(other), map.size]).toEqual([1, 2, 2]);
});
