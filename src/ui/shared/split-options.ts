import type { Named } from "@/core/project/names";
import { offeredSplits } from "@/core/view/offered-splits";

/** The splits a table offers as a list to choose from, each as the JSON of the query's split. */
export const splitOptions = (project: Named, table: string | null) =>
  offeredSplits(project, table).map(({ split, label, group }) => ({
    value: JSON.stringify(split),
    label,
    group,
  }));
