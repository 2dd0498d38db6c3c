import type { DateBucket } from "../../base/calendar";
import { sameName } from "../../base/names";
import type { Value } from "../../base/value";
import { ColumnBuilder, type ColumnType } from "../../data/column";
import type { ColumnPlace } from "../../formula/meeting";
import type { PlacedSplit } from "../../plan/plan";
import { NO_MATCH } from "../grouper";
import type { SourceColumn } from "../source-column";

/** Whether two places are the same column. */
export const isSamePlace = (a: ColumnPlace, b: ColumnPlace): boolean =>
  sameName(a.table, b.table) && sameName(a.column, b.column);

/** Whether two keys tell the same apart. */
export const isSameKey = (a: PlacedSplit, b: PlacedSplit): boolean =>
  isSamePlace(a.place, b.place) && a.by === b.by;

/** Stretches of time of which each lies within one of the next. */
const NESTED: (DateBucket | undefined)[] = ["day", "month", "quarter", "year"];

/** Whether keys by `key` tell stretches by `asked` apart; undefined are the dates themselves. */
export function tells(key: DateBucket | undefined, asked: DateBucket | undefined): boolean {
  if (key === undefined || key === asked) return true;
  const [fine, coarse] = [NESTED.indexOf(key), NESTED.indexOf(asked)];
  return fine >= 0 && fine < coarse;
}

/** Keys as a column; those without a match stand as null that no row belongs to. */
export function keyColumn(keys: readonly Value[], type: ColumnType): SourceColumn {
  const builder = new ColumnBuilder(type, Math.max(1, keys.length));
  for (const key of keys) builder.add(key === NO_MATCH ? null : key);
  const rows = keys.includes(NO_MATCH) ? Int32Array.from(keys, (key) => (key === NO_MATCH ? -1 : 0)) : null;
  return { data: builder.finish(), rows };
}
