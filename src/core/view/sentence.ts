import { formatNumber, type NumberFormat, PERCENT_FORMAT, PLAIN_FORMAT } from "../base/number-format";
import { own } from "../base/own";
import { kindOf } from "../kinds";
import { areShares } from "../kinds/gauge/zones";
import type { Split } from "../plan/query";
import { homeTableOfVisual } from "../project/home-table";
import type { Named } from "../project/names";
import { offeredColumns } from "../project/offered";
import { type FieldOf, isOfEach, ROLE_FIELDS, type RoleId } from "../project/roles";
import type { Measure, NumberSource, Order, Visual } from "../project/schema";
import { filterText } from "../rows/filter-text";
import type { Pictured } from "../rows/picture-key";
import { offeredSplits } from "./offered-splits";
import { hasRows } from "./spoken";

/** What of a visual a phrase changes, and with which choices. */
export type Phrase =
  | { type: "kind" }
  | { type: "measure"; field: FieldOf<"measure"> }
  | { type: "further measure"; at: number }
  | { type: "add measure" }
  | { type: "number"; field: FieldOf<"number"> }
  | { type: "first zones" }
  | { type: "zones" }
  | { type: "split"; field: FieldOf<"split"> }
  | { type: "step"; at: number }
  | { type: "pictures" }
  | { type: "order"; field: FieldOf<"order"> }
  | { type: "keep" }
  | { type: "filters" };

/** A part of the sentence that can be changed: what it says, what it is called, and what stands in it. */
export interface PhraseToken {
  phrase: Phrase;
  label: string;
  text: string;
  /** Whether it stands for something of the data, for an input, or for what is not said yet. */
  tone: "data" | "input" | "missing";
}
/** A piece of a sentence: fixed words, or a phrase that can be chosen. */
export type SentenceToken = string | PhraseToken;

/** What a sentence is said from. */
export interface Saying {
  visual: Visual;
  project: Named;
  /** The scale that is drawn where no end of it is named. */
  scale: { minimum: number; maximum: number };
  /** What is drawn and can have a picture. */
  pictured: readonly Pictured[];
}

/** The direction of an order in words: "largest first", "in its own order". */
export function directionWords(by: Order["by"], direction: Order["order"]): string {
  if (by === "split") return direction === "asc" ? "in its own order" : "in its own order, backwards";
  if (typeof by === "object" && "column" in by)
    return direction === "asc" ? "first to last" : "last to first";
  return direction === "asc" ? "smallest first" : "largest first";
}

/** An order in words: "largest first", "by seats, largest first". */
function orderText({ by, order }: Order, s: Saying): string {
  const words = directionWords(by, order);
  if (typeof by === "string") return words;
  if ("column" in by) return `by ${by.column}, ${words}`;
  return `by ${measureIn(s, by.measure)?.label.toLowerCase() ?? "a measure that is gone"}, ${words}`;
}

const measureIn = ({ project }: Pick<Saying, "project">, id: string | null) =>
  project.measures.find((m) => m.id === id);
const formatOf = (s: Pick<Saying, "visual" | "project">): NumberFormat =>
  measureIn(s, s.visual.value)?.format ?? PLAIN_FORMAT;
const named = (measure: Measure | undefined, missing: string) => ({
  text: measure ? measure.label.toLowerCase() : missing,
  tone: measure ? ("data" as const) : ("missing" as const),
});

/** A number of the sentence: an input with what it stands at, a measure, or the number itself. */
export function sourceWords(
  s: Pick<Saying, "visual" | "project">,
  source: NumberSource | null,
  missing = "something that is gone",
): Pick<PhraseToken, "text" | "tone"> {
  if (!source) return { text: missing, tone: "missing" };
  if ("number" in source) return { text: formatNumber(source.number, formatOf(s)), tone: "data" };
  if ("measure" in source) {
    const { text } = named(measureIn(s, source.measure), missing);
    return { text: text + ofWhich(s, source), tone: "data" };
  }
  const input = s.project.inputs.find((i) => i.id === source.input);
  if (!input) return { text: missing, tone: "data" };
  const now = typeof input.value === "number" ? formatNumber(input.value, input.format) : "";
  return { text: `${input.label.toLowerCase()} ${now}`.trim(), tone: "input" };
}

/** Whether each row stands against its own value of a measure, or all against one; nothing without rows. */
function ofWhich({ visual }: Pick<Saying, "visual">, source: NumberSource): string {
  if (!hasRows(visual)) return "";
  return isOfEach(visual, source) ? ", each its own" : ", all against the whole";
}

