import { expect, it } from "vitest";
import { listed } from "./listed";

it("names are said in a row, and of many the first and how many more", () => {
  expect(listed([])).toBe("");
  expect(listed(["a"])).toBe("a");
  expect(listed(["a", "b"], 4, "or")).toBe("a or b");
  expect(listed(["a", "b", "c"])).toBe("a, b and c");
  expect(listed(["a", "b", "c", "d"])).toBe("a, b, c and d");
  expect(listed(["a", "b", "c", "d", "e", "f"])).toBe("a, b, c, d and 2 more");
  expect(listed(["a", "b", "c"], 2)).toBe("a, b and 1 more");
});
