import type { NumberFormat } from "../../base/number-format";
import { shortFormats } from "../../base/number-format";
import { fillTemplate, type TemplateValue } from "../../base/template";
import type { Box } from "../../scene/box";
import type { Mark } from "../../scene/marks";
import { fitText, SMALLEST, textWidth } from "../../scene/text";
import { number, part, template, toggle } from "./dial";
import type { SceneInput } from "./kind";
import type { SharedInput, SharedPart } from "./shared-parts";
import { textMark } from "./text-mark";

/** The part of a reading, with its first text, caption and size. */
export const readingPart = (text: string, caption: string, size: number) =>
  part("reading", "Reading", [
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

/**
 * A reading within a circle: its main line and a caption under it, at the largest size that fits. `lift`
 * moves it up (-1) or down (1) into a half circle. What does not fit `within` is left out.
 */
export function roundReading(
  input: ReadingInput,
  at: { x: number; y: number; room: number; within: Box },
  names: Record<string, TemplateValue>[],
  caption: string,
  lift = 0,
  tone?: string,
): Mark[] {
  const { style, theme } = input;
  if (!style.toggle("reading.shown")) return [];
  const wanted = Math.min(style.number("reading.size"), at.room * (lift === 0 ? 0.6 : 0.42));
  const withCaption = caption !== "" && at.room > 34;
  // The circle is narrowest at the line's far edge from its centre.
  const reach = wanted * (lift === 0 ? (withCaption ? 0.9 : 0.42) : withCaption ? 1.6 : 1);
  const { within } = at;
  const side = Math.min(at.x - within.x, within.x + within.width - at.x);
  const width = 2 * Math.min(side, Math.sqrt(Math.max(0, at.room ** 2 - reach ** 2)) * 0.94);
  if (width < 12) return [];
  const text = style.template("reading.text");
  const texts = names.map((n) => fillTemplate(text, n));
  const fitted = fitText(texts, width, Math.max(SMALLEST, wanted), 600);
  // A number is never cut: the smallest rings have it whole, or none.
  const main = texts.includes(fitted.text)
    ? fitted
    : {
        text:
          textWidth(texts[texts.length - 1], SMALLEST, 600) <= 2 * Math.min(at.room, side)
            ? texts[texts.length - 1]
            : "",
        size: SMALLEST,
      };
  const middle = at.y + lift * main.size * (withCaption ? 0.95 : 0.55);
  const marks: Mark[] = [
    textMark("reading", "reading", {
      x: at.x,
      y: middle - (withCaption ? main.size * 0.22 : 0),
      text: main.text,
      size: main.size,
      weight: 600,
      fill: theme.ink,
      align: "middle",
    }),
  ];
  if (withCaption) {
    const size = Math.max(SMALLEST, Math.min(13, main.size * 0.42));
    const small = fitText([caption], width * 0.9, size, 400);
    marks.push(
      textMark("caption", "reading", {
        x: at.x,
        y: middle + Math.max(main.size * 0.62, main.size * 0.2 + size * 0.75),
        text: small.text,
        size: small.size,
        weight: 400,
        fill: tone ?? theme.muted,
        align: "middle",
      }),
    );
  }
  const [top, bottom] = [within.y, within.y + within.height];
  return marks.filter(
    (m) =>
      m.type === "text" && m.text !== "" && m.y - m.size / 2 >= top - 1 && m.y + m.size / 2 <= bottom + 1,
  );
}
