import { expect, test } from "@playwright/test";
import { build } from "esbuild";

/** Trees as the painter makes them are drawn, changed to others in place, and held to those drawn anew. */
const PROPERTY = `
  import fc from "fast-check";
  import { made, patch } from "@/render/painter/patch";

  const attributes = fc.dictionary(fc.constantFrom("x", "d", "fill", "font-size"), fc.oneof(fc.integer(), fc.string()));
  const text = fc.oneof(fc.constantFrom("", "<b>", "12 %"), fc.string());
  const { tree } = fc.letrec((tie) => ({
    leaf: fc.record({ tag: fc.constantFrom("text", "title"), attributes, text, children: fc.constant([]) }),
    branch: fc.record({
      tag: fc.constantFrom("g", "path", "clipPath"),
      attributes,
      children: fc.array(tie("tree"), { maxLength: 4 }),
    }),
    tree: fc.oneof({ maxDepth: 3 }, tie("leaf"), tie("branch")),
  }));
  const svg = fc.record({ tag: fc.constant("svg"), attributes, children: fc.array(tree, { maxLength: 6 }) });
  const result = fc.check(
    fc.property(fc.array(svg, { minLength: 2, maxLength: 4 }), (states) => {
      const element = made(states[0]);
      for (let i = 1; i < states.length; i++) {
        patch(element, states[i - 1], states[i]);
        element.normalize();
        if (!element.isEqualNode(made(states[i]))) return false;
      }
      return true;
    }),
    { numRuns: 2000 },
  );
  window.failed = result.failed && JSON.stringify(result.counterexample);
  const words = { tag: "text", attributes: {}, text: "1", children: [] };
  const one = made(words);
  const letters = one.firstChild;
  patch(one, words, { ...words, text: "2" });
  window.keepsItsText = one.firstChild === letters && one.textContent === "2";
`;

test("a picture that is changed in place is the one that would be drawn anew", async ({ page }) => {
  const { outputFiles } = await build({
    stdin: { contents: PROPERTY, resolveDir: process.cwd(), loader: "ts" },
    bundle: true,
    write: false,
    format: "iife",
    alias: { "@": `${process.cwd()}/src` },
  });
  await page.addScriptTag({ content: outputFiles[0].text });
  const { failed, keepsItsText } = await page.evaluate(() => {
    const found = window as unknown as { failed: string | false; keepsItsText: boolean };
    return { failed: found.failed, keepsItsText: found.keepsItsText };
  });
  expect(failed).toBe(false);
  expect(keepsItsText).toBe(true);
});
