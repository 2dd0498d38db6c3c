// Bundles the elements for other people's pages into dist/embed: ES modules that need nothing but each other,
// their declarations, the type families, and the one script of a file that works alone.
import { execFileSync } from "node:child_process";
import {
  copyFileSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { fileURLToPath } from "node:url";
import { build } from "esbuild";
import { lighter } from "./lighter.mjs";

const root = fileURLToPath(new URL("..", import.meta.url));
const out = `${root}dist/embed`;
const TARGET = ["chrome114", "firefox125", "safari17"];

/** Rules for a window of some width become rules for the room of the element; the page's root is the stage. */
function forShadow(css) {
  return css
    .replace(/@media\s*\(((?:max-|min-)?width[^)]*)\)/g, "@container cavlo ($1)")
    .replaceAll(":root", ".cavlo")
    .replace(/(?<![\w.-])\[data-theme="?night"?\]/g, '.cavlo[data-theme="night"]');
}

/** Style sheets become texts, with all that they import. */
const styles = {
  name: "styles",
  setup(bundle) {
    bundle.onLoad({ filter: /\.css$/ }, async ({ path }) => {
      const made = await build({
        entryPoints: [path],
        bundle: true,
        minify: true,
        write: false,
        target: TARGET,
      });
      return { contents: forShadow(made.outputFiles[0].text), loader: "text" };
    });
  },
};

/** Libraries that are fetched by projects that ask for them, and not with the engine. */
const lazily = (filter) => ({
  name: "lazy patterns",
  setup(bundle) {
    bundle.onResolve({ filter }, ({ importer }) =>
      /\/embed\/patterns-library\.ts$|\/node_modules\//.test(importer)
        ? undefined
        : { path: `${root}src/embed/patterns.ts` },
    );
  },
});
const lazyMatching = lazily(/^re2js$/);
const lazyDates = lazily(/^(date-fns\/(format|parse)|@date-fns\/utc)$/);

/** What checks formulas is the engine's alone: elements know what theirs mean from the snapshot. */
const knownFormulas = {
  name: "known formulas",
  setup(bundle) {
    bundle.onResolve({ filter: /\/(formula\/check|adds-up)$/ }, () => ({
      path: `${root}src/embed/known-formulas.ts`,
    }));
  },
};

const shared = {
  absWorkingDir: root,
  bundle: true,
  minify: true,
  format: "esm",
  target: TARGET,
  alias: { "@": `${root}src` },
  plugins: [lazyMatching, ...lighter, styles],
  legalComments: "none",
  logLevel: "warning",
};

rmSync(out, { recursive: true, force: true });
mkdirSync(`${out}/fonts`, { recursive: true });
await build({
  ...shared,
  plugins: [knownFormulas, ...shared.plugins],
  entryPoints: { cavlo: "src/embed/cavlo.ts", "cavlo-board": "src/embed/cavlo-board.ts" },
  outdir: out,
  splitting: true,
  chunkNames: "part-[hash]",
});
// What both have is one file with a name that stays.
const parts = readdirSync(out).filter((name) => name.startsWith("part-"));
if (parts.length !== 1) throw new Error(`the elements share ${parts.length} parts, not one`);
for (const name of ["cavlo.js", "cavlo-board.js"])
  writeFileSync(
    `${out}/${name}`,
    readFileSync(`${out}/${name}`, "utf8").replaceAll(parts[0], "cavlo-shared.js"),
  );
renameSync(`${out}/${parts[0]}`, `${out}/cavlo-shared.js`);
await build({
  ...shared,
  plugins: [lazyDates, ...shared.plugins],
  entryPoints: { "cavlo-engine": "src/embed/engine.ts", "cavlo-patterns": "src/embed/patterns-library.ts" },
  outdir: out,
});
// Elements write dates, so that a file that works alone has what does so anyway.
await build({ ...shared, entryPoints: { "cavlo-alone": "src/embed/alone.ts" }, outdir: out });
await build({
  ...shared,
  entryPoints: { "cavlo-react": "src/embed/react.tsx" },
  outdir: out,
  jsx: "automatic",
  external: ["react", "react/jsx-runtime", "./cavlo.js", "./cavlo-board.js"],
});

