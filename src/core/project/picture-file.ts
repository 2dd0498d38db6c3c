import { SaxesParser } from "saxes";

/** At most so many bytes a picture has. */
export const PICTURE_BYTES = 150_000;

const ELEMENTS = new Set(
  "svg g path circle ellipse rect line polyline polygon defs linearGradient radialGradient stop clipPath mask use symbol title desc text tspan".split(
    " ",
  ),
);
const ATTRIBUTES = new Set(
  "id d x y x1 y1 x2 y2 cx cy r rx ry fx fy width height viewBox points transform fill fill-rule fill-opacity stroke stroke-width stroke-linecap stroke-linejoin stroke-dasharray stroke-opacity stroke-miterlimit opacity offset stop-color stop-opacity gradientUnits gradientTransform spreadMethod clip-path clip-rule clipPathUnits mask maskUnits preserveAspectRatio xmlns font-size font-weight font-family text-anchor href color".split(
    " ",
  ),
);

/** An element that draws, with only what draws of it. */
interface SvgElement {
  name: string;
  attributes: Map<string, string>;
  children: (SvgElement | string)[];
}

const MOST_DEPTH = 40;
/** The most elements that a picture draws, those that references draw again among them. */
const MOST_DRAWN = 5000;

const NUMBERS = "[-+0-9eE.,\\s]*";
const TRANSFORM = new RegExp(
  `^(?:\\s*(?:matrix|translate|scale|rotate|skewX|skewY)\\(${NUMBERS}\\)[\\s,]*)+$`,
);
const COLOUR = /^(?:rgba?|hsla?)\([0-9.,%\s/]*\)$/;
const LOCAL = /^url\(#([\w-]+)\)$/;

/**
 * An attribute's value where it leads nowhere outside the picture and means nothing but itself, else null.
 * Entities are read already.
 */
function innocent(name: string, value: string): string | null {
  if (name === "href") return /^#[\w-]+$/.test(value) ? value : null;
  // A backslash writes any sign in style values, so that what is forbidden could be spelt with it.
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters to refuse
  if (/[<>\\\u0000-\u0008\u000b\u000c\u000e-\u001f]|javascript:/i.test(value) || !value.isWellFormed())
    return null;
  return !value.includes("(") ||
    TRANSFORM.test(value) ||
    COLOUR.test(value.trim()) ||
    LOCAL.test(value.trim())
    ? value
    : null;
}

/**
 * The drawing elements of an SVG. Null where it is no well-formed XML, nests too deep, or names an entity of
 * its own.
 */
function parseSvg(text: string): SvgElement | null {
  const parser = new SaxesParser();
  let sound = true;
  let root: SvgElement | null = null;
  // A null stands for an element that is left out with all that is in it.
  const open: (SvgElement | null)[] = [];
  parser.on("error", () => {
    sound = false;
  });
  parser.on("opentag", ({ name, attributes }) => {
    const parent = open.at(-1);
    const isRoot = open.length === 0 && name === "svg";
    if (open.length >= MOST_DEPTH) sound = false;
    if (!isRoot && (!parent || !ELEMENTS.has(name))) return void open.push(null);
    const kept = new Map<string, string>();
    for (const [key, value] of Object.entries(attributes as Record<string, string>)) {
      const plain = key === "xlink:href" ? "href" : key;
      const safe = ATTRIBUTES.has(plain) && !kept.has(plain) ? innocent(plain, value) : null;
      if (safe !== null) kept.set(plain, safe);
    }
    const element: SvgElement = { name, attributes: kept, children: [] };
    if (isRoot) root = element;
    else parent?.children.push(element);
    open.push(element);
  });
  parser.on("closetag", () => void open.pop());
  const write = (piece: string) => {
    if (piece.trim() && piece.isWellFormed()) open.at(-1)?.children.push(piece);
  };
  parser.on("text", write);
  parser.on("cdata", write);
  try {
    parser.write(text).close();
  } catch {
    return null;
  }
  return sound ? root : null;
}

/** The ids that an element's attributes refer to. */
const refersTo = ({ attributes }: SvgElement): string[] =>
  [...attributes].flatMap(([name, value]) => {
    const local = name === "href" ? /^#(.+)$/.exec(value) : LOCAL.exec(value.trim());
    return local ? [local[1]] : [];
  });

/**
 * How many elements a picture draws with all its references followed; null where that is too many, or a
 * reference leads back to itself.
 */
function drawn(root: SvgElement): number | null {
  const byId = new Map<string, SvgElement>();
  const index = (e: SvgElement) => {
    const id = e.attributes.get("id");
    if (id !== undefined && !byId.has(id)) byId.set(id, e);
    for (const child of e.children) if (typeof child !== "string") index(child);
  };
  index(root);
  const known = new Map<SvgElement, number | "open">();
  const count = (e: SvgElement): number => {
    const before = known.get(e);
    if (before === "open") return Number.POSITIVE_INFINITY;
    if (before !== undefined) return before;
    known.set(e, "open");
    let total = 1;
    for (const child of e.children) if (typeof child !== "string") total += count(child);
    for (const id of refersTo(e)) {
      const target = byId.get(id);
      if (target) total += count(target);
    }
    known.set(e, total);
    return total;
  };
  const total = count(root);
  return total <= MOST_DRAWN ? total : null;
}

const ESCAPES: ReadonlyMap<string, string> = new Map([
  ["&", "&amp;"],
  ["<", "&lt;"],
  [">", "&gt;"],
  ['"', "&quot;"],
  ["\t", "&#9;"],
  ["\n", "&#10;"],
  ["\r", "&#13;"],
]);
const escaped = (text: string) => text.replace(/[&<>"\t\n\r]/g, (sign) => ESCAPES.get(sign) ?? sign);

function written({ name, attributes, children }: SvgElement): string {
  const head = `<${name}${[...attributes].map(([key, value]) => ` ${key}="${escaped(value)}"`).join("")}`;
  const inner = children.map((c) => (typeof c === "string" ? escaped(c) : written(c))).join("");
  return inner ? `${head}>${inner}</${name}>` : `${head}/>`;
}

function cleanOnce(text: string): string | null {
  const root = parseSvg(text);
  if (!root || drawn(root) === null) return null;
  root.attributes.set("xmlns", "http://www.w3.org/2000/svg");
  return written(root);
}

/**
 * An SVG with only what draws: no script, no style sheet, no foreign content, no address that leads outside,
 * nothing that draws itself again and again. What comes out is read again and must come out the same. Null
 * where it is no such SVG.
 */
export function cleanSvg(text: string): string | null {
  const clean = cleanOnce(text.replace(/^\ufeff/, ""));
  return clean !== null && cleanOnce(clean) === clean ? clean : null;
}

const toBase64 = (bytes: Uint8Array): string =>
  btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(""));

/**
 * A picture file as a data address, cleaned; or what is wrong with it, in a sentence that says what to do.
 */
export function pictureFrom(bytes: Uint8Array, name: string): { href: string } | { problem: string } {
  if (bytes.length > PICTURE_BYTES)
    return {
      problem: `${name} has ${Math.ceil(bytes.length / 1000)} kB; a picture may have ${PICTURE_BYTES / 1000} kB. Save it smaller.`,
    };
  const png = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
  if (png.every((b, i) => bytes[i] === b)) return { href: `data:image/png;base64,${toBase64(bytes)}` };
  const clean = cleanSvg(new TextDecoder().decode(bytes));
  if (clean === null)
    return {
      problem: `${name} is neither a PNG nor an SVG that can be drawn safely. Choose a file of one of the two, without parts that refer to each other without end.`,
    };
  return { href: `data:image/svg+xml;base64,${toBase64(new TextEncoder().encode(clean))}` };
}

/**
 * A data address with its picture cleaned: a PNG as it is, an SVG with only what draws. Null where
 * it holds neither.
 */
export function cleanPicture(href: string): string | null {
  const m = /^data:image\/(png|svg\+xml);base64,([A-Za-z0-9+/=]+)$/.exec(href);
  if (!m) return null;
  if (m[1] === "png") return m[2].startsWith("iVBORw0KGgo") ? href : null;
  try {
    const clean = cleanSvg(new TextDecoder().decode(Uint8Array.from(atob(m[2]), (c) => c.charCodeAt(0))));
    return clean === null ? null : `data:image/svg+xml;base64,${toBase64(new TextEncoder().encode(clean))}`;
  } catch {
    return null;
  }
}

/** Whether a data address holds a PNG, or an SVG that cleaning leaves as it is. */
export const isCleanPicture = (href: string): boolean => cleanPicture(href) === href;
