import { describe, expect, it } from "vitest";
import { cleanSvg, isCleanPicture, PICTURE_BYTES, pictureFrom } from "./picture-file";

const bytes = (text: string) => new TextEncoder().encode(text);

describe("uploaded pictures", () => {
  it("keeps what draws and leaves out what runs, loads or leads outside", () => {
    const clean = cleanSvg(
      `<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY x "y">]><svg viewBox="0 0 10 10" onload="alert(1)"><script>alert(2)</script><style>@import url(http://a.example/x)</style>` +
        `<foreignObject><body/></foreignObject><image href="http://a.example/x.png"/><a href="javascript:alert(3)"><path d="M0 0L5 5"/></a>` +
        `<path d="M1 1L9 9" fill="url(#g)" onclick="alert(4)"/><circle cx="5" cy="5" r="2" fill="url(http://a.example)"/><use xlink:href="file:///etc/passwd"/></svg>`,
    );
    expect(clean).toBe('<svg viewBox="0 0 10 10" xmlns="http://www.w3.org/2000/svg"><path d="M1 1L9 9" fill="url(#g)"/><circle cx="5" cy="5" r="2"/><use/></svg>');
  });

  it("cleaning what is clean changes nothing, so that a document can be checked by it", () => {
    const made = pictureFrom(bytes('<svg viewBox="0 0 4 4"><g transform="scale(2)"><rect width="2" height="2" fill="#1f7a6d"/></g></svg>'), "a.svg");
    if (!("href" in made)) throw new Error(made.problem);
    expect(isCleanPicture(made.href)).toBe(true);
    expect(isCleanPicture(`data:image/svg+xml;base64,${btoa("<svg><script>1</script></svg>")}`)).toBe(false);
    expect(isCleanPicture("data:text/html;base64,AAAA")).toBe(false);
  });

  it("says what to do about a file that is no picture, or too large", () => {
    expect(pictureFrom(bytes("hello"), "a.txt")).toMatchObject({ problem: expect.stringContaining("neither a PNG nor an SVG") });
    expect(pictureFrom(bytes("<svg"), "a.svg")).toHaveProperty("problem");
    expect(pictureFrom(new Uint8Array(PICTURE_BYTES + 1), "big.png")).toMatchObject({ problem: expect.stringContaining("Save it smaller") });
    const png = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 1, 2, 3]);
    const made = pictureFrom(png, "a.png");
    expect("href" in made && isCleanPicture(made.href)).toBe(true);
  });
});
