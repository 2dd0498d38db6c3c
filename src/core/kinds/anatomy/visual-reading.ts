import type { NumberFormat } from "../../base/number-format";
import { shortFormats } from "../../base/number-format";
import { fillTemplate, type TemplateValue } from "../../base/template";
import type { VisualRow } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { fitText, SMALLEST, textWidth } from "../../scene/text";
import { number, part, template, toggle } from "./dial";
import type { SceneInput } from "./kind";
import { pictureMark } from "./pictures";
import type { SharedInput, SharedPart } from "./shared-parts";
import { textMark } from "./text-mark";

/** The part of a reading, with its first text, caption and size. */
export const readingPart = (text: string, caption: string, size: number) =>
  part("reading", "Number and caption", [
    toggle("shown", "Shown", true),
    template("text", "Text", text),
    template("caption", "Caption", caption),
    number("size", "Size", [9, 120, 1], "px", size),
  ]);

type ReadingInput = SceneInput<ReturnType<typeof readingPart> | SharedPart>;

/** Names with a value in each of its formats, the fullest first: what a reading is written from. */
export function namesFor(
  input: SharedInput,
  values: Record<string, { value: number | null; format: NumberFormat }>,
): Record<string, TemplateValue>[] {
  const main = Object.values(values)[0];
  const forms = [null, ...shortFormats(main.format)];
  return forms.map((form) => ({
    ...input.data.names,
    ...Object.fromEntries(
      Object.entries(values).map(([name, v]) => [
        name,
        form && v.format.style === main.format.style ? { value: v.value, format: form } : v,
      ]),
    ),
  }));
}

/** Where a reading stands in a circle: its middle, the free radius, and the box that it does not leave. */
interface RoundPlace {
  x: number;
  y: number;
  room: number;
  within: Box;
  /** Up (-1) or down (1) into a half circle. */
  lift?: -1 | 0 | 1;
}

/** How the sentence says that pictures stand with the reading, in the middle. */
export const saysCentre = (count: number): string =>
  count === 1 ? "with a picture in the centre" : `with ${count} pictures in the centre`;

/**
 * What a round reading says: its names in each wording, and what stands under it, in a tone of its own. The
 * row that it is about has its picture over it.
 */
interface RoundWords {
  row?: VisualRow;
  names: Record<string, TemplateValue>[];
  /** The template, where it is not the one that the dial says. */
  text?: string;
  /** From the fullest to the shortest. */
  captions: string[];
  tone?: string;
}

/** Captions of several sayings, of which the last goes first where they do not all fit. */
export const captionsOf = (sayings: string[]): string[] => {
  const said = sayings.filter(Boolean);
  return said.map((_, i) => said.slice(0, said.length - i).join(" · "));
};

/**
 * The text of a round reading and its size: a number is never cut, so that the smallest rings have it whole,
 * or none.
 */
function roundText(texts: string[], width: number, most: number, size: number) {
  const fitted = fitText(texts, width, Math.max(SMALLEST, size), 600);
  if (texts.includes(fitted.text)) return fitted;
  const shortest = texts[texts.length - 1];
  return { text: textWidth(shortest, SMALLEST, 600) <= most ? shortest : "", size: SMALLEST };
}

/** How far from its middle a round reading reaches, as a share of its size: the circle is narrowest there. */
const REACH = { lifted: { captioned: 1.6, alone: 1 }, level: { captioned: 0.9, alone: 0.42 } };

/** A picture takes this share of the free radius, and leaves the text so much of it. */
const PICTURE = { share: 0.5, text: 0.42, least: 34 };

/** The picture over a round reading, or null where there is none, or no room for it. */
function centrePicture(input: ReadingInput, { x, y, room, lift = 0 }: RoundPlace, row?: VisualRow) {
  if (!row || room < PICTURE.least || lift !== 0) return null;
  const size = room * PICTURE.share;
  const place = { id: "picture", part: "reading", x, y: y - room * 0.36, size, ink: input.theme.ink };
  return pictureMark(input, row, place);
}

/**
 * A reading within a circle: its main line and a caption under it, at the largest size that fits. What does
 * not fit is left out.
 */
export function roundReading(input: ReadingInput, place: RoundPlace, said: RoundWords): Mark[] {
  const picture = centrePicture(input, place, said.row);
  if (!picture) return readingLines(input, place, said, READING_SHARE[place.lift ? "lifted" : "level"]);
  const under = { ...place, y: place.y + place.room * 0.26 };
  return [picture, ...readingLines(input, under, said, PICTURE.text)];
}
const READING_SHARE = { lifted: 0.42, level: 0.6 };

/** The lines of a round reading; `most` is the share of the free radius that its letters are high. */
function readingLines(input: ReadingInput, at: RoundPlace, said: RoundWords, most: number): Mark[] {
  const { style, theme } = input;
  const { within, room, lift = 0 } = at;
  if (!style.toggle("reading.shown")) return [];
  const wanted = Math.min(style.number("reading.size"), room * most);
  const captions = said.captions.filter(Boolean);
  const isCaptioned = captions.length > 0 && room > 34;
  const reach = wanted * REACH[lift === 0 ? "level" : "lifted"][isCaptioned ? "captioned" : "alone"];
  const side = Math.min(at.x - within.x, within.x + within.width - at.x);
  const width = 2 * Math.min(side, Math.sqrt(Math.max(0, room ** 2 - reach ** 2)) * 0.94);
  if (width < 12) return [];
  const texts = said.names.map((n) => fillTemplate(said.text ?? style.template("reading.text"), n));
  const main = roundText(texts, width, 2 * Math.min(room, side), wanted);
  const middle = at.y + lift * main.size * (isCaptioned ? 0.95 : 0.55);
  const place = { x: at.x, align: "middle" as const };
  const y = middle - (isCaptioned ? main.size * 0.22 : 0);
  const lines = [textMark("reading", "reading", { ...place, y, ...main, weight: 600, fill: theme.ink })];
  if (isCaptioned) {
    const size = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
    const small = fitText(captions, width * 0.9, size, 400);
    const under = middle + Math.max(main.size * 0.62, main.size * 0.2 + size * 0.75);
    const fill = said.tone ?? theme.muted;
    lines.push(textMark("caption", "reading", { ...place, y: under, ...small, weight: 400, fill }));
  }
  const [top, bottom] = [within.y - 1, within.y + within.height + 1];
  return lines.filter((m) => m.text !== "" && m.y - m.size / 2 >= top && m.y + m.size / 2 <= bottom);
}
