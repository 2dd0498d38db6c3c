import { formatGap, formatNumber } from "../../base/number-format";
import { fillTemplate } from "../../base/template";
import type { DrawnZone, VisualData } from "../../rows/visual-data";
import type { Box } from "../../scene/box";
import { mix } from "../../scene/colour";
import type { Datum, Mark, Scene } from "../../scene/marks";
import { LINE_HEIGHT, SMALLEST, textWidth } from "../../scene/text";
import { arcExtent } from "../anatomy/angles";
import { clearOf } from "../anatomy/clear-of";
import { Colours, ruleOf } from "../anatomy/colours";
import { ownTooltip } from "../anatomy/datum";
import { drawing } from "../anatomy/drawing";
import { emptyScene, layFrame } from "../anatomy/frame";
import type { SceneInput } from "../anatomy/kind";
import { type Scale, shareOf } from "../anatomy/scale";
import { titleOf } from "../anatomy/titles";
import { arcMarks, tipMark } from "./arc";
import { type Face, layFace, READING_SHARE, type ReadingSize, sweepOf } from "./face";
import { type GaugeSaid, readingMarks } from "./gauge-reading";
import { gaugeScale } from "./gauge-scale";
import { gaugeHandles } from "./handles";
import { needleMarks, targetMarks } from "./needle";
import type { GaugePart } from "./parts";
import { plateMarks } from "./plate";
import { scaleMarks } from "./scale-marks";
import { edgesAsValues, type Stretch, stretches, zoneColour, zoneOf } from "./zones";

type Input = SceneInput<GaugePart>;

interface Laid {
  marks: Mark[];
  plate: Mark[];
  scale: Scale;
  /** The share of the scale that the value covers; below 0 and above 1 past its ends. */
  share: number;
  zones: Stretch[];
  /** The zone that the value falls in. */
  zone: DrawnZone | null;
  face: Face;
  /** Where the body begins, under the heading. */
  top: number;
  said: GaugeSaid;
  /** Whether the picture is large enough for the words of its zones. */
  isWorded: boolean;
}

/** Where the value lies beyond the scale, in words. */
function beyondScale(share: number, { pastEnd, belowStart }: VisualData["words"]): string {
  if (share > 1) return pastEnd;
  return share < 0 ? belowStart : "";
}

/** The reading as it will stand under the hub. */
function readingSize({ style, data }: Input, size: number, line: string): ReadingSize {
  const half = textWidth(fillTemplate(style.template("reading.text"), data.names), size, 600) / 2;
  if (!style.toggle("reading.word") || !line) return { size, half, lineHalf: 0, under: 0 };
  const small = Math.max(SMALLEST, size * 0.5);
  return { size, half, lineHalf: textWidth(line, small, 500) / 2, under: small * LINE_HEIGHT };
}

/** Whether a picture is large enough for the words of its zones. */
const hasWords = ({ style }: Input, body: Box, zones: Stretch[]): boolean =>
  style.toggle("zones.words") && zones.some((z) => z.word) && body.height > WORDS_FROM;
const WORDS_FROM = 150;

/** The face within its body: room for the target's mark and for the words of the zones is left around it. */
function faceIn(input: Input, body: Box, zones: Stretch[], line: string): Face {
  const { data, style } = input;
  const isWorded = hasWords(input, body, zones);
  const isTargeted = data.target !== null && style.toggle("target.shown");
  const wanted = Math.max(2, isTargeted ? style.number("target.size") + 4 : 0, isWorded ? 18 : 0);
  const margin = Math.min(body.height * 0.14, wanted);
  const widest = Math.max(...zones.map((z) => textWidth(z.word, 11, 500)));
  const side = isWorded ? Math.min(body.width * 0.14, 14 + widest) : margin;
  // What stands around an arc that goes down would reach into the line at the foot.
  const { start, sweep } = sweepOf(style);
  const below = input.countsNames && arcExtent(start, sweep).bottom > 0.5 ? margin : 0;
  const narrowed = {
    ...body,
    x: body.x + side - margin,
    width: body.width - 2 * (side - margin),
    height: body.height - below,
  };
  const at = (size: number) => layFace(input, narrowed, margin, readingSize(input, size, line));
  if (!style.toggle("reading.shown")) return at(0);
  // A reading is no larger than its share of the radius, and the less room it takes, the larger that is.
  let high = Math.max(SMALLEST, Math.min(style.number("reading.size"), body.height * 0.22));
  let low = SMALLEST;
  if (high <= at(high).r * READING_SHARE) return at(high);
  for (let i = 0; i < 5; i++) {
    const middle = (low + high) / 2;
    if (middle <= at(middle).r * READING_SHARE) low = middle;
    else high = middle;
  }
  return at(low);
}

