import { execFileSync } from "node:child_process";
import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { dirname, join } from "node:path";
import { afterEach, describe, expect, test } from "vitest";

const folders: string[] = [];
afterEach(() => {
  for (const folder of folders.splice(0)) rmSync(folder, { recursive: true });
});

/** What the check says of a source folder with these files; empty where all is well. */
function said(files: Record<string, string>): string {
  const folder = mkdtempSync(join(tmpdir(), "cavlo-imports-"));
  folders.push(folder);
  for (const [file, text] of Object.entries(files)) {
    mkdirSync(dirname(join(folder, file)), { recursive: true });
    writeFileSync(join(folder, file), text);
  }
  try {
    execFileSync("node", ["scripts/check-imports.mjs", folder], { stdio: "pipe" });
    return "";
  } catch (error) {
    return String((error as { stderr: Buffer }).stderr);
  }
}

describe("the check of imports", () => {
  const sound = {
    "core/base/names.ts": "export const a = 1;",
    "core/engine/run.ts": 'import { a } from "../base/names";\nexport const b = a;',
    "ui/screen.tsx":
      'import type { T } from "@/server/tables";\nimport { b } from "@/core/engine/run";\nexport const c: T = b;',
    "server/tables.ts": 'import { join } from "node:path";\nexport type T = number;\nexport const d = join;',
  };

  test("is content with sound files", () => expect(said(sound)).toBe(""));

  test("reports an import from a higher layer of the core, types included", () => {
    expect(
      said({
        ...sound,
        "core/base/names.ts": 'import type { b } from "../engine/run";\nexport const a: typeof b = 1;',
      }),
    ).toContain("core/base must not import core/engine/run.ts");
  });

  test("reports an import over several lines", () => {
    expect(
      said({
        ...sound,
        "core/base/other.ts": 'import {\n  b,\n} from "../engine/run";\nexport const x = b;',
      }),
    ).toContain("core/base must not import");
  });

  test("reports a package that a layer has not", () => {
    expect(
      said({
        ...sound,
        "core/base/names.ts": 'import { readFileSync } from "node:fs";\nexport const a = readFileSync;',
      }),
    ).toContain("core/base has no package node:fs");
  });

  test("reports a value that the interface takes from the server, where it may take types", () => {
    expect(
      said({ ...sound, "ui/screen.tsx": 'import { d } from "@/server/tables";\nexport const c = d;' }),
    ).toContain("ui must not import server/tables.ts");
  });

  test("reports two files of one layer that import each other", () => {
    const circle = {
      "core/base/x.ts": 'import type { Y } from "./y";\nexport type X = Y;',
      "core/base/y.ts": 'import type { X } from "./x";\nexport type Y = X | 1;',
    };
    expect(said({ ...sound, ...circle })).toContain("circle of imports");
  });

  test("reports a file that stands in no layer, and a folder without files", () => {
    expect(said({ ...sound, "core/odd/x.ts": "export {};" })).toContain("stands in no layer");
    expect(said({})).toContain("nothing to look at");
  });

  test("reports a way from a page to what pages must not carry, and minds no types", () => {
    const deep = {
      ...sound,
      "core/plan/query.ts": 'import { z } from "zod";\nexport const q = z;',
      "core/view/ask.ts": 'import { q } from "../plan/query";\nexport const asked = q;',
    };
    const page = (line: string) => said({ ...deep, "ui/screen.tsx": `${line}\nexport const c = 1;` });
    expect(page('import { asked } from "@/core/view/ask";')).toContain(
      "pages would carry zod, by ui/screen.tsx -> core/view/ask.ts -> core/plan/query.ts",
    );
    expect(page('import { type asked, type other } from "@/core/view/ask";')).toBe("");
    expect(page('import type { asked } from "@/core/view/ask";')).toBe("");
  });

  test("lets a page fetch later what it must not carry from the start, and nothing of what it never may", () => {
    const deep = (library: string) => ({
      ...sound,
      "core/formula/match.ts": `import { x } from "${library}";\nexport const m = x;`,
      "core/plan/far.ts": 'import { m } from "../formula/match";\nexport const f = m;',
    });
    const now = 'import { f } from "@/core/plan/far";\nexport const c = f;';
    const later = 'export const c = () => import("@/core/plan/far");';
    expect(said({ ...deep("re2js"), "ui/screen.tsx": now })).toContain("pages would carry re2js");
    expect(said({ ...deep("re2js"), "ui/screen.tsx": later })).toBe("");
    expect(said({ ...deep("zod"), "ui/screen.tsx": later })).toContain("pages would carry zod");
  });

  test("reports what only tests may use", () => {
    expect(
      said({
        ...sound,
        "testing/made.ts": "export const m = 1;",
        "server/use.ts": 'import { m } from "@/testing/made";\nexport const n = m;',
      }),
    ).toContain("server must not import testing/made.ts");
  });
});
