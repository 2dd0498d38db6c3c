import { kindOf } from "../kinds";
import type { Visual } from "../project/schema";
import { categoryKey, rowKey } from "../rows/row-key";
import { plainRow, type VisualData, type VisualRow } from "../rows/visual-data";

/** The visual at a value or a shape of data that it may meet one day. */
export interface Trial {
  id: string;
  label: string;
  data: VisualData;
}

function atValue(data: VisualData, value: number | null): VisualData {
  const rows =
    data.rows.length <= 1
      ? [{ ...(data.rows[0] ?? plainRow(rowKey({ type: "whole" }), data.valueLabel, null)), value }]
      : data.rows.map((r, i) => (i === 0 ? { ...r, value } : r));
  const share = value === null || !data.target ? null : value / data.target;
  const write = (name: string, now: number | null) => {
    const known = data.names[name];
    return known && typeof known !== "string" ? { ...known, value: now } : (known ?? "");
  };
  return {
    ...data,
    rows,
    total: value,
    names: {
      ...data.names,
      value: write("value", value),
      total: write("total", value),
      share: write("share", share),
    },
  };
}

/** Other values in the rows; what stands beside them keeps its proportion to the value. */
function withRows(data: VisualData, values: number[]): VisualData {
  const rows = values.map((value, i): VisualRow => {
    const model =
      data.rows[i % Math.max(1, data.rows.length)] ?? plainRow(rowKey({ type: "whole" }), "", null);
    const factor = model.value ? value / model.value : 1;
    const scaled = (v: number | null) => (v === null ? null : v * factor);
    return {
      ...model,
      key: categoryKey(`trial${i}`),
      label: i < data.rows.length ? model.label : `Category ${i + 1}`,
      value,
      cells: model.cells.map(scaled),
      second: scaled(model.second),
      headSize: scaled(model.headSize),
      groups: 0,
    };
  });
  const total = values.reduce((a, b) => a + b, 0);
  return { ...atValue(data, total), rows };
}

/**
 * The trials of a visual: those of the parts of a whole where it is split, those around its goal where
 * it is not.
 */
export function trialsOf(visual: Visual, data: VisualData): Trial[] {
  if (data.problem !== null) return [];
  const empty: Trial = { id: "empty", label: "No rows", data: { ...atValue(data, null), rows: [] } };
  const kind = kindOf(visual.kind);
  if (visual.split && kind.roles.includes("split") && !kind.course) {
    const now = data.rows.map((r) => r.value ?? 0);
    const largest = Math.max(1, ...now);
    return [
      {
        id: "zero",
        label: "All zero",
        data: withRows(
          data,
          now.map(() => 0),
        ),
      },
      { id: "one", label: "One category", data: withRows(data, [largest]) },
      {
        id: "dominant",
        label: "One far ahead",
        data: withRows(
          data,
          now.map((_, i) => (i === 0 ? largest * 20 : largest / 5)),
        ),
      },
      {
        id: "negative",
        label: "Some below zero",
        data: withRows(
          data,
          now.map((v, i) => (i === 1 ? -Math.abs(v) : v)),
        ),
      },
      {
        id: "crowd",
        label: "40 categories",
        data: withRows(
          data,
          Array.from({ length: 40 }, (_, i) => largest / (i + 1)),
        ),
      },
      empty,
    ];
  }
  const goal = data.target ?? data.maximum ?? (data.format.style === "percent" ? 1 : null);
  const zero: Trial = { id: "zero", label: "Zero", data: atValue(data, 0) };
  const below = (size: number): Trial => ({
    id: "negative",
    label: "Below zero",
    data: atValue(data, -Math.abs(size) * 0.2),
  });
  if (goal === null) {
    // Nobody named a goal: what may come is a value of another size.
    const now = data.total ?? 1;
    return [
      zero,
      { id: "tenth", label: "A tenth of it", data: atValue(data, now / 10) },
      { id: "tenfold", label: "Ten times as much", data: atValue(data, now * 10) },
      below(now),
      empty,
    ];
  }
  return [
    zero,
    { id: "under", label: "Just under the target", data: atValue(data, goal * 0.995) },
    { id: "goal", label: "On target", data: atValue(data, goal) },
    { id: "past", label: "112 % of the target", data: atValue(data, goal * 1.12) },
    below(goal),
    empty,
  ];
}
