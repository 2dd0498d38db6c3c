import type { OfferedColumn } from "@/core/project/offered";
import { offeredSplits } from "@/core/view/offered-splits";

/** The splits that columns offer as a list to choose from, each as the JSON of the query's split. */
export const splitOptions = (columns: readonly OfferedColumn[]) =>
  offeredSplits(columns).map(({ split, label, group }) => ({
    value: JSON.stringify(split),
    label,
    group,
  }));
