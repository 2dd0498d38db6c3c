// Writes what the licences of others ask to be kept with their work into one file: every package that runs in
// the page or on the server, and the fonts and icons that pictures carry. Run by hand after an update of the
// packages; the result is committed, and a test holds it to the packages that are installed.
import { existsSync, readdirSync, readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import { fileURLToPath } from "node:url";

const root = fileURLToPath(new URL("..", import.meta.url));
const lock = JSON.parse(readFileSync(join(root, "package-lock.json"), "utf8"));
/** Packages whose files travel though they are only needed to build. */
const TRAVELS = /^node_modules\/@fontsource/;

/** The packages that a notice is owed to, as "name version", in their order. */
export function noticed() {
  return Object.entries(lock.packages)
    .filter(
      ([path, info]) => path && (TRAVELS.test(path) || (!info.dev && !info.optional && !info.devOptional)),
    )
    .map(([path, info]) => ({ path, name: path.replace(/^.*node_modules\//, ""), ...info }))
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
}

function licenceText(path) {
  const folder = join(root, path);
  if (!existsSync(folder)) return null;
  const files = readdirSync(folder).filter((f) => /^(licen[cs]e|notice|copying)([.-].*)?$/i.test(f));
  return files.map((f) => readFileSync(join(folder, f), "utf8").replaceAll("\r\n", "\n").trim());
}

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const byText = new Map();
  for (const { path, name, version, license } of noticed())
    for (const text of licenceText(path)?.length ? licenceText(path) : [`Licence: ${license}`])
      byText.set(text, [...(byText.get(text) ?? []), `${name} ${version}`]);
  const parts = [...byText].map(([text, names]) => `${names.join("\n")}\n\n${text}`);
  const head =
    "Third-party notices\n\nCavlo is made with the work of others. Pictures that leave it can carry its fonts " +
    "(Archivo, Source Serif, Barlow, Nunito, JetBrains Mono, Noto Sans: SIL Open Font License 1.1) and outlines " +
    "of Lucide's icons (ISC); what is owed to each is kept below, and belongs beside what carries it.";
  writeFileSync(
    join(root, "public", "third-party-notices.txt"),
    `${[head, ...parts].join(`\n\n${"-".repeat(80)}\n\n`)}\n`,
  );
}
