import { rowKey } from "../rows/row-key";
import type { VisualData } from "../rows/visual-data";
import type { ShareOf } from "../scene/part-of";

type Told = Pick<VisualData, "rows" | "series" | "total" | "addsUp" | "baseline">;

const OTHER = rowKey({ type: "other" });

const ratio = (part: number | null | undefined, whole: number | null): number | null => {
  if (whole === null) return null;
  // Nothing of nothing is all there is to show.
  if (whole === 0) return 0;
  const share = (part ?? 0) / whole;
  // A sum of doubles can pass its whole by their last digits.
  return Math.abs(share - Math.round(share)) < 1e-9 ? Math.round(share) : share;
};

/**
 * What share of each shape of a visual a part of its rows has. `part` is the same visual over these rows, with
 * all of its categories. Null where parts cannot be told: of measures that do not add up, of lengths that do
 * not begin at zero, and of series that are put together.
 */
export function partShares(whole: Told, part: Told): ShareOf | null {
  if (!whole.addsUp || (whole.baseline !== null && whole.baseline !== 0)) return null;
  const known = new Set(whole.series.map((s) => s.key));
  if (known.has(OTHER) || part.series.some((s) => !known.has(s.key))) return null;
  const rows = new Map(part.rows.map((r) => [r.key, r]));
  const own = whole.rows.filter((r) => r.key !== OTHER);
  const sum = (of: (row: Told["rows"][number]) => number | null) =>
    own.reduce((total, { key }) => {
      const row = rows.get(key);
      return total + (row ? (of(row) ?? 0) : 0);
    }, 0);
  const all = part.rows.reduce((total, r) => total + (r.value ?? 0), 0);
  const at = (series: string | undefined) => whole.series.findIndex((s) => s.key === series);
  const partAt = (series: string | undefined) => part.series.findIndex((s) => s.key === series);
  return (key, series) => {
    const row = whole.rows.find((r) => r.key === key);
    if (series === "outer" || series === "inner") return null;
    if (!row) return null;
    if (series !== undefined) {
      const [i, k] = [at(series), partAt(series)];
      if (i < 0) return null;
      const cell = (r: Told["rows"][number] | undefined) => (k < 0 ? 0 : (r?.cells[k] ?? 0));
      const others = part.rows.reduce((total, r) => total + cell(r), 0) - sum(cell);
      return ratio(key === OTHER ? others : cell(rows.get(key)), row.cells[i]);
    }
    return ratio(key === OTHER ? all - sum((r) => r.value) : rows.get(key)?.value, row.value);
  };
}
