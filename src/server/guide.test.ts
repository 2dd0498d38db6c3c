import { expect, it } from "vitest";
import { CHAPTERS, chapterHtml, guidePicture, titleOf } from "./guide";

it.each(CHAPTERS)("the chapter %s has a title, text, and only pictures that are there", (chapter) => {
  const html = chapterHtml(chapter);
  expect(html).toContain(`<h1>${titleOf(chapter)}</h1>`);
  const pictures = [...html.matchAll(/src="\/guide\/pictures\/([^"]+)"/g)].map((m) => m[1]);
  expect(pictures.length).toBeGreaterThan(0);
  for (const name of pictures) expect(guidePicture(name)?.length, name).toBeGreaterThan(1000);
  expect(html).not.toMatch(/<script|<iframe|src="http/);
});

it("gives no file that is no picture of the guide", () => {
  for (const name of ["../guide/backup.md", "..", "nothing.png", "../../package.json", ""])
    expect(guidePicture(name)).toBeNull();
});
