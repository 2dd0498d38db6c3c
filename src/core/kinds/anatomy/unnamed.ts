import type { RowKey } from "../../rows/row-key";
import type { Mark, Text } from "../../scene/marks";
import type { SharedInput } from "./shared-parts";
import type { OpenStyle } from "./style";

/** Ids of texts end with the key of what they name; no more colons than this stand before it. */
const MOST_COLONS = 5;

/** The texts of a picture by what their ids end with. */
function textsByKey(marks: readonly Mark[]): Map<string, Text[]> {
  const found = new Map<string, Text[]>();
  for (const mark of marks) {
    if (mark.type !== "text") continue;
    for (
      let at = mark.id.indexOf(":"), n = 0;
      at >= 0 && n < MOST_COLONS;
      at = mark.id.indexOf(":", at + 1), n++
    ) {
      const key = mark.id.slice(at + 1);
      const texts = found.get(key);
      if (texts) texts.push(mark);
      else found.set(key, [mark]);
    }
  }
  return found;
}

/** Whether a text begins with a name, or is a name that was cut or goes on in the next line. */
function isName(text: string, label: string): boolean {
  const stem = text.split("…")[0].trim();
  return text.startsWith(label) || (stem !== "" && label.startsWith(stem));
}

/** Whether names of rows, and those of series, were turned off: then none is missing. */
function namesOff(style: OpenStyle): { rows: boolean; series: boolean } {
  const stands = (dial: string) => (style.has(dial) ? style.value(dial) : undefined);
  const noLegend = stands("legend.place") === "none";
  const isSaid = String(stands("labels.content") ?? "").includes("category");
  const axis = stands("axis.names");
  // Rings say where their names stand with a dial of its own; bands name them on the axis.
  const rows =
    axis !== undefined ? axis === false : stands("labels.place") === "none" || (noLegend && !isSaid);
  return { rows, series: noLegend };
}

/**
 * How many of the categories and series that a picture draws it does not name. Stretches of time count as
 * named: an axis tells them by their neighbours.
 */
export function unnamedIn({ data, style, surface }: SharedInput, marks: readonly Mark[]): number {
  const { rows, series, splitInTemplates, names } = data;
  const all = splitInTemplates === null ? "" : names[splitInTemplates];
  const isTime = typeof all === "object" && "from" in all;
  const isSplit = rows.length > 1 || data.splitLabel !== null;
  const drawn = new Set<string>();
  for (const { shows } of surface.seen(marks)) {
    if (!shows) continue;
    drawn.add(shows.row);
    if (shows.series) drawn.add(shows.series);
  }
  const off = namesOff(style as unknown as OpenStyle);
  const wanted = [...(isSplit && !isTime && !off.rows ? rows : []), ...(off.series ? [] : series)].filter(
    (one) => drawn.has(one.key) && one.label,
  );
  if (wanted.length === 0) return 0;
  const texts = textsByKey(marks);
  const foot = marks.flatMap((m) => (m.type === "text" && m.id.startsWith("note") ? m.text : [])).join(" ");
  const isNamed = ({ key, label }: { key: RowKey; label: string }) =>
    foot.includes(label) || texts.get(key)?.some((t) => isName(t.text, label));
  return wanted.filter((one) => !isNamed(one)).length;
}
