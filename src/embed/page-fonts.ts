import type { Project } from "@/core/project/schema";
import { FAMILIES, familyOf, furtherFamilies } from "@/core/scene/families";
import { places } from "./places";

const WEIGHTS = [400, 500, 600, 700];
const SUBSETS = [
  { name: "latin", range: undefined },
  { name: "latin-ext", range: "U+100-2BA,U+1E00-1EFF" },
];

const known = new Set<string>();

function add(family: string, file: string, descriptors: FontFaceDescriptors): void {
  if (known.has(file)) return;
  known.add(file);
  document.fonts.add(
    new FontFace(family, `url("${places.font(`${file}.woff2`)}") format("woff2")`, {
      display: "swap",
      ...descriptors,
    }),
  );
}

/** Lets the page know of a type family that ships; the browser fetches the cuts that are written in. */
function offerFamily(id: string): void {
  const { name, file } = familyOf(id);
  for (const subset of SUBSETS)
    for (const weight of WEIGHTS)
      add(name, `${file}-${subset.name}-${weight}`, {
        weight: String(weight),
        ...(subset.range ? { unicodeRange: subset.range } : {}),
      });
}

/** The family in which controls and menus are written. */
export const offerOwnFamily = (): void => offerFamily(FAMILIES[0].id);

/** Lets the page know of the families that visuals are written in, and of those for the scripts of all texts. */
export function offerFontsOf(
  { visuals, finishes }: Pick<Project, "visuals" | "finishes">,
  texts: unknown,
): void {
  const dials = JSON.stringify([visuals.map((v) => v.dials), finishes]);
  for (const { id } of FAMILIES) if (dials.includes(JSON.stringify(id))) offerFamily(id);
  offerScriptsOf([JSON.stringify(texts)]);
}

interface Slice {
  name: string;
  family: string;
  range: string;
}
let slices: Promise<Slice[]> | null = null;

/** Lets the page know of the families for scripts that the others lack, where texts need them. */
function offerScriptsOf(texts: string[]): void {
  const wanted = furtherFamilies(texts);
  if (wanted.length === 0) return;
  slices ??= fetch(places.font("slices.json")).then((r) => (r.ok ? (r.json() as Promise<Slice[]>) : []));
  slices
    .then((all) => {
      for (const { name, family, range } of all)
        if (wanted.includes(family)) add(family, name, { weight: "100 900", unicodeRange: range });
    })
    .catch(() => {
      // The browser writes with what it has.
      slices = null;
    });
}
