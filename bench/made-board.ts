import type { Filter, QueryInput } from "@/core/plan/query";

const SPLITS: QueryInput["splits"][] = [
  [{ column: "route" }],
  [{ column: "vessel" }],
  [{ column: "day", by: "month" }],
  [{ column: "channel" }],
  [{ column: "route" }, { column: "fare_class" }],
  [],
];
const FORMULAS = [
  "sum(passengers)",
  "avg(delay)",
  "count(*) filter (where delay <= 3) / nullif(count(*), 0)",
  "sum(revenue) / nullif(sum(passengers), 0)",
];

/** The columns by which the board of the benchmarks is filtered. */
export const touched = [{ column: "channel" }, { column: "fare_class" }, { column: "day" }];

/** The queries of its twelve visuals under some filters. */
export const boardQueries = (filters: Filter[]): QueryInput[] =>
  SPLITS.flatMap((splits, i) =>
    [0, 1].map((k) => ({
      table: "rows",
      measures: [{ formula: FORMULAS[(i + k) % 4], as: "v" }],
      splits,
      filters,
    })),
  );
