import { PALETTES, type Palette } from "./palettes";

/**
 * Design tokens in the format of the W3C Design Tokens Community Group: nested groups, tokens with `$value`,
 * `$type` inherited from the group. A palette is a group of colours; its light and night forms are groups in
 * it.
 */

const EXTENSION = "cavlo.palette";
const channel = (hex: string, at: number) =>
  Math.round((Number.parseInt(hex.slice(at, at + 2), 16) / 255) * 1e6) / 1e6;
const colourToken = (hex: string) => ({
  $value: { colorSpace: "srgb", components: [channel(hex, 1), channel(hex, 3), channel(hex, 5)], hex },
});
const group = (colours: string[]) =>
  Object.fromEntries(colours.map((hex, i) => [String(i + 1), colourToken(hex)]));
/** Names of groups may hold neither braces nor points, nor begin with a dollar sign. */
const groupName = (name: string) => name.replace(/[{}.]/g, " ").replace(/^\$+/, "").trim() || "palette";

/** The shipped palettes and the project's own as design tokens. */
export function tokensOf(own: Palette[]): object {
  const palettes = [...PALETTES, ...own].map((p) => [
    groupName(p.name),
    {
      $type: "color",
      $extensions: { [EXTENSION]: { type: p.type } },
      light: group(p.light),
      night: group(p.night),
    },
  ]);
  return { palettes: Object.fromEntries(palettes) };
}

interface Found {
  path: string[];
  hex: string;
}

const isGroup = (value: unknown): value is Record<string, unknown> =>
  typeof value === "object" && value !== null && !Array.isArray(value);
const hexOf = (share: number) =>
  Math.round(Math.min(1, Math.max(0, share)) * 255)
    .toString(16)
    .padStart(2, "0");

/** What a reference such as {palette.brand.1} stands for; circles and missing names give null. */
function resolve(root: unknown, value: unknown, depth = 0): unknown {
  const m = typeof value === "string" ? /^\{([^{}]+)\}$/.exec(value) : null;
  if (!m) return value;
  if (depth > 20) return null;
  let at: unknown = root;
  for (const step of m[1].split(".")) at = isGroup(at) ? at[step] : undefined;
  return isGroup(at) && "$value" in at ? resolve(root, at.$value, depth + 1) : null;
}

/**
 * A colour as #rrggbb, or null: a hexadecimal text, or an object of a colour space with three components
 * (sRGB, where it brings no hex).
 */
function hexFrom(value: unknown): string | null {
  if (typeof value === "string") {
    const m = /^#([0-9a-f]{6})([0-9a-f]{2})?$/i.exec(value) ?? /^#([0-9a-f]{3})$/i.exec(value);
    if (!m) return null;
    return `#${(m[1].length === 3 ? [...m[1]].map((c) => c + c).join("") : m[1]).toLowerCase()}`;
  }
  if (!isGroup(value)) return null;
  const { colorSpace, components, hex } = value;
  if (!Array.isArray(components) || components.length !== 3) return null;
  if (!components.every((c) => c === "none" || (typeof c === "number" && Number.isFinite(c)))) return null;
  if (typeof hex === "string" && /^#[0-9a-f]{6}$/i.test(hex)) return hex.toLowerCase();
  return colorSpace === "srgb" ? `#${components.map((c) => hexOf(c === "none" ? 0 : c)).join("")}` : null;
}

function collect(root: unknown, node: unknown, path: string[], inherited: unknown, found: Found[]): void {
  if (!isGroup(node) || path.length > 12 || found.length > 5000) return;
  const type = node.$type ?? inherited;
  if ("$value" in node) {
    const hex = type === "color" || type === undefined ? hexFrom(resolve(root, node.$value)) : null;
    if (hex) found.push({ path, hex });
    return;
  }
  for (const [key, child] of Object.entries(node))
    if (!key.startsWith("$")) collect(root, child, [...path, key], type, found);
}

/**
 * The palettes of a token file: each group that holds at least two colours. Gives a sentence where
 * there is none.
 */
export function palettesFrom(
  text: string,
  newId: () => string,
): { palettes: Palette[] } | { problem: string } {
  let root: unknown;
  try {
    root = JSON.parse(text);
  } catch {
    return { problem: "This is no JSON. Choose a design-token file (.json, .tokens)." };
  }
  const found: Found[] = [];
  collect(root, root, [], undefined, found);
  const groups = new Map<string, string[]>();
  for (const { path, hex } of found) {
    const key = path.slice(0, -1).join("\u0000");
    groups.set(key, [...(groups.get(key) ?? []), hex]);
  }
  const palettes: Palette[] = [];
  const done = new Set<string>();
  for (const [key, colours] of groups) {
    const path = key.split("\u0000");
    const form = path[path.length - 1];
    const parent = path.slice(0, -1);
    const paired = form === "light" || form === "night" || form === "dark";
    const base = paired ? parent.join("\u0000") : key;
    if (done.has(base)) continue;
    done.add(base);
    const at = (name: string) => groups.get([...parent, name].join("\u0000"));
    const light = paired ? (at("light") ?? colours) : colours;
    const night = (paired ? (at("night") ?? at("dark")) : undefined) ?? light;
    if (light.length < 2 || night.length < 2) continue;
    palettes.push({
      id: newId(),
      name: (paired ? parent[parent.length - 1] : form) || "Palette",
      type: typeOf(root, paired ? parent : path),
      light: light.slice(0, 24),
      night: night.slice(0, 24),
    });
  }
  return palettes.length
    ? { palettes: palettes.slice(0, 50) }
    : {
        problem:
          "No group of this file holds two colours. A palette is a group of tokens whose $type is color.",
      };
}

function typeOf(root: unknown, path: string[]): Palette["type"] {
  let at: unknown = root;
  for (const step of path) at = isGroup(at) ? at[step] : undefined;
  const said =
    isGroup(at) && isGroup(at.$extensions) && isGroup(at.$extensions[EXTENSION])
      ? at.$extensions[EXTENSION].type
      : null;
  return said === "sequential" || said === "diverging" ? said : "categorical";
}