/** Each kind with what it is drawn by and nothing of the others, as the body of a function that gives `draw`. */
mkdirSync(`${out}/kinds`);
const kindsIndex = readFileSync(`${root}src/core/kinds/index.ts`, "utf8");
for (const [, name, folder] of kindsIndex.matchAll(/^import \{ (\w+) \} from "\.\/([\w-]+)";$/gm)) {
  const oneKind = {
    name: "one kind",
    setup(bundle) {
      bundle.onLoad({ filter: /\/core\/kinds\/index\.ts$/ }, () => ({
        contents: `import { ${name} } from "./${folder}";
          export const KINDS = [${name}];
          export const isKind = (id) => id === ${name}.id;
          export const kindOf = () => ${name};
          export const hasRole = (_, role) => ${name}.roles.includes(role);`,
        resolveDir: `${root}src/core/kinds`,
        loader: "ts",
      }));
    },
  };
  const made = await build({
    ...shared,
    plugins: [oneKind, knownFormulas, ...shared.plugins],
    entryPoints: ["src/code/component/drawing.ts"],
    format: "iife",
    globalName: "drawing",
    write: false,
  });
  const text = made.outputFiles[0].text.trim();
  writeFileSync(`${out}/kinds/${folder}.js`, `${text}return drawing;`);
}

/** The declarations of one file, as the compiler writes them. */
function declarations(name) {
  const options = [
    "--declaration",
    "--emitDeclarationOnly",
    "--ignoreConfig",
    "--skipLibCheck",
    "--outDir",
    `${out}/declared`,
  ];
  const how = [
    "--module",
    "esnext",
    "--moduleResolution",
    "bundler",
    "--target",
    "es2022",
    "--jsx",
    "react-jsx",
  ];
  const path = `${root}src/embed/${name}`;
  execFileSync(process.execPath, [`${root}node_modules/typescript/bin/tsc`, ...options, ...how, path], {
    stdio: ["ignore", "inherit", "inherit"],
  });
  const text = readFileSync(`${out}/declared/${name.replace(/\.tsx?$/, ".d.ts")}`, "utf8");
  rmSync(`${out}/declared`, { recursive: true });
  return text;
}
const elements = declarations("public.ts");
writeFileSync(
  `${out}/cavlo.d.ts`,
  `${elements}\nexport declare const CavloVisual: { new (): CavloVisualElement; prototype: CavloVisualElement };\nexport declare function registerFamily(widths: unknown): string;\n`,
);
writeFileSync(
  `${out}/cavlo-board.d.ts`,
  'import type { CavloBoardElement } from "./cavlo.js";\nexport * from "./cavlo.js";\nexport declare const CavloBoard: { new (): CavloBoardElement; prototype: CavloBoardElement };\n',
);
writeFileSync(`${out}/cavlo-react.d.ts`, declarations("react.tsx").replaceAll("./public", "./cavlo.js"));

const fonts = `${root}public/fonts`;
for (const name of readdirSync(fonts))
  if (name.endsWith(".woff2")) copyFileSync(`${fonts}/${name}`, `${out}/fonts/${name}`);
const slices = JSON.parse(readFileSync(`${root}assets/fonts/other/slices.json`, "utf8"));
const hex = (code) => code.toString(16).toUpperCase();
writeFileSync(
  `${out}/fonts/slices.json`,
  JSON.stringify(
    slices.map(({ name, family, spans }) => ({
      name,
      family,
      range: spans.map(([from, to]) => `U+${hex(from)}-${hex(to)}`).join(","),
    })),
  ),
);