/** A phrase that says a number. */
const numberToken = (s: Saying, field: FieldOf<"number">, missing: string): PhraseToken => ({
  phrase: { type: "number", field },
  label: ROLE_FIELDS[field].word,
  ...sourceWords(s, s.visual[field], missing),
});

/** A split as its table offers it; undefined where it is not there any more. */
function offeredAs(s: Saying, split: Split) {
  const wanted = JSON.stringify(split);
  return offeredSplits(offeredColumns(s.project, homeTableOfVisual(s.visual, s.project))).find(
    (o) => JSON.stringify(o.split) === wanted,
  );
}

function splitTokens(s: Saying, field: FieldOf<"split">, word: string): SentenceToken[] {
  const split: Split | null = s.visual[field];
  const found = split && offeredAs(s, split);
  const gone = split ? `${word} ${split.column}, which is gone` : `${word} …`;
  return [
    found ? `, ${word} ` : ", ",
    {
      phrase: { type: "split", field },
      label: ROLE_FIELDS[field].word,
      text: found ? found.label : gone,
      tone: found ? "data" : "missing",
    },
  ];
}

/** The most splits below another. */
const MOST_STEPS = 6;

/** "then vessel": the splits below the split, and the place for one more. */
function stepTokens(s: Saying): SentenceToken[] {
  const { split, steps } = s.visual;
  if (!split) return [];
  const label = ROLE_FIELDS.steps.word;
  const said = steps.map((step, at): SentenceToken => {
    const found = offeredAs(s, step);
    const text = `then ${found ? found.label : `${step.column}, which is gone`}`;
    return {
      phrase: { type: "step", at },
      label: `${label} ${at + 1}`,
      text,
      tone: found ? "data" : "missing",
    };
  });
  const more: SentenceToken = {
    phrase: { type: "step", at: steps.length },
    label,
    text: "then …",
    tone: "missing",
  };
  return [...said, ...(steps.length < MOST_STEPS ? [more] : [])].flatMap((token) => [", ", token]);
}

/** "and revenue and seats": further measures, and the place for one more. */
function furtherTokens(s: Saying): SentenceToken[] {
  const { value, more } = s.visual;
  const free = s.project.measures.some((m) => m.id !== value && !more.includes(m.id));
  return [
    ...more.flatMap((id, at): SentenceToken[] => [
      " and ",
      {
        phrase: { type: "further measure", at },
        label: "Further measure",
        ...named(measureIn(s, id), "a measure that is gone"),
      },
    ]),
    ...(more.length < 5 && free
      ? [
          " ",
          {
            phrase: { type: "add measure" },
            label: "Add a measure",
            text: "and …",
            tone: "missing",
          } as const,
        ]
      : []),
  ];
}

