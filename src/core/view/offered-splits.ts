import { DATE_BUCKETS } from "../base/calendar";
import type { Split } from "../plan/query";
import type { OfferedColumn } from "../project/offered";

/** A split that a table offers, as it is called, and through which link it comes ("" for the table's own). */
export interface OfferedSplit {
  split: Split;
  label: string;
  group: string;
}

/** The splits that columns offer: dates by their buckets. */
export function offeredSplits(columns: readonly OfferedColumn[]): OfferedSplit[] {
  return columns.flatMap((c): OfferedSplit[] => {
    const group = c.own ? "" : `Through a link: ${c.table}`;
    return c.type === "date" || c.type === "timestamp"
      ? DATE_BUCKETS.map((by) => ({ split: { column: c.name, by }, label: `${c.name} by ${by}`, group }))
      : [{ split: { column: c.name }, label: c.name, group }];
  });
}
