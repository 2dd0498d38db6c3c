import { kindOf } from "../kinds";
import type { Dial, NumberDial, Part } from "../kinds/anatomy/dial";
import { UNNAMED } from "../kinds/anatomy/frame";
import type { Visual } from "../project/schema";
import type { VisualData } from "../rows/visual-data";
import type { Mark, Scene, Sector } from "../scene/marks";
import { withUnit } from "./dial-number";
import { type Design, type PictureOptions, sceneOf, styleOf } from "./picture";

const sectorsOf = (marks: Mark[]): Sector[] =>
  marks.filter((m): m is Sector => m.type === "sector" && m.surface !== undefined);
/** The sizes of texts, without the lines at the foot, which are as large as they are. */
const sizesOf = (marks: Mark[]): number[] =>
  marks.flatMap((m) => (m.type === "text" && !FOOT.test(m.id) ? m.size : []));
const FOOT = new RegExp(`^(note|${UNNAMED})\\d*$`);

/** How thick a ring is: the outermost, where there are several. */
function thicknessOf(marks: Mark[]): number | null {
  const [outermost] = sectorsOf(marks).toSorted((a, b) => b.outer - a.outer);
  return outermost ? outermost.outer - outermost.inner : null;
}

/** What is left open in the middle of rings, in percent of their radius. */
function holeOf(marks: Mark[]): number | null {
  const sectors = sectorsOf(marks);
  if (sectors.length === 0) return null;
  return (100 * Math.min(...sectors.map((s) => s.inner))) / Math.max(...sectors.map((s) => s.outer));
}

/** How far rings stand from each other; null where there is one. */
function ringGapOf(marks: Mark[]): number | null {
  const outers = [...new Set(sectorsOf(marks).map((s) => s.outer))].toSorted((a, b) => b - a);
  const inner = sectorsOf(marks).find((s) => s.outer === outers[0])?.inner;
  return outers.length > 1 && inner !== undefined ? inner - outers[1] : null;
}

/** How wide the largest circle is; null where none is drawn. */
function diameterOf(marks: Mark[]): number | null {
  const radii = marks.flatMap((m) => (m.type === "circle" ? m.r : []));
  return radii.length > 0 ? 2 * Math.max(...radii) : null;
}

/** How large the largest text is. */
const sizeOf = (marks: Mark[]): number | null => {
  const sizes = sizesOf(marks);
  return sizes.length > 0 ? Math.max(...sizes) : null;
};

/** What the marks of a part show of a dial, in the dial's own unit, by its id or key; null where nothing. */
const SHOWN: Record<string, (marks: Mark[]) => number | null> = {
  thickness: thicknessOf,
  hole: holeOf,
  size: sizeOf,
  "ring.gap": ringGapOf,
  "arc.ringGap": ringGapOf,
  diameter: diameterOf,
};

const HERE = "at this size";

/** A note on a number that was set by hand: what the picture has in its place, rounded to the dial's steps. */
function numberNote(key: string, dial: NumberDial, wanted: number, marks: Mark[]): string | null {
  const kept = Math.min(dial.max, Math.max(dial.min, wanted));
  if (kept !== wanted)
    return `Drawn at ${withUnit(kept, dial.unit)}, its ${kept === dial.max ? "most" : "least"}`;
  const shown = (SHOWN[key] ?? SHOWN[dial.id])?.(marks) ?? null;
  if (shown === null || Math.abs(shown - wanted) <= Math.max(dial.step / 2, wanted * 0.02)) return null;
  const digits = dial.step < 1 ? 1 : 0;
  return `Drawn at ${withUnit(Number(shown.toFixed(digits)), dial.unit)} ${HERE}`;
}

/** Whether a part is there to be read. */
const writesText = ({ id, dials }: Part): boolean =>
  dials.some((d) => d.id === "size") &&
  (id === "heading" || dials.some((d) => d.type === "template" || d.id === "content"));

/** Whether a part writes a text that its author has left empty. */
const isEmptyText = (part: Part, style: ReturnType<typeof styleOf>, data: VisualData): boolean => {
  if (part.id === "heading") return data.title.trim() === "" && data.subtitle.trim() === "";
  const texts = part.dials.filter((d) => d.type === "template").map((d) => style.value(`${part.id}.${d.id}`));
  return texts.length > 0 && texts.every((text) => String(text).trim() === "");
};

const UNPAINTED = { "surface.shade": "flat", "surface.dashes": 0 };

const textsOf = ({ marks }: Scene, part: string) => sizesOf(marks.filter((m) => m.part === part)).length;

/**
 * What a picture has in the place of what its dials ask for, at the visual's own size, by the key of the
 * dial: numbers that its author set and that the picture has not, and texts that are shown and of which none
 * is drawn.
 */
export function dialNotes(visual: Visual, data: VisualData, design?: Design): Map<string, string> {
  const notes = new Map<string, string>();
  if (data.problem !== null || data.rows.length === 0) return notes;
  const style = styleOf(visual, design);
  const scene = sceneOf(visual, data, design);
  // An outline lies within its shape, and dashes cut it up: what is measured is measured without them.
  const isPainted =
    style.choice("surface.shade") !== "flat" ||
    (style.has("surface.dashes") && style.value("surface.dashes") !== 0);
  const unpainted = { ...visual, dials: { ...visual.dials, ...UNPAINTED } };
  const plain = isPainted ? sceneOf(unpainted, data, design) : scene;
  const add = (key: string, note: string | null) => note !== null && notes.set(key, note);
  for (const part of kindOf(visual.kind).parts) {
    const marks = plain.marks.filter((m) => m.part === part.id);
    const has = (id: string): Dial | undefined => part.dials.find((d) => d.id === id);
    for (const dial of part.dials) {
      const key = `${part.id}.${dial.id}`;
      const wanted = visual.dials[key];
      if (dial.type === "number" && typeof wanted === "number")
        add(key, numberNote(key, dial, wanted, marks));
    }
    if (!writesText(part) || textsOf(scene, part.id) > 0) continue;
    if (has("shown")?.type === "toggle" && style.value(`${part.id}.shown`) === true) {
      if (!isEmptyText(part, style, data)) add(`${part.id}.shown`, absentNote(visual, data, design, part.id));
    } else if (`${part.id}.content` in visual.dials && style.value(`${part.id}.content`) !== "none")
      add(`${part.id}.content`, absentNote(visual, data, design, part.id));
  }
  return notes;
}

/** Why a text is not drawn, told by what it takes to have it drawn. */
function absentNote(visual: Visual, data: VisualData, design: Design | undefined, part: string): string {
  const isDrawn = (options: PictureOptions) => textsOf(sceneOf(visual, data, design, options), part) > 0;
  if (isDrawn({ focus: { row: data.rows[0].key } }))
    return "Empty until a part is pointed at: several have no one number";
  const { width, height } = visual.size;
  const larger = { width: width * LARGER, height: height * LARGER };
  return isDrawn({ size: larger }) ? `None is drawn ${HERE}` : "None is drawn with these dials and values";
}
/** So much larger a picture has room for every text. */
const LARGER = 4;