function lay(input: Input): Laid {
  const { data, style } = input;
  const value = data.total ?? 0;
  const { marks, body: whole } = layFrame(input);
  const { marks: plate, body } = plateMarks(input, whole);
  const scale = gaugeScale(data, style.choice("arc.past"), style.choice("zones.edges") === "share");
  const share = shareOf(value, scale);
  const edges = style.choice("zones.edges") === "value" ? data.zones : edgesAsValues(data.zones, scale);
  const zones = stretches(edges, scale);
  const zone = zoneOf(edges, value);
  // A colour that a rule gives has the rule's word.
  const rule = ruleOf(input, data.rows[0]);
  const said = { value, word: rule?.word || (zone?.word ?? ""), past: beyondScale(share, data.words) };
  const face = faceIn(input, body, zones, said.past || said.word);
  const isWorded = hasWords(input, body, zones);
  return { marks, plate, scale, share, zones, zone, face, top: body.y, said, isWorded };
}

/** What the pointer finds on a gauge. */
function datumOf(input: Input, { zone, said: { value } }: Laid): Datum {
  const { data, style } = input;
  const write = (n: number) => formatNumber(n, data.format);
  const own = style.template("tooltip.text");
  const named = { key: data.rows[0].key, title: data.valueLabel };
  if (own) {
    const text = ownTooltip(input, own, { ...data.rows[0], label: data.valueLabel, value });
    return { ...named, lines: [{ label: text, value: "" }] };
  }
  const { target } = data;
  const against =
    target === null
      ? []
      : [
          { label: data.words.target, value: write(target) },
          { label: data.words.gap, value: formatGap(value - target, data.format, data.words.points) },
        ];
  const within = zone?.word ? [{ label: data.words.zone, value: zone.word }] : [];
  return { ...named, lines: [{ label: data.words.value, value: write(value) }, ...against, ...within] };
}

/** The colour of progress: of the value's zone, unless a rule or a colour of its own says another. */
function toneOf(input: Input, zone: DrawnZone | null): string {
  const { style, theme, data } = input;
  const isOwn = style.choice("colours.by") === "rule" || style.colour("colours.one", "") !== "";
  return zone && !isOwn
    ? mix(zoneColour(zone, theme), theme.ink, zone.color ? 0 : 0.25)
    : new Colours(input).of(data.rows[0], 0);
}

function draw(input: Input, laid: Laid): Mark[] {
  const { face, scale, share, zones, zone, said } = laid;
  const datum = datumOf(input, laid);
  const readings = readingMarks(input, face, said, share, laid.top);
  const arcs = arcMarks(input, face, { zones, share, tone: toneOf(input, zone), datum });
  const targets = targetMarks(input, face, scale, datum);
  const isPast = share > 1 && input.style.choice("arc.past") !== "lap";
  return [
    ...laid.marks,
    ...arcs,
    ...clearOf(scaleMarks(input, face, scale, zones), [...arcs, ...readings, ...targets]),
    ...targets,
    ...needleMarks(input, face, share, datum),
    ...(isPast ? [tipMark(input, face, datum)] : []),
    ...readings,
    ...laid.plate,
  ];
}

function say(input: Input, { scale, said, zone }: Laid): string {
  const { data } = input;
  const write = (n: number) => formatNumber(n, data.format);
  const parts = [
    `${titleOf(input)}: gauge of ${data.valueLabel}`,
    `${write(said.value)} on a scale from ${write(scale.minimum)} to ${write(scale.maximum)}`,
    data.target === null ? "" : `target ${write(data.target)}`,
    zone?.word ? `in the zone ${zone.word}` : "",
    said.past,
  ];
  return `${parts.filter(Boolean).join(", ")}.`;
}

/** How many zones that are drawn have a word and no room for it, where a picture is large enough for words. */
function wordless({ data }: Input, { isWorded }: Laid, marks: Mark[]): number {
  if (!isWorded) return 0;
  const drawn = new Set(marks.map((m) => m.id.split("/")[0]));
  return data.zones.filter(({ at, word }) => word && drawn.has(`zone:${at}`) && !drawn.has(`word:${at}`))
    .length;
}

/** The scene of a value that is none. */
function blank(input: Input): Scene | null {
  const { data, style } = input;
  if (data.problem !== null) return emptyScene(input, data.problem);
  return data.total === null ? emptyScene(input, style.template("frame.empty")) : null;
}

/** An arc with zones, a needle at the value, a mark at the target, and the reading. */
export const gaugeScene = drawing<Input, Laid>({
  blank,
  nameless: wordless,
  lay,
  draw,
  handles: (input, { face, scale }) => {
    const isValues = input.style.choice("zones.edges") === "value";
    return gaugeHandles(input, face, scale, isValues ? input.data.zones : []);
  },
  say,
});
