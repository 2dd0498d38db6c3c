import { expect, it } from "vitest";
import { readTyped } from "./typed-number";

it("takes 92 and 92 % as the same share where a percent is meant", () => {
  expect(readTyped("92", true)).toBe(0.92);
  expect(readTyped("92 %", true)).toBe(0.92);
  expect(readTyped("86,4%", true)).toBe(0.864);
  expect(readTyped("92", false)).toBe(92);
  expect(readTyped("1 200", false)).toBe(1200);
  expect(readTyped("lots", true)).toBeNull();
  expect(readTyped("", false)).toBeNull();
});
