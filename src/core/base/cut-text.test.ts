import * as fc from "fast-check";
import { expect, it } from "vitest";
import { cutText } from "./cut-text";

it("a text is cut between its characters", () => {
  expect(cutText("abc", 2)).toBe("ab");
  expect(cutText("a😀b", 2)).toBe("a");
  expect(cutText("a😀b", 3)).toBe("a😀");
  // What was no character before stays as it is.
  expect(cutText("a\ud83d", 2)).toBe("a\ud83d");
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), fc.nat(12), (text, most) => {
      const cut = cutText(text, most);
      expect(cut.length).toBeLessThanOrEqual(most);
      expect(text.startsWith(cut)).toBe(true);
      expect(cut.isWellFormed()).toBe(true);
      if (text.length <= most) expect(cut).toBe(text);
      else expect(cut.length).toBeGreaterThanOrEqual(most - 1);
    }),
  );
});
