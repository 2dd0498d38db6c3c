import type { NumberFormat } from "../../base/number-format";
import { formatGap, formatNumber, inOneUnit, NO_VALUE, PERCENT_FORMAT } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import { shortApart } from "../../rows/digits";
import type { VisualRow } from "../../rows/visual-data";
import { SMALLEST, textWidth, type Weight } from "../../scene/text";
import { categoryNames, targetOf } from "./datum";
import { type ChoiceDial, choice, colour, type Dial, number, part, template } from "./dial";
import { shareText } from "./goal";
import type { SharedInput } from "./shared-parts";

const SAYS = {
  none: "nothing",
  category: "category",
  value: "value",
  share: "share",
  "category share": "category and share",
  "category value": "category and value",
  "value share": "value and share",
  "value target": "value of target",
  gap: "gap to target",
  text: "a text of your own",
} as const;
/** What a label can say. */
export type LabelSays = keyof typeof SAYS;

/** What the labels of every kind that has such labels share. */
export const LABELS = part("labels", "Labels", [colour("colour", "Colour")]);
const OWN_TEXT = template("text", "Text", "{category} {value}");
/** What only labels have that can say a text of one's own. */
const LABEL_TEXT = part("labels", "Labels", [OWN_TEXT]);

interface LabelsOptions<S extends LabelSays, Place extends string, More extends Dial> {
  /** What the labels can say, and what they say where nothing was chosen. */
  says: readonly S[];
  say: NoInfer<S>;
  /** Where they can stand, and where they do; kinds with one place leave both out. */
  places?: readonly (readonly [Place, string])[];
  place?: NoInfer<Place>;
  size?: number;
  /** Dials of this kind's labels alone. */
  more?: readonly More[];
}
type PlaceDial<Place extends string> = [Place] extends [never] ? never : ChoiceDial<"place", Place>;

/** The labels of a kind: what they say, where, how large, from which share on. */
export function labelsPart<
  const S extends LabelSays,
  const Place extends string = never,
  const More extends Dial = never,
>({ says, say, places = [], place, size = 11.5, more = [] }: LabelsOptions<S, Place, More>) {
  const content = choice(
    "content",
    "Content",
    says.map((s) => [s, SAYS[s]] as const),
    say,
  );
  const placing = place === undefined ? [] : [choice("place", "Place", places, place) as PlaceDial<Place>];
  return part("labels", "Labels", [
    content,
    ...(says.some((s) => s === "text") ? [OWN_TEXT] : []),
    ...placing,
    number("size", "Size", [9, 24, 0.5], "px", size),
    ...LABELS.dials,
    ...more,
  ]);
}
/** What a label of a row says, from the fullest wording to the shortest; `whole` is what its share is of. */
export type LabelWriter = (
  row: Pick<VisualRow, "key" | "label" | "value" | "format" | "target">,
  whole: number | null,
) => string[][];

/** Wordings of several lines, each on one. */
export const oneLine = (wordings: string[][]): string[] => wordings.map((lines) => lines.join(" "));

/** What a label says of a row that has no value. */
function withoutValue(label: string, content: LabelSays): string[][] {
  if (content === "category") return [[label]];
  return [content.startsWith("category") ? [label, NO_VALUE] : [NO_VALUE]];
}

/** Makes the writer of labels that say `content`: each wording is one or two lines. */
export function labelWriter({ style, data, frame }: SharedInput, content: LabelSays): LabelWriter {
  const ownText = style.within(LABEL_TEXT)?.template("labels.text") ?? "";
  const all = data.rows.flatMap((r) => (r.cells.length ? r.cells : [r.value]));
  const extent = Math.max(frame.width, frame.height);
  const formatsFor = (format: NumberFormat, values: readonly (number | null)[]) => [
    inOneUnit(format, values),
    ...shortApart(format, values, extent),
  ];
  // One unit for all labels of a measure; rows that are measures have each their own.
  const shared = formatsFor(data.format, all);
  return (row, whole) => {
    if (content === "none") return [];
    if (row.value === null) return withoutValue(row.label, content);
    const formats = row.format ? formatsFor(row.format, [row.value]) : shared;
    const share = whole ? row.value / whole : null;
    const value = row.value;
    const target = targetOf(data, row);
    const wordings = formats.map((f): string[] => {
      const said = formatNumber(value, f);
      switch (content) {
        case "category":
          return [row.label];
        case "share":
          return [share === null ? said : shareText(share, row.format ?? data.format)];
        case "category share":
          return [row.label, share === null ? said : shareText(share, row.format ?? data.format)];
        case "category value":
          return [row.label, said];
        case "value share":
          return [said, ...(share === null ? [] : [shareText(share, row.format ?? data.format)])];
        case "value target":
          return [target === null ? said : `${said} ${data.words.of} ${formatNumber(target, f)}`];
        case "gap":
          return [
            target === null
              ? said
              : `${value >= target ? "+" : ""}${formatGap(value - target, f, data.words.points)}`,
          ];
        case "text":
          return [
            fillTemplate(ownText, {
              ...categoryNames(data, row),
              ...(whole === null ? {} : { total: { value: whole, format: f } }),
              value: { value, format: f },
              share: { value: share, format: PERCENT_FORMAT },
            }),
          ];
        default:
          return [said];
      }
    });
    const seen = new Set<string>();
    return wordings.filter(
      (lines) => lines.some((l) => l !== "") && !seen.has(lines.join("\n")) && seen.add(lines.join("\n")),
    );
  };
}

/**
 * The largest size, from `size` down to the floor, and the fullest wording that all texts fit their room at;
 * null where even the shortest does not.
 */
export function fitAll(
  wordings: string[][],
  room: number[],
  size: number,
  weight: Weight,
): { texts: string[]; size: number } | null {
  const longest = Math.max(0, ...wordings.map((w) => w.length));
  for (const at of [size, ...[0.9, 0.8].map((k) => size * k).filter((s) => s > SMALLEST), SMALLEST]) {
    if (at < SMALLEST || at > size) continue;
    for (let k = 0; k < longest; k++) {
      const texts = wordings.map((w) => w[Math.min(k, w.length - 1)] ?? "");
      if (texts.every((t, i) => textWidth(t, at, weight) <= room[i])) return { texts, size: at };
    }
  }
  return null;
}
