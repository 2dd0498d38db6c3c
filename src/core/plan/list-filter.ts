import type { Value } from "../base/value";
import type { Filter, ListFilter } from "./query";

/** Whether a filter is by a list of values. */
export const isListFilter = (filter: Filter): filter is ListFilter => "in" in filter || "not" in filter;

/** The values that a filter lists. */
export const listedIn = (filter: ListFilter): Value[] => ("in" in filter ? filter.in : filter.not);
