import { readFileSync } from "node:fs";
import { join } from "node:path";
import { ZipFile } from "yazl";
import { type ElementCode, examplePage } from "@/code/element-code";
import { needsPatterns } from "@/core/snapshot/needs-patterns";
import { readSnapshot } from "@/core/snapshot/snapshot";
import { settings } from "../settings";
import { fontsNeeded } from "./alone-file";
import { boardPicture, visualPicture } from "./first-picture";

/** The name of the file of a snapshot in its folder: letters, digits and hyphens. */
export const snapshotFile = (name: string): string =>
  `${
    name
      .normalize("NFKD")
      .replace(/[^\w]+/g, "-")
      .replace(/^-+|-+$/g, "")
      .toLowerCase()
      .slice(0, 60) || "snapshot"
  }.cavlo.json`;

/** The files of a folder that shows a snapshot in a page: the modules, their fonts, the snapshot, an example. */
export function folderFiles(
  json: string,
  { name, theme, filters }: { name: string; theme: ElementCode["theme"]; filters: ElementCode["filters"] },
): Map<string, Buffer> {
  const snapshot = readSnapshot(json);
  const { project } = snapshot;
  const [board = null] = snapshot.board === null ? [] : project.boards;
  const file = snapshotFile(name);
  const first = theme === "night" ? "night" : "light";
  const firsts = board
    ? [boardPicture(snapshot, board, first)]
    : project.visuals.map((v) => visualPicture(snapshot, v, first));
  const code: ElementCode = { board, visuals: project.visuals, project, file, theme, filters };
  const modules = [
    "cavlo.js",
    "cavlo.d.ts",
    "cavlo-shared.js",
    ...(board ? ["cavlo-board.js", "cavlo-board.d.ts"] : []),
    "cavlo-engine.js",
    ...(needsPatterns(snapshot.project) ? ["cavlo-patterns.js"] : []),
    "cavlo-react.js",
    "cavlo-react.d.ts",
  ];
  const fonts = fontsNeeded(snapshot).map((font) => `fonts/${font}.woff2`);
  return new Map([
    ["index.html", Buffer.from(examplePage(code, name, firsts))],
    [file, Buffer.from(json)],
    ...[...modules, ...fonts, "fonts/slices.json"].map((path): [string, Buffer] => [
      path,
      readFileSync(join(settings.root, "dist", "embed", path)),
    ]),
  ]);
}

/** The same as one archive. */
export async function folderArchive(files: Map<string, Buffer>): Promise<Buffer> {
  const archive = new ZipFile();
  for (const [name, bytes] of files) archive.addBuffer(bytes, name);
  archive.end();
  const parts: Buffer[] = [];
  for await (const part of archive.outputStream) parts.push(part as Buffer);
  return Buffer.concat(parts);
}
