import { readFileSync } from "node:fs";
import { join } from "node:path";
import { promisify } from "node:util";
import { deflateRaw } from "node:zlib";
import { FAMILIES, familyOf } from "@/core/scene/families";
import { needsPatterns } from "@/core/snapshot/needs-patterns";
import { readSnapshot, type Snapshot } from "@/core/snapshot/snapshot";
import { slicesFor } from "@/render/font-slices";
import { settings } from "../settings";
import { boardPicture, visualPicture } from "./first-picture";

const deflate = promisify(deflateRaw);

const ENTITIES: Record<string, string> = { "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;" };
const escaped = (text: string) => text.toWellFormed().replace(/[&<>"]/g, (sign) => ENTITIES[sign]);
/** JSON that cannot end the element it stands in. */
const inElement = (json: string) => json.replaceAll("<", "\\u003c");

/** Everything that is written in the snapshot. */
const textsIn = ({ project, answers }: Snapshot): string => JSON.stringify([project, answers]);

const LATIN_EXTENDED = /[\u0100-\u02ba\u1e00-\u1eff]/;

/** The files of fonts that a snapshot is written in, by their names without their ends. */
export function fontsNeeded(snapshot: Snapshot): string[] {
  const texts = textsIn(snapshot);
  const dials = JSON.stringify([snapshot.project.visuals, snapshot.project.finishes]);
  const families = [FAMILIES[0], ...FAMILIES.slice(1).filter(({ id }) => dials.includes(JSON.stringify(id)))];
  const subsets = LATIN_EXTENDED.test(texts) ? ["latin", "latin-ext"] : ["latin"];
  const own = families.flatMap(({ id }) =>
    subsets.flatMap((subset) => [400, 500, 600, 700].map((w) => `${familyOf(id).file}-${subset}-${w}`)),
  );
  const others = slicesFor([texts], join(settings.root, "assets", "fonts", "other"));
  return [...own, ...others.map((slice) => slice.name)];
}

const script = (name: string) => readFileSync(join(settings.root, "dist", "embed", name));

let packedScripts: Promise<{ alone: string; patterns: string }> | null = null;

/** The scripts that a file holds, deflated and as base64, packed once. */
function scripts() {
  packedScripts ??= (async () => {
    const [alone, patterns] = await Promise.all(
      ["cavlo-alone.js", "cavlo-patterns.js"].map((name) => deflate(script(name), { level: 9 })),
    );
    return { alone: alone.toString("base64"), patterns: patterns.toString("base64") };
  })();
  packedScripts.catch(() => {
    packedScripts = null;
  });
  return packedScripts;
}

/** It begins what the file holds, once all of it is there; and says so where something is not. */
const START = `addEventListener("DOMContentLoaded", async () => {
  const note = document.getElementById("note");
  const held = (id) => document.getElementById(id)?.textContent ?? null;
  const say = (text) => { note.hidden = false; note.textContent = text; };
  if (held("end") === null) return say("This file is not whole: its end is missing. Take it out again, or copy it anew.");
  const opened = async (id, type) => {
    const bytes = Uint8Array.from(atob(held(id)), (c) => c.charCodeAt(0));
    const stream = new Blob([bytes]).stream().pipeThrough(new DecompressionStream("deflate-raw"));
    return URL.createObjectURL(new Blob([await new Response(stream).blob()], { type }));
  };
  try {
    const patterns = held("patterns") === null ? "" : await opened("patterns", "text/javascript");
    globalThis.cavloAlone = { fonts: JSON.parse(held("fonts")), patterns };
    await import(await opened("code", "text/javascript"));
    note.hidden = true;
  } catch (error) {
    say("This file cannot be shown here: " + error.message + ". It needs a browser of 2024 or later.");
  }
});`;

const GROUNDS = { light: "#f3f0e8", night: "#101819" };

/**
 * A snapshot as one HTML file that works alone, opened from a disk and without a network: it
 * holds its script,
 * its fonts and what answers it.
 */
export async function aloneFile(json: string, theme: "light" | "night" | "auto"): Promise<string> {
  const snapshot = readSnapshot(json);
  const { project } = snapshot;
  const first = theme === "night" ? "night" : "light";
  const [board] = snapshot.board === null ? [] : project.boards;
  const { alone, patterns } = await scripts();
  const fonts = Object.fromEntries(
    fontsNeeded(snapshot).map((name) => [name, script(join("fonts", `${name}.woff2`)).toString("base64")]),
  );
  const shown = board
    ? `<cavlo-board src="#snapshot" theme="${theme}">${boardPicture(snapshot, board, first)}</cavlo-board>`
    : project.visuals
        .map(
          (v) =>
            `<figure style="max-width:${v.size.width}px"><cavlo-visual src="#snapshot" visual="${escaped(v.id)}" theme="${theme}">${visualPicture(snapshot, v, first)}</cavlo-visual></figure>`,
        )
        .join("\n");
  const title = board ? `${board.name} · ${project.name}` : project.visuals.map((v) => v.name).join(" · ");
  const scheme =
    theme === "auto"
      ? `@media (prefers-color-scheme: dark){body{background:${GROUNDS.night};color:#e9e4d8}}`
      : "";
  const data = (id: string, text: string) => `<script type="application/json" id="${id}">${text}</script>`;
  return `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>${escaped(title)}</title>
<style>body{margin:0;padding:20px;background:${GROUNDS[first]};color:${first === "night" ? "#e9e4d8" : "#1c2b2d"};font:14px/1.5 system-ui,sans-serif}figure{margin:0 auto 20px}${scheme}</style>
<script>${START}</script>
</head>
<body>
<p id="note" hidden></p>
<noscript><p>What stands here is a picture: with its script it can be filtered and picked on.</p></noscript>
${shown}
${data("snapshot", inElement(json))}
${data("fonts", JSON.stringify(fonts))}
<script type="text/plain" id="code">${alone}</script>
${needsPatterns(snapshot.project) ? `<script type="text/plain" id="patterns">${patterns}</script>` : ""}
<p id="end" hidden></p>
</body>
</html>
`;
}
