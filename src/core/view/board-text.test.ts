import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { PERCENT_FORMAT, PLAIN_FORMAT } from "../base/number-format";
import { type Block, filledIn, plainText, readText } from "./board-text";

const names = {
  riders: { value: 5299291, format: PLAIN_FORMAT },
  goal_rate: { value: 0.92, format: PERCENT_FORMAT },
  evil: "**bold** <script>alert(1)</script> [x](javascript:alert(1)) {riders}",
  today: { from: "2026-11-27", to: "2026-11-27", text: "2026-11-27" },
};
const said = (text: string) => plainText(filledIn(readText(text), names));

describe("a text of a board", () => {
  it("has headings, paragraphs, lists, quotes and rules", () => {
    expect(
      readText("# One\n\nTwo **three** *four* `five`\n\n- a\n- b\n\n> q\n\n---").map((b) => b.type),
    ).toEqual(["heading", "paragraph", "list", "quote", "rule"]);
    expect(readText("3. a\n4. b")[0]).toMatchObject({ type: "list", start: 3 });
    expect(readText("- a\n- b")[0]).toMatchObject({ type: "list", start: null });
    expect(readText("#### deep")[0]).toMatchObject({ type: "heading", level: 3 });
  });

  it("writes what names stand for, with their formats, wherever they stand", () => {
    expect(said("## {today:dd MMM yyyy}\n**{riders}** of {goal_rate:percent.1}")).toBe(
      "27 Nov 2026 5 299 291 of 92.0 %",
    );
    // Signs of a name are none of the marks.
    const odd = { _x_: "A", "a*b*": "B" };
    expect(filledIn(readText("{_x_} *and* {a*b*}"), odd)[0]).toMatchObject({
      runs: [{ text: "A" }, { text: " " }, { type: "slanted" }, { text: " " }, { text: "B" }],
    });
    expect(said("_{goal_rate}_ and {goal_rate}")).toBe("92 % and 92 %");
    expect(said("{nothing here}")).toBe("—");
    expect(filledIn(readText("of {goal_rate}, `{goal_rate}`"), names)[0]).toMatchObject({
      runs: [
        { type: "words", text: "of " },
        { type: "value", text: "92\u2009%" },
        { type: "words", text: ", " },
        { type: "code", text: "92\u2009%" },
      ],
    });
  });

  it("never reads marks or names in what comes from data", () => {
    const [block] = filledIn(readText("{evil}"), names);
    expect(block).toEqual({ type: "paragraph", runs: [{ type: "value", text: names.evil }] });
  });

  it("links to pages and mailboxes alone; all else stands as it was written", () => {
    expect(readText("[a](https://x.test/)")[0]).toMatchObject({
      runs: [{ type: "link", to: "https://x.test/" }],
    });
    for (const to of [
      "javascript:alert(1)",
      "JaVaScRiPt:alert(1)",
      "data:text/html,x",
      "/api/projects",
      "vbscript:x",
    ])
      expect(JSON.stringify(readText(`[a](${to})`))).not.toContain('"link"');
    expect(said("<b>no</b> <img src=x onerror=alert(1)>")).toBe("<b>no</b> <img src=x onerror=alert(1)>");
    expect(said("![x](https://x.test/a.png)")).toBe("![x](https://x.test/a.png)");
  });

  it("reads any text, and loses no letter of a plain one", () => {
    const types = new Set(["heading", "paragraph", "list", "quote", "rule"]);
    const look = (blocks: Block[]): void => {
      for (const b of blocks) {
        expect(types.has(b.type)).toBe(true);
        if (b.type === "quote") look(b.blocks);
        if (b.type === "list") b.items.forEach(look);
      }
    };
    fc.assert(
      fc.property(fc.oneof(fc.string({ unit: "binary" }), fc.string()), (text) => look(readText(text))),
      { numRuns: 500, seed: 2 },
    );
    fc.assert(
      fc.property(fc.stringMatching(/^[a-zäöüß0-9 ,;é中]{1,60}$/), (text) => {
        expect(said(text)).toBe(text.replace(/\s+/g, " ").trim());
      }),
    );
  });
});
