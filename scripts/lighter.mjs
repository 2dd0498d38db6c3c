// What scripts for pages leave out of what they are bundled from, as plugins of esbuild.
import { readFileSync } from "node:fs";

const TEXT = String.raw`(?:"(?:[^"\\]|\\.)*"|'(?:[^'\\]|\\.)*')`;
const HELP = new RegExp(String.raw`\b(?:help|example):\s*(?:${TEXT}|\[\s*${TEXT},\s*${TEXT},?\s*\]),?`, "g");

/** The help and the examples of functions are for who writes formulas. */
const withoutHelp = {
  name: "without help",
  setup(bundle) {
    bundle.onLoad({ filter: /\/formula\/(functions|aggregates)\.ts$/ }, ({ path }) => ({
      contents: readFileSync(path, "utf8").replace(HELP, ""),
      loader: "ts",
    }));
  },
};

/** Colours of documents are written as #rrggbb: none is by its name. */
const withoutNames = {
  name: "without names of colours",
  setup(bundle) {
    bundle.onLoad({ filter: /\/culori\/src\/colors\/named\.js$/ }, () => ({
      contents: "export default {};",
    }));
  },
};

/** Dates are read and written, never told by how far off they are. */
const withoutDistances = {
  name: "without distances of dates",
  setup(bundle) {
    bundle.onLoad({ filter: /\/locale\/en-US\/_lib\/format(Distance|Relative)\.js$/ }, ({ path }) => ({
      contents: `export const ${path.includes("Distance") ? "formatDistance" : "formatRelative"} = () => "";`,
    }));
  },
};

export const lighter = [withoutHelp, withoutNames, withoutDistances];