/** How each role is said where the kind has it, in the order of the sentence. */
const SAID: Record<RoleId, (s: Saying) => SentenceToken[]> = {
  value: (s) => [
    {
      phrase: { type: "measure", field: "value" },
      label: ROLE_FIELDS.value.word,
      ...named(measureIn(s, s.visual.value), "a measure …"),
    },
  ],
  more: furtherTokens,
  second: (s) => [
    s.visual.second ? " beside " : " ",
    {
      phrase: { type: "measure", field: "second" },
      label: ROLE_FIELDS.second.word,
      ...named(measureIn(s, s.visual.second), "beside a second value …"),
    },
  ],
  comparison: (s) => [
    s.visual.comparison ? ", compared with " : ", ",
    numberToken(s, "comparison", "compared with …"),
  ],
  target: (s) => [s.visual.target ? " against " : " ", numberToken(s, "target", "against a target …")],
  range: (s) => [
    ", from ",
    numberToken(s, "minimum", formatNumber(s.scale.minimum, formatOf(s))),
    " to ",
    numberToken(s, "maximum", formatNumber(s.scale.maximum, formatOf(s))),
  ],
  end: (s) =>
    s.visual.target ? [] : [s.visual.maximum ? ", full at " : ", ", numberToken(s, "maximum", "full at …")],
  baseline: (s) => [s.visual.baseline ? ", stems from " : ", ", numberToken(s, "baseline", "stems from …")],
  zones: (s) => {
    const edges = s.visual.zones.flatMap((zone, at) => (zone.to === null ? [] : [{ to: zone.to, at }]));
    if (edges.length === 0)
      return [
        ", ",
        {
          phrase: { type: "first zones" },
          label: ROLE_FIELDS.zones.word,
          text: "with zones …",
          tone: "missing",
        },
      ];
    return [
      ", with zones at ",
      ...edges.flatMap(({ to, at }, i): SentenceToken[] => [
        i === 0 ? "" : i === edges.length - 1 ? " and " : ", ",
        {
          phrase: { type: "zones" },
          label: `Edge of zone ${at + 1}`,
          ...(typeof to === "number"
            ? { text: formatNumber(to, areShares(s.visual) ? PERCENT_FORMAT : formatOf(s)), tone: "data" }
            : sourceWords(s, to)),
        },
      ]),
    ];
  },
  split: (s) => [
    ...splitTokens(s, "split", kindOf(s.visual.kind).course ? "over" : "split by"),
    ...stepTokens(s),
  ],
  series: (s) => {
    const { split, series, seriesOrder } = s.visual;
    if (!split) return [];
    const divided = splitTokens(s, "series", "and within each by");
    if (!series) return divided;
    const byItself: Order = series.by ? { by: "split", order: "asc" } : { by: "value", order: "desc" };
    return [
      ...divided,
      ", those ",
      {
        phrase: { type: "order", field: "seriesOrder" },
        label: ROLE_FIELDS.seriesOrder.word,
        text: orderText(seriesOrder ?? byItself, s),
        tone: "data",
      },
    ];
  },
  headSize: (s) => [
    s.visual.headSize ? ", heads sized by " : ", ",
    {
      phrase: { type: "measure", field: "headSize" },
      label: ROLE_FIELDS.headSize.word,
      ...named(measureIn(s, s.visual.headSize), "heads sized by …"),
    },
  ],
  order: (s) =>
    s.visual.split
      ? [
          ", ",
          {
            phrase: { type: "order", field: "order" },
            label: ROLE_FIELDS.order.word,
            text: orderText(s.visual.order, s),
            tone: "data",
          },
        ]
      : [],
  keep: ({ visual: { split, keep } }) => {
    if (!split) return [];
    const text = keep ? `the first ${keep.first}${keep.others ? " and Other" : ""}` : "all of them";
    return [", keeping ", { phrase: { type: "keep" }, label: ROLE_FIELDS.keep.word, text, tone: "data" }];
  },
  pictures: ({ visual, pictured }) => {
    const count = pictured.filter(({ key }) => own(visual.pictures, key)).length;
    const text = count ? (kindOf(visual.kind).sayPictures?.(count) ?? "") : "with pictures …";
    return [
      ", ",
      {
        phrase: { type: "pictures" },
        label: ROLE_FIELDS.pictures.word,
        text,
        tone: count ? "data" : "missing",
      },
    ];
  },
};
/** What is said before the kind. */
const BEFORE_KIND: ReadonlySet<RoleId> = new Set(["value", "more"]);
const ROLES_SAID = Object.keys(SAID) as RoleId[];

/** How one role of a visual is said, as a text: "against passenger target 42,000". */
export const sayRole = (role: RoleId, s: Saying): string => sentenceText(SAID[role](s)).replace(/^[ ,]+/, "");

/** The sentence of a visual: plain words, and phrases that can be changed. */
export function say(s: Saying): SentenceToken[] {
  const { visual, project } = s;
  const kind = kindOf(visual.kind);
  const table = homeTableOfVisual(visual, project);
  const said = ROLES_SAID.filter((role) => kind.roles.includes(role));
  const filters = visual.filters.length ? visual.filters.map(filterText).join(", ") : "all rows";
  return [
    "Show ",
    ...said.filter((role) => BEFORE_KIND.has(role)).flatMap((role) => SAID[role](s)),
    " as ",
    { phrase: { type: "kind" }, label: "Kind", text: kind.phrase, tone: "data" },
    ...said.filter((role) => !BEFORE_KIND.has(role)).flatMap((role) => SAID[role](s)),
    ...(table
      ? [", for ", { phrase: { type: "filters" }, label: "Filter", text: filters, tone: "data" } as const]
      : []),
    ".",
  ];
}

/** The sentence as a text. */
export const sentenceText = (tokens: SentenceToken[]): string =>
  tokens
    .map((t) => (typeof t === "string" ? t : t.text))
    .join("")
    .replaceAll(" ,", ",");

/** The columns that the filters of a visual can name. */
export const filterColumns = ({ visual, project }: Pick<Saying, "visual" | "project">) =>
  offeredColumns(project, homeTableOfVisual(visual, project));

/**
 * A name for each token that stays with it while others come and go, and that no other has: what it changes,
 * or what it stands behind.
 */
export function tokenKeys(tokens: SentenceToken[]): string[] {
  let last = "";
  let words = 0;
  return tokens.map((token) => {
    if (typeof token === "string") return `${++words} after ${last}`;
    last = `${JSON.stringify(token.phrase)} ${token.label}`;
    words = 0;
    return last;
  });
}
