import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { Marked } from "marked";
import { settings } from "./settings";

/** The chapters of the guide, in the order they are read: the names of their files, without the ending. */
export const CHAPTERS = ["first-hour", "designing", "boards", "taking-out", "backup"] as const;
/** One of CHAPTERS. */
export type Chapter = (typeof CHAPTERS)[number];

const marked = new Marked({
  gfm: true,
  renderer: {
    // The pictures of the project are served beside the guide; no other ones stand in it.
    image: ({ href, text }) => {
      const name = /([a-z-]+)\.png$/.exec(href)?.[1] ?? "";
      return `<img src="/guide/pictures/${name}.png" alt="${text.replaceAll('"', "&quot;")}" loading="lazy">`;
    },
    html: () => "",
  },
});

const textOf = (chapter: Chapter) =>
  readFileSync(join(settings.root, "docs", "guide", `${chapter}.md`), "utf8");

/** The title of a chapter: its first line. */
export const titleOf = (chapter: Chapter): string => /^# (.+)$/m.exec(textOf(chapter))?.[1] ?? chapter;

/** A chapter as HTML, made from the project's own file. */
export const chapterHtml = (chapter: Chapter): string => marked.parse(textOf(chapter), { async: false });

/** A picture of the guide as PNG bytes; null where there is none of that name. */
export function guidePicture(name: string): Uint8Array<ArrayBuffer> | null {
  const folder = join(settings.root, "docs", "screenshots");
  const file = readdirSync(folder).find((f) => f === name && f.endsWith(".png"));
  return file ? new Uint8Array(readFileSync(join(folder, file))) : null;
}
