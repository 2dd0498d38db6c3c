// Puts fonts where the page and the pictures find them, out of the packages that ship them: the cuts of the
// families for pages that a picture travels to, and the scripts that those families lack (one weight, in
// slices of which a page or a picture loads those that its texts need). Nothing of it is kept in the project.
import { copyFile, mkdir, readFile, rm, writeFile } from "node:fs/promises";
import { createRequire } from "node:module";
import { dirname, join } from "node:path";
import { fileURLToPath } from "node:url";
import wawoff2 from "wawoff2";

const require = createRequire(import.meta.url);
const root = fileURLToPath(new URL("..", import.meta.url));
const pages = join(root, "public/fonts");
const pictures = join(root, "assets/fonts/other");
const FAMILIES = ["archivo", "source-serif-4", "barlow-condensed", "nunito"];
const SUBSETS = ["latin", "latin-ext"];
const WEIGHTS = [400, 500, 600, 700];
/** What is taken of each package; null for all its numbered slices. `page` says when a page loads the rules. */
const SCRIPTS = [
  {
    file: "noto-sans",
    family: "Noto Sans",
    subsets: ["greek", "greek-ext", "cyrillic", "cyrillic-ext", "vietnamese", "devanagari"],
  },
  { file: "noto-sans-arabic", family: "Noto Sans Arabic", subsets: ["arabic"] },
  { file: "noto-sans-hebrew", family: "Noto Sans Hebrew", subsets: ["hebrew"] },
  { file: "noto-sans-jp", family: "Noto Sans JP", subsets: null },
  { file: "noto-sans-kr", family: "Noto Sans KR", subsets: null },
  { file: "noto-sans-sc", family: "Noto Sans SC", subsets: null },
];
const WEIGHT = 500;

const source = (file, name, weight) =>
  require.resolve(`@fontsource/${file}/files/${file}-${name}-${weight}-normal.woff2`);

const spansOf = (text) =>
  text.split(",").map((span) => {
    const [from, to] = span.trim().replace(/^U\+/i, "").split("-");
    return [Number.parseInt(from, 16), Number.parseInt(to ?? from, 16)];
  });

const rule = (family, file, range) =>
  `@font-face{font-family:"${family}";font-weight:100 900;font-display:swap;src:url(/fonts/${file}) format("woff2");unicode-range:${range.replaceAll(" ", "")}}`;

async function versionOf(file) {
  const path = join(dirname(require.resolve(`@fontsource/${file}/package.json`)), "package.json");
  return `${file} ${JSON.parse(await readFile(path, "utf8")).version}`;
}

/** Places the fonts, unless those of these packages are there. */
export async function placeFonts() {
  const files = [...FAMILIES, ...SCRIPTS.map((s) => s.file)];
  const wanted = [
    await readFile(fileURLToPath(import.meta.url), "utf8"),
    ...(await Promise.all(files.map(versionOf))),
  ].join("\n");
  const stamp = join(pictures, "placed");
  if ((await readFile(stamp, "utf8").catch(() => "")) === wanted) return;
  for (const folder of [pages, pictures]) {
    await rm(folder, { recursive: true, force: true });
    await mkdir(folder, { recursive: true });
  }
  for (const family of FAMILIES)
    for (const subset of SUBSETS)
      for (const weight of WEIGHTS)
        await copyFile(source(family, subset, weight), join(pages, `${family}-${subset}-${weight}.woff2`));
  const slices = [];
  const rules = { few: [], many: [] };
  for (const { file, family, subsets } of SCRIPTS) {
    const ranges = JSON.parse(await readFile(require.resolve(`@fontsource/${file}/unicode.json`), "utf8"));
    for (const [subset, range] of Object.entries(ranges)) {
      const numbered = /^\[(\d+)\]$/.exec(subset);
      if (subsets === null ? !numbered : !subsets.includes(subset)) continue;
      const name = `${file}-${numbered ? numbered[1] : subset}`;
      const cut = await readFile(source(file, numbered ? numbered[1] : subset, WEIGHT));
      await writeFile(join(pages, `${name}.woff2`), cut);
      await writeFile(join(pictures, `${name}.ttf`), await wawoff2.decompress(cut));
      rules[subsets === null ? "many" : "few"].push(rule(family, `${name}.woff2`, range));
      slices.push({ name, family, spans: spansOf(range) });
    }
  }
  await writeFile(join(pages, "alphabets.css"), rules.few.join("\n"));
  await writeFile(join(pages, "east-asian.css"), rules.many.join("\n"));
  await writeFile(join(pictures, "slices.json"), JSON.stringify(slices));
  await writeFile(stamp, wanted);
}

if (process.argv[1] === fileURLToPath(import.meta.url)) await placeFonts();
