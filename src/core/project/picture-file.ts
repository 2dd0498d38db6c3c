import { XMLBuilder, XMLParser } from "fast-xml-parser";

/** At most so many bytes a picture has. */
export const PICTURE_BYTES = 150_000;

const ELEMENTS = new Set("svg g path circle ellipse rect line polyline polygon defs linearGradient radialGradient stop clipPath mask use symbol title desc text tspan".split(" "));
const ATTRIBUTES = new Set(
  "id d x y x1 y1 x2 y2 cx cy r rx ry fx fy width height viewBox points transform fill fill-rule fill-opacity stroke stroke-width stroke-linecap stroke-linejoin stroke-dasharray stroke-opacity stroke-miterlimit opacity offset stop-color stop-opacity gradientUnits gradientTransform spreadMethod clip-path clip-rule clipPathUnits mask maskUnits preserveAspectRatio xmlns font-size font-weight font-family text-anchor href color".split(
    " ",
  ),
);

type Node = Record<string, unknown>;

/** An attribute's value where it leads nowhere outside the picture, else null. */
function innocent(name: string, value: string): string | null {
  if (name === "href") return value.startsWith("#") ? value : null;
  if (/url\s*\(/i.test(value)) return /^url\(#[\w-]+\)$/.test(value.trim()) ? value : null;
  // biome-ignore lint/suspicious/noControlCharactersInRegex: these are the characters to refuse
  return /[<>\u0000-\u0008]|javascript:/i.test(value) ? null : value;
}

/** Keeps what draws of a list of nodes; the depth is bounded. */
function kept(nodes: Node[], depth: number): Node[] {
  if (depth > 40) return [];
  return nodes.flatMap((node): Node[] => {
    const tag = Object.keys(node).find((k) => k !== ":@");
    if (tag === undefined) return [];
    if (tag === "#text") return [{ "#text": node["#text"] }];
    if (!ELEMENTS.has(tag)) return [];
    const attributes = Object.entries((node[":@"] ?? {}) as Record<string, unknown>).flatMap(([key, value]) => {
      const name = key === "xlink:href" ? "href" : key;
      const text = ATTRIBUTES.has(name) ? innocent(name, String(value)) : null;
      return text === null ? [] : [[name, text] as const];
    });
    return [{ [tag]: kept(node[tag] as Node[], depth + 1), ":@": Object.fromEntries(attributes) }];
  });
}

/** An SVG with only what draws: no script, no style sheet, no foreign content, no address that leads outside. Null where it is no SVG. */
export function cleanSvg(text: string): string | null {
  const options = { preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: "", parseAttributeValue: false, parseTagValue: false };
  let nodes: Node[];
  try {
    nodes = new XMLParser({ ...options, processEntities: false, ignoreDeclaration: true, ignorePiTags: true }).parse(text) as Node[];
  } catch {
    return null;
  }
  const root = nodes.find((n) => "svg" in n);
  if (!root) return null;
  const [svg] = kept([root], 0);
  const attributes = svg[":@"] as Record<string, string>;
  attributes.xmlns = "http://www.w3.org/2000/svg";
  return new XMLBuilder({ ...options, processEntities: false, suppressEmptyNode: true }).build([svg]) as string;
}

const toBase64 = (bytes: Uint8Array): string => btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(""));

/** A picture file as a data address, cleaned; or what is wrong with it, in a sentence that says what to do. */
export function pictureFrom(bytes: Uint8Array, name: string): { href: string } | { problem: string } {
  if (bytes.length > PICTURE_BYTES) return { problem: `${name} has ${Math.ceil(bytes.length / 1000)} kB; a picture may have ${PICTURE_BYTES / 1000} kB. Save it smaller.` };
  const png = [0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a];
  if (png.every((b, i) => bytes[i] === b)) return { href: `data:image/png;base64,${toBase64(bytes)}` };
  const clean = cleanSvg(new TextDecoder().decode(bytes));
  if (clean === null) return { problem: `${name} is neither a PNG nor an SVG. Choose a file of one of the two.` };
  return { href: `data:image/svg+xml;base64,${toBase64(new TextEncoder().encode(clean))}` };
}

/** Whether a data address holds a PNG, or an SVG that cleaning leaves as it is. */
export function isCleanPicture(href: string): boolean {
  const m = /^data:image\/(png|svg\+xml);base64,([A-Za-z0-9+/=]+)$/.exec(href);
  if (!m) return false;
  if (m[1] === "png") return m[2].startsWith("iVBORw0KGgo");
  try {
    const text = new TextDecoder().decode(Uint8Array.from(atob(m[2]), (c) => c.charCodeAt(0)));
    return cleanSvg(text) === text;
  } catch {
    return false;
  }
}
