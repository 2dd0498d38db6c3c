import { readFileSync } from "node:fs";
import { expect, it } from "vitest";

// @ts-expect-error: a script of the project, without types.
import { noticed } from "../../scripts/make-notices.mjs";

const notices = readFileSync("public/third-party-notices.txt", "utf8");
const named = new Set(notices.split("\n"));
const packages = noticed() as { name: string; version: string }[];

it("names every package that travels, in the version that is installed", () => {
  expect(packages.length).toBeGreaterThan(50);
  expect(packages.filter((p) => !named.has(`${p.name} ${p.version}`)).map((p) => p.name)).toEqual([]);
});

it("keeps the texts of the licences of fonts, icons and charts", () => {
  for (const text of ["SIL OPEN FONT LICENSE Version 1.1", "ISC License", "Apache License"])
    expect(notices).toContain(text);
});
