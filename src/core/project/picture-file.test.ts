import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { cleanSvg, isCleanPicture, PICTURE_BYTES, pictureFrom } from "./picture-file";

const bytes = (text: string) => new TextEncoder().encode(text);

describe("uploaded pictures", () => {
  it("keeps what draws and leaves out what runs, loads or leads outside", () => {
    const clean = cleanSvg(
      `<?xml version="1.0"?><svg viewBox="0 0 10 10" onload="alert(1)"><script>alert(2)</script><style>@import url(http://a.example/x)</style>` +
        `<foreignObject><body/></foreignObject><image href="http://a.example/x.png"/><a href="javascript:alert(3)"><path d="M0 0L5 5"/></a>` +
        `<path d="M1 1L9 9" fill="url(#g)" onclick="alert(4)"/><circle cx="5" cy="5" r="2" fill="url(http://a.example)"/><use xlink:href="file:///etc/passwd"/></svg>`,
    );
    expect(clean).toBe(
      '<svg viewBox="0 0 10 10" xmlns="http://www.w3.org/2000/svg"><path d="M1 1L9 9" fill="url(#g)"/><circle cx="5" cy="5" r="2"/><use/></svg>',
    );
  });

  it("lets no markup and no address be smuggled through CDATA, entities or escapes", () => {
    const within = (inner: string) => cleanSvg(`<svg>${inner}</svg>`);
    expect(within("<text><![CDATA[</text><script>alert(1)</script>]]></text>")).toBe(
      '<svg xmlns="http://www.w3.org/2000/svg"><text>&lt;/text&gt;&lt;script&gt;alert(1)&lt;/script&gt;</text></svg>',
    );
    expect(within("<text>&lt;script&gt;&#x3c;/script&#62;</text>")).not.toContain("<script");
    expect(within('<path fill="url&#40;http://a.example/&#41;"/>')).toBe(
      '<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>',
    );
    expect(within('<path fill="u\\72 l(http://a.example)"/>')).toBe(
      '<svg xmlns="http://www.w3.org/2000/svg"><path/></svg>',
    );
    expect(
      within(
        '<path fill="image-set(&quot;http://a.example&quot; 1x)" transform="scale(2) rotate(1,2 3)" stroke="rgb(1, 2, 3)"/>',
      ),
    ).toBe(
      '<svg xmlns="http://www.w3.org/2000/svg"><path transform="scale(2) rotate(1,2 3)" stroke="rgb(1, 2, 3)"/></svg>',
    );
    expect(within('<use href="&#x68;ttp://a.example/x.svg#a"/>')).not.toContain("href");
    expect(cleanSvg('<!DOCTYPE svg [<!ENTITY a "<script/>">]><svg><text>&a;</text></svg>')).toBeNull();
    expect(within('<path d="M0 0" id="a&quot; onload=&quot;x"/>')).toBe(
      '<svg xmlns="http://www.w3.org/2000/svg"><path d="M0 0" id="a&quot; onload=&quot;x"/></svg>',
    );
    expect(within('<x:script xmlns:x="http://www.w3.org/2000/svg">1</x:script>')).not.toContain("script");
  });

  it("lets nothing draw itself again and again", () => {
    const doubled = Array.from(
      { length: 30 },
      (_, i) => `<g id="g${i + 1}"><use href="#g${i}"/><use href="#g${i}"/></g>`,
    ).join("");
    expect(cleanSvg(`<svg><g id="g0"><path d="M0 0"/></g>${doubled}</svg>`)).toBeNull();
    expect(cleanSvg('<svg><g id="a"><use href="#a"/></g></svg>')).toBeNull();
    expect(
      cleanSvg(
        '<svg><mask id="a"><path mask="url(#b)"/></mask><mask id="b"><path mask="url(#a)"/></mask></svg>',
      ),
    ).toBeNull();
    expect(
      cleanSvg('<svg><g id="a"><path d="M0 0"/></g><use href="#a"/><use href="#a" x="4"/></svg>'),
    ).toContain('<use href="#a" x="4"/>');
    expect(cleanSvg(`<svg>${"<g>".repeat(60)}${"</g>".repeat(60)}</svg>`)).toBeNull();
  });

  it("comes out the same when it is cleaned again, whatever was in it", () => {
    const piece = fc.oneof(
      fc.constantFrom(
        "<g>",
        "</g>",
        "<path d='M0 0'/>",
        "<![CDATA[",
        "]]>",
        "<!--",
        "-->",
        "&lt;",
        "&#60;",
        "<script>",
        "</script>",
        "<text>",
        "</text>",
        "&amp;",
        "url(#a)",
        "\\",
      ),
      fc.string({ unit: "binary", maxLength: 6 }),
    );
    fc.assert(
      fc.property(
        fc.array(piece, { maxLength: 12 }),
        fc.string({ unit: "binary", maxLength: 8 }),
        (inner, value) => {
          const clean = cleanSvg(`<svg id="${value.replace(/["<&]/g, "")}">${inner.join("")}</svg>`);
          if (clean === null) return;
          expect(cleanSvg(clean)).toBe(clean);
          expect(clean).not.toMatch(/<script|<!|on\w+=|https?:(?!\/\/www\.w3\.org)/);
        },
      ),
      { numRuns: 2000 },
    );
  });

  it("cleaning what is clean changes nothing, so that a document can be checked by it", () => {
    const made = pictureFrom(
      bytes(
        '<svg viewBox="0 0 4 4"><g transform="scale(2)"><rect width="2" height="2" fill="#1f7a6d"/></g></svg>',
      ),
      "a.svg",
    );
    if (!("href" in made)) throw new Error(made.problem);
    expect(isCleanPicture(made.href)).toBe(true);
    expect(isCleanPicture(`data:image/svg+xml;base64,${btoa("<svg><script>1</script></svg>")}`)).toBe(false);
    expect(isCleanPicture("data:text/html;base64,AAAA")).toBe(false);
  });

  it("says what to do about a file that is no picture, or too large", () => {
    expect(pictureFrom(bytes("hello"), "a.txt")).toMatchObject({
      problem: expect.stringContaining("neither a PNG nor an SVG"),
    });
    expect(pictureFrom(bytes("<svg"), "a.svg")).toHaveProperty("problem");
    expect(pictureFrom(new Uint8Array(PICTURE_BYTES + 1), "big.png")).toMatchObject({
      problem: expect.stringContaining("Save it smaller"),
    });
    const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
    const made = pictureFrom(png, "a.png");
    expect("href" in made && isCleanPicture(made.href)).toBe(true);
  });
});
