import type { Filter, Query, QueryInput } from "./query";

type Sort = NonNullable<Query["sort"]>;
type Keep = NonNullable<Query["keep"]>;

const wholeSort = (sort: NonNullable<QueryInput["sort"]>): Sort => ({ ...sort, order: sort.order ?? "desc" });
const wholeKeep = (keep: NonNullable<QueryInput["keep"]>): Keep => ({ ...keep, others: keep.others ?? true });

const wholeFilter = (filter: NonNullable<QueryInput["filters"]>[number]): Filter =>
  "relative" in filter
    ? { ...filter, relative: { ...filter.relative, anchor: filter.relative.anchor ?? "today" } }
    : filter;

/**
 * A query with what is left out in it, as the schema gives it, where it is known to be sound: what a page
 * asks of
 * itself is not checked again. A test holds both together.
 */
export const wholeQuery = ({ sort, keep, series, ...query }: QueryInput): Query =>
  ({
    ...query,
    totals: query.totals ?? [],
    besides: query.besides ?? [],
    splits: query.splits ?? [],
    filters: (query.filters ?? []).map(wholeFilter),
    ...(query.atRest ? { atRest: query.atRest.map(wholeFilter) } : {}),
    inputs: query.inputs ?? {},
    ...(sort ? { sort: wholeSort(sort) } : {}),
    ...(keep ? { keep: wholeKeep(keep) } : {}),
    ...(series
      ? {
          series: {
            ...series,
            ...(series.sort ? { sort: wholeSort(series.sort) } : {}),
            ...(series.keep ? { keep: wholeKeep(series.keep) } : {}),
          },
        }
      : {}),
  }) as Query;
