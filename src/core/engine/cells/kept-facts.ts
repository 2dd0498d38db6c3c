import type { DateBucket } from "../../base/calendar";
import type { Scope } from "../../formula/expr";
import { type ColumnPlace, homeOf } from "../../formula/meeting";
import type { PlacedSplit, Plan } from "../../plan/plan";
import type { Categories } from "../category-places";
import type { SplitFacts } from "../split-facts";

/** What answers say of splits, kept as plain data so that no rows are needed for it. */
export class KeptFacts implements SplitFacts {
  constructor(
    readonly kept: { categories: Map<string, Categories | null>; coarser: Map<string, DateBucket | null> } = {
      categories: new Map(),
      coarser: new Map(),
    },
  ) {}
  static nameOf = ({ table, column }: ColumnPlace, by: DateBucket | undefined, of = ""): string =>
    JSON.stringify([of, table, column, by ?? null]).toLowerCase();

  categories(place: ColumnPlace, by: DateBucket | undefined): Categories | null {
    return this.kept.categories.get(KeptFacts.nameOf(place, by)) ?? null;
  }
  coarser(table: string, { place, by }: PlacedSplit): DateBucket | null {
    return this.kept.coarser.get(KeptFacts.nameOf(place, by, table)) ?? null;
  }
  /** Keeps what answers of a plan will say. */
  keep({ tables }: Plan, scope: Scope, facts: SplitFacts): void {
    for (const { table, splits } of tables)
      for (const split of splits) {
        const { place, by } = split;
        this.kept.coarser.set(KeptFacts.nameOf(place, by, table), facts.coarser(table, split));
        for (const p of [place, homeOf(scope, place)])
          this.kept.categories.set(KeptFacts.nameOf(p, by), facts.categories(p, by));
      }
  }
}
