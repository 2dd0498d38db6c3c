import { own } from "../base/own";

/** What a call of so many arguments is in a formula; null where it is nothing. */
type Rewriting = (args: string[]) => string | null;

const one =
  (write: (x: string) => string): Rewriting =>
  (args) =>
    args.length === 1 ? write(args[0]) : null;
const two =
  (write: (x: string, y: string) => string): Rewriting =>
  (args) =>
    args.length === 2 ? write(args[0], args[1]) : null;

const MEAN = one((x) => `avg(${x})`);
const DISTINCT = one((x) => `count(distinct ${x})`);
const PART = (part: string) => one((x) => `extract(${part} from ${x})`);
const WHERE: Rewriting = (args) => {
  if (args.length === 1) return `count(*) filter (where ${args[0]})`;
  return args.length === 2 ? `count(*) filter (where ${args[0]} = ${args[1]})` : null;
};
const CASE: Rewriting = (args) => {
  if (args.length < 2 || args.length > 3) return null;
  return `case when ${args[0]} then ${args[1]}${args.length === 3 ? ` else ${args[2]}` : ""} end`;
};
const FIRST_KNOWN = two((x, y) => `coalesce(${x}, ${y})`);
const JOINED: Rewriting = (args) => (args.length > 1 ? args.join(" || ") : null);
const TODAY: Rewriting = (args) => (args.length === 0 ? "current_date" : null);

/** Words for what SQL says otherwise, as people type them from habit, with what each is here. */
const HABITS: Record<string, Rewriting> = {
  average: MEAN,
  mean: MEAN,
  countd: DISTINCT,
  countdistinct: DISTINCT,
  count_distinct: DISTINCT,
  countunique: DISTINCT,
  distinctcount: DISTINCT,
  nunique: DISTINCT,
  countif: WHERE,
  count_if: WHERE,
  if: CASE,
  iif: CASE,
  ifnull: FIRST_KNOWN,
  isnull: FIRST_KNOWN,
  nvl: FIRST_KNOWN,
  concat: JOINED,
  concatenate: JOINED,
  divide: two((x, y) => `${x} / nullif(${y}, 0)`),
  len: one((x) => `length(${x})`),
  ucase: one((x) => `upper(${x})`),
  lcase: one((x) => `lower(${x})`),
  int: one((x) => `floor(${x})`),
  ceiling: one((x) => `ceil(${x})`),
  stdev: one((x) => `stddev_samp(${x})`),
  stddev: one((x) => `stddev_samp(${x})`),
  variance: one((x) => `var_samp(${x})`),
  year: PART("year"),
  quarter: PART("quarter"),
  month: PART("month"),
  week: PART("week"),
  day: PART("day"),
  hour: PART("hour"),
  today: TODAY,
  now: TODAY,
};

/** What a call written from habit (`if(a, b, c)`) is in a formula, with its arguments as written; null for none. */
export const habitOf = (name: string, args: string[]): string | null =>
  own(HABITS, name.toLowerCase())?.(args) ?? null;
