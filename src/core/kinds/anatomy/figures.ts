import { crossesLine, fixedDecimals, inOneUnit, type NumberFormat } from "../../base/number-format";
import { withDigits } from "../../rows/digits";
import type { VisualData } from "../../rows/visual-data";
import type { SharedPart } from "./shared-parts";
import type { Style } from "./style";

const known = new WeakMap<NumberFormat, Map<string, NumberFormat>>();

/**
 * A format with other units or decimals: the same object each time, so that what it has
 * written is remembered.
 */
function changed(format: NumberFormat, units: string, decimals: string): NumberFormat {
  const key = `${units} ${decimals}`;
  const made = known.get(format) ?? new Map<string, NumberFormat>();
  known.set(format, made);
  let found = made.get(key);
  if (!found) {
    found = {
      ...format,
      ...(units === "measure" ? {} : { units: units as NumberFormat["units"] }),
      ...(decimals === "measure" ? {} : { decimals: decimals === "automatic" ? decimals : Number(decimals) }),
      holds: {
        units: units !== "measure" && units !== "automatic",
        decimals: decimals !== "measure" && decimals !== "automatic",
      },
    };
    made.set(key, found);
  }
  return found;
}

/** So many decimals more than its own are given to a format that would carry a number over a line. */
const MORE_DECIMALS = 6;

/** The format with as few more decimals as it takes that no value reads as on another side of a line. */
export function keepingSides(
  format: NumberFormat,
  values: readonly number[],
  lines: readonly number[],
): NumberFormat {
  const isCrossed = (tried: NumberFormat) =>
    values.some((value) => lines.some((line) => crossesLine(value, line, tried)));
  if (lines.length === 0 || format.style === "duration") return format;
  for (let more = 0; more <= MORE_DECIMALS; more++) {
    const tried = more === 0 ? format : changed(format, "measure", String(fixedDecimals(format) + more));
    if (!isCrossed(tried)) return tried;
  }
  return format;
}

/** The numbers that a value can lie on either side of: its target, and the edges of zones. */
export const linesOf = ({ target, zones }: VisualData): number[] =>
  [target, ...zones.map((z) => z.to)].filter((line) => line !== null);

const numbers = (values: readonly (number | null)[]): number[] => values.filter((v) => v !== null);

/** All values of the visual's own measure. */
function valuesOf({ rows, series, total, target }: VisualData): (number | null)[] {
  const own = rows.filter((r) => !r.format);
  const isDivided = !series.some((s) => s.format);
  return [...own.flatMap((r) => (isDivided ? [r.value, ...r.cells] : [r.value])), total, target];
}

/**
 * A visual's data with its numbers in the units and decimals that the visual asks for; the
 * measure's own otherwise.
 *
 * @param extent How many pixels its largest value is drawn with.
 */
export function withFigures(data: VisualData, style: Style<SharedPart>, extent: number): VisualData {
  const [units, decimals] = [style.choice("figures.units"), style.choice("figures.decimals")];
  const isOwn = units === "measure" && decimals === "measure";
  const lines = linesOf(data);
  const measures = [data, data.second, data.headSize, ...data.rows];
  const isBySize = measures.some((m) => m?.format?.units === "automatic");
  if (isOwn && lines.length === 0 && !isBySize) return data;
  const wanted = (f: NumberFormat, values: readonly (number | null)[]) =>
    isOwn ? f : withDigits(changed(f, units, decimals), values, extent);
  // Of one measure, all numbers are in one unit; and none is rounded over a goal or the edge of a zone.
  const values = valuesOf(data);
  const own = keepingSides(
    inOneUnit(wanted(data.format, data.atRest ? [...data.atRest.values, data.atRest.total] : values), values),
    numbers([...data.rows.flatMap((r) => (r.format ? [] : r.value)), data.total]),
    lines,
  );
  const format = (f: NumberFormat) => (f === data.format ? own : wanted(f, values));
  const other = <M extends { format: NumberFormat }>(m: M | null, of: (number | null)[]): M | null =>
    m && {
      ...m,
      format: m.format === data.format ? own : inOneUnit(wanted(m.format, of), of),
    };
  const names = { ...data.names };
  for (const name of ["value", "total", "target"]) {
    const now = names[name];
    if (now && typeof now === "object" && "value" in now)
      names[name] = { ...now, format: format(now.format) };
  }
  return {
    ...data,
    format: format(data.format),
    names,
    second: other(
      data.second,
      data.rows.map((r) => r.second),
    ),
    headSize: other(
      data.headSize,
      data.rows.map((r) => r.headSize),
    ),
    rows: data.rows.map((r) =>
      r.format
        ? { ...r, format: inOneUnit(wanted(r.format, [r.value, ...r.cells]), [r.value, ...r.cells]) }
        : r,
    ),
  };
}
