import { readFileSync } from "node:fs";
import { expect, it } from "vitest";
import { SHORTCUTS } from "./shortcuts";

it("stand in the guide as they stand in the application", () => {
  const guide = readFileSync("docs/guide/first-hour.md", "utf8");
  const rows = [...guide.matchAll(/^\| (.+) \| (.+) \|$/gm)].map(([, keys, what]) => ({ keys, what }));
  expect(rows.slice(1)).toEqual(SHORTCUTS);
});
