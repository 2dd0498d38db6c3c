import { own } from "../base/own";

const WINDOW =
  "There are no windows over rows: a measure has one value for each group. total(…) is its value over all groups; first to last, or a course over time, comes from the split of a visual.";
const NEIGHBOUR =
  "A formula does not see the group before or after its own. To compare stretches of time, name each with a filter: sum(x) filter (where d >= date '2026-01-01').";
const RANKED =
  "A formula gives no ranks. A visual puts its rows in order and keeps the first ones: say so in its sentence.";
const FIRST_OR_LAST =
  "Rows have no order of their own. max_by(x, d) is the x of the row with the latest d, min_by(x, d) that of the earliest.";
const DAYS = "Days are added and taken away as numbers: d + 7. Two dates apart are so many days: d2 - d1.";
const QUERY =
  "A formula is the value alone, without a query around it: write sum(x), and choose its table, its splits and its filters beside it.";
const CONDITION = "A condition stands behind the aggregate: sum(x) filter (where y = 'a').";
const TEXTS =
  "Texts of several rows are not put together. mode(x) is the most frequent, count(distinct x) how many there are.";

/** Words that SQL puts between expressions, each with what there is instead. */
const KEYWORDS: Record<string, string> = {
  over: WINDOW,
  partition: WINDOW,
  interval: DAYS,
  select: QUERY,
  from: QUERY,
  group: QUERY,
  order: QUERY,
  having: QUERY,
  limit: QUERY,
  join: QUERY,
  where: CONDITION,
  as: "A formula gives no name: the measure has one already. Remove “as” and what follows.",
  ilike: "Write lower(x) like 'a%' to match without regard to case.",
};

/** Functions of SQL and of spreadsheets. What has a form of its own here is rewritten by `habitOf`. */
const FUNCTIONS: Record<string, string> = {
  running_total: WINDOW,
  running_sum: WINDOW,
  cumsum: WINDOW,
  cumulative: WINDOW,
  moving_average: WINDOW,
  rolling: WINDOW,
  lag: NEIGHBOUR,
  lead: NEIGHBOUR,
  previous: NEIGHBOUR,
  prior: NEIGHBOUR,
  next: NEIGHBOUR,
  first: FIRST_OR_LAST,
  last: FIRST_OR_LAST,
  first_value: FIRST_OR_LAST,
  last_value: FIRST_OR_LAST,
  nth_value: FIRST_OR_LAST,
  any_value: FIRST_OR_LAST,
  latest: FIRST_OR_LAST,
  earliest: FIRST_OR_LAST,
  row_number: RANKED,
  rank: RANKED,
  dense_rank: RANKED,
  percent_rank: RANKED,
  ntile: RANKED,
  top: RANKED,
  topn: RANKED,
  dateadd: DAYS,
  date_add: DAYS,
  datediff: DAYS,
  date_diff: DAYS,
  timestampdiff: DAYS,
  age: DAYS,
  sumif: CONDITION,
  sumifs: CONDITION,
  countifs: CONDITION,
  averageif: CONDITION,
  averageifs: CONDITION,
  sumx: CONDITION,
  string_agg: TEXTS,
  group_concat: TEXTS,
  array_agg: TEXTS,
  listagg: TEXTS,
};

const told = (word: string, instead: string | undefined): string | null =>
  instead === undefined ? null : `Formulas have no “${word}”. ${instead}`;

/** Whether a word of SQL stands right before a value, so that the trouble shows only behind it. */
export const isBeforeValue = (word: string): boolean => /^(interval|select)$/i.test(word);

/** What there is instead of a word that SQL puts between expressions; null for other words. */
export const insteadOfKeyword = (word: string) => told(word, own(KEYWORDS, word.toLowerCase()));

/** What there is instead of a function that formulas do not have; null for other names. */
export const insteadOfFunction = (name: string) =>
  told(name, own(FUNCTIONS, name.toLowerCase()) ?? own(KEYWORDS, name.toLowerCase()));
