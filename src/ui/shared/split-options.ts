import { DATE_BUCKETS } from "@/core/base/calendar";
import type { Named } from "@/core/project/names";
import { offeredColumns } from "@/core/project/offered";

/**
 * The splits a table offers, each as the JSON of the query's split: every column it has or reaches, dates by
 * their buckets.
 */
export function splitOptions(
  project: Named,
  table: string | null,
): { value: string; label: string; group: string }[] {
  return offeredColumns(project, table).flatMap((c) => {
    const group = c.own ? "" : `Through a link: ${c.table}`;
    return c.type === "date" || c.type === "timestamp"
      ? DATE_BUCKETS.map((by) => ({
          value: JSON.stringify({ column: c.name, by }),
          label: `${c.name} by ${by}`,
          group,
        }))
      : [{ value: JSON.stringify({ column: c.name }), label: c.name, group }];
  });
}
