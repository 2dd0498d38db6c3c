import type { NumberFormat } from "../../base/number-format";
import type { VisualData } from "../../rows/visual-data";
import type { SharedPart } from "./shared-parts";
import type { Style } from "./style";

const known = new WeakMap<NumberFormat, Map<string, NumberFormat>>();

/**
 * A format with other units or decimals: the same object each time, so that what it has written is
 * remembered.
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
      ...(decimals === "measure" ? {} : { decimals: Number(decimals) }),
    };
    made.set(key, found);
  }
  return found;
}

/**
 * A visual's data with its numbers in the units and decimals that the visual asks for; the measure's own
 * otherwise.
 */
export function withFigures(data: VisualData, style: Style<SharedPart>): VisualData {
  const [units, decimals] = [style.choice("figures.units"), style.choice("figures.decimals")];
  if (units === "measure" && decimals === "measure") return data;
  const format = (f: NumberFormat) => changed(f, units, decimals);
  const names = { ...data.names };
  for (const name of ["value", "total", "target"]) {
    const now = names[name];
    if (now && typeof now !== "string") names[name] = { ...now, format: format(now.format) };
  }
  return {
    ...data,
    format: format(data.format),
    names,
    second: data.second && { ...data.second, format: format(data.second.format) },
    rows: data.rows.map((r) => (r.format ? { ...r, format: format(r.format) } : r)),
  };
}
