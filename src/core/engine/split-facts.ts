import type { DateBucket } from "../base/calendar";
import type { Scope } from "../formula/expr";
import { type ColumnPlace, homeOf } from "../formula/meeting";
import type { PlacedSplit, Plan } from "../plan/plan";
import type { Result } from "../plan/query";
import type { Categories } from "./category-places";

/** What answers say of the columns that they are split by, besides values. */
export interface SplitFacts {
  /** The categories of a column; null where it cannot be read. */
  categories(place: ColumnPlace, by: DateBucket | undefined): Categories | null;
  /** What dates stand for where that is coarser than the split of a table; else null. */
  coarser(table: string, split: PlacedSplit): DateBucket | null;
}

/**
 * The categories of each split's column. Nothing is lost where a column that is linked to cannot be read:
 * then the split's own tells.
 */
export const categoriesOfSplits = ({ tables }: Plan, scope: Scope, facts: SplitFacts): Categories[] =>
  (tables[0]?.splits ?? []).map(
    ({ place, by }) =>
      facts.categories(homeOf(scope, place), by) ?? facts.categories(place, by) ?? { values: [] },
  );

/** The splits of a plan's tables that are finer than the dates they split. */
export const coarseSplits = ({ tables }: Plan, facts: SplitFacts): Result["coarse"] =>
  tables.flatMap(({ table, splits }) =>
    splits.flatMap((split) => {
      const grain = facts.coarser(table, split);
      return grain && split.by ? [{ ...split.place, grain, by: split.by }] : [];
    }),
  );
