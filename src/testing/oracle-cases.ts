import fc from "fast-check";

/**
 * Random formulas beside the SQL that says the same to SQLite, written for the test alone. SQLite differs by
 * design where docs/formulas.md says so, and the SQL spells these out:
 * - whole numbers divide to whole numbers there, so number columns are REAL and literals carry a point;
 * - scalar min and max of a null are null there, so greatest and least are written with coalesce;
 * - booleans are 0 and 1 there;
 * - upper, lower and like know only ASCII letters there, and like does not mind case: `case_sensitive_like`
 * is set, and texts are
 *   changed in case only where they are ASCII;
 * - a division by zero, sqrt(-1) and ln(0) are null in both; what is not finite is null here and left out of
 * the comparison;
 * - round(x) goes away from zero at a half in both;
 * - median, percentile_cont, mode, the spreads, max_by and min_by are user functions there, over a copy of
 * the values, and so are the functions of texts that it lacks.
 */
export interface Case {
  formula: string;
  sql: string;
}

const both = (formula: string, sql = formula): Case => ({ formula, sql });
const fill = (c: Case, ...parts: Case[]): Case => ({
  formula: c.formula.replace(/\$(\d)/g, (_, i) => parts[i].formula),
  sql: c.sql.replace(/\$(\d)/g, (_, i) => parts[i].sql),
});
/** A form with places $0, $1 … that other cases take. */
const form = (c: Case, ...parts: fc.Arbitrary<Case>[]): fc.Arbitrary<Case> =>
  fc.tuple(...parts).map((made) => fill(c, ...made));

const literal = fc.constantFrom(
  ...[-5, -1, 0, 1, 2, 3].map((n) => both(`(${n})`, `(${n}.0)`)),
  both("0.5"),
  both("1e6", "1000000.0"),
);

export const { number, text, condition, date } = fc.letrec<{
  number: Case;
  text: Case;
  condition: Case;
  date: Case;
}>((tie) => ({
  number: fc.oneof(
    { maxDepth: 4, depthSize: "small" },
    fc.constantFrom(both("a"), both("b")),
    literal,
    ...["+", "-", "*", "/"].map((op) => form(both(`($0 ${op} $1)`), tie("number"), tie("number"))),
    form(both("abs($0)"), tie("number")),
    form(both("-($0)"), tie("number")),
    form(both("sign($0)"), tie("number")),
    form(both("coalesce($0, $1)"), tie("number"), tie("number")),
    form(both("nullif($0, $1)"), tie("number"), tie("number")),
    form(both("greatest($0, $1)", "coalesce(max($0, $1), $0, $1)"), tie("number"), tie("number")),
    form(both("least($0, $1)", "coalesce(min($0, $1), $0, $1)"), tie("number"), tie("number")),
    form(both("floor($0)"), tie("number")),
    form(both("ceil($0)"), tie("number")),
    form(both("trunc($0)"), tie("number")),
    form(both("mod($0, 3)", "mod($0, 3.0)"), tie("number")),
    form(both("case when $0 then $1 else $2 end"), tie("condition"), tie("number"), tie("number")),
    form(
      both("case $0 when 0 then $1 when 1 then $2 end", "case $0 when 0.0 then $1 when 1.0 then $2 end"),
      tie("number"),
      tie("number"),
      tie("number"),
    ),
    form(both("length($0)", "cast(length($0) as real)"), tie("text")),
    form(both("position('a' in $0)", "cast(instr($0, 'a') as real)"), tie("text")),
    form(both("to_number($0)", "a_number($0)"), tie("text")),
    form(both("round($0, 1)", "a_round($0)"), tie("number")),
    form(both("power($0, 2)", "pow($0, 2.0)"), tie("number")),
    form(both("sqrt(abs($0))", "sqrt(abs($0))"), tie("number")),
    form(both("ln(abs($0) + 1)", "ln(abs($0) + 1.0)"), tie("number")),
    form(both("log10(abs($0) + 1)", "log10(abs($0) + 1.0)"), tie("number")),
    form(both("exp(least($0, 5))", "exp(coalesce(min($0, 5.0), $0, 5.0))"), tie("number")),
    form(both("extract(year from $0)", "cast(strftime('%Y', $0) as real)"), tie("date")),
    form(both("extract(month from $0)", "cast(strftime('%m', $0) as real)"), tie("date")),
    form(both("extract(day from $0)", "cast(strftime('%d', $0) as real)"), tie("date")),
    form(both("extract(doy from $0)", "cast(strftime('%j', $0) as real)"), tie("date")),
    form(both("($0 - $1)", "(julianday($0) - julianday($1))"), tie("date"), tie("date")),
  ),
  text: fc.oneof(
    { maxDepth: 2, depthSize: "small" },
    fc.constant(both("t")),
    fc.constantFrom("'a'", "'é'", "'Z'", "''", "'日本'", "'it''s'").map((s) => both(s)),
    form(both("($0 || $1)"), tie("text"), tie("text")),
    form(both("trim($0)"), tie("text")),
    form(both("upper(trim($0))", "a_upper(trim($0))"), tie("text")),
    form(both("lower(trim($0))", "a_lower(trim($0))"), tie("text")),
    form(both("left($0, 2)", "substr($0, 1, 2)"), tie("text")),
    form(both("right($0, 2)", "substr($0, -2)"), tie("text")),
    form(both("split_part($0, 'b', 1)", "a_piece($0)"), tie("text")),
    form(both("lpad($0, 3, 'xy')", "a_lpad($0)"), tie("text")),
    form(both("rpad($0, 3, 'xy')", "a_rpad($0)"), tie("text")),
    form(both("concat($0, null, $1)", "coalesce($0, '') || coalesce($1, '')"), tie("text"), tie("text")),
    form(both("regexp_replace($0, '[aé]+', '<x>')", "a_replaced($0)"), tie("text")),
    form(both("replace($0, 'a', 'xyz')"), tie("text")),
    form(both("substring($0 from 1 for 2)", "substr($0, 1, 2)"), tie("text")),
    form(both("coalesce($0, 'none')"), tie("text")),
    form(both("nullif($0, '')"), tie("text")),
    form(both("case when $0 then $1 else $2 end"), tie("condition"), tie("text"), tie("text")),
  ),
  date: fc.oneof(
    { maxDepth: 2, depthSize: "small" },
    fc.constant(both("d")),
    fc.constant(both("date '2024-02-29'", "'2024-02-29'")),
    form(both("date_trunc('month', $0)", "date($0, 'start of month')"), tie("date")),
    form(both("date_trunc('year', $0)", "date($0, 'start of year')"), tie("date")),
    form(both("($0 + 40)", "date($0, '+40 days')"), tie("date")),
    form(both("to_date(cast($0 as text), 'yyyy-MM-dd')", "$0"), tie("date")),
    form(both("coalesce($0, date '2026-01-01')", "coalesce($0, '2026-01-01')"), tie("date")),
  ),
  condition: fc.oneof(
    { maxDepth: 3, depthSize: "small" },
    ...["=", "<>", "<", "<=", ">", ">="].flatMap((op) => [
      form(both(`$0 ${op} $1`), tie("number"), tie("number")),
      form(both(`$0 ${op} $1`), tie("text"), tie("text")),
      form(both(`$0 ${op} $1`), tie("date"), tie("date")),
    ]),
    fc.constantFrom(
      both("flag"),
      both("not flag"),
      both("flag is null"),
      both("flag is distinct from true", "flag is not 1"),
    ),
    form(both("$0 is null"), tie("number")),
    form(both("$0 is not null"), tie("text")),
    form(both("$0 is distinct from $1", "$0 is not $1"), tie("number"), tie("number")),
    form(both("$0 is not distinct from $1", "$0 is $1"), tie("text"), tie("text")),
    form(both("$0 between $1 and $2"), tie("number"), tie("number"), tie("number")),
    form(both("$0 not between 0 and 3", "$0 not between 0.0 and 3.0"), tie("number")),
    form(both("$0 in ('a', 'Z', 'é')"), tie("text")),
    form(both("$0 not in (0, 1, 2)", "$0 not in (0.0, 1.0, 2.0)"), tie("number")),
    form(both("$0 like 'a%'"), tie("text")),
    form(both("$0 not like '%_'"), tie("text")),
    form(both("$0 like '%!%%' escape '!'"), tie("text")),
    form(both("regexp_like($0, '^a|Z$')", "a_like($0)"), tie("text")),
    form(
      both(
        "to_timestamp(cast($0 as text), 'yyyy-MM-dd') < timestamp '2024-03-01 00:00:00'",
        "$0 < '2024-03-01'",
      ),
      tie("date"),
    ),
    form(both("starts_with($0, 'a')", "($0 like 'a%')"), tie("text")),
    form(both("($0 and $1)"), tie("condition"), tie("condition")),
    form(both("($0 or $1)"), tie("condition"), tie("condition")),
    form(both("(not ($0))"), tie("condition")),
  ),
}));

/** An aggregate with a place for its filter, which goes inside the cast that makes a count a real number. */
interface Aggregate extends Case {
  filtered: (where: Case) => Case;
}
const aggregateOf = (formula: string, sql: (filter: string) => string): Aggregate => ({
  formula,
  sql: sql(""),
  filtered: (where) => ({
    formula: `${formula} filter (where ${where.formula})`,
    sql: sql(` filter (where ${where.sql})`),
  }),
});

const plainAggregate: fc.Arbitrary<Aggregate> = fc
  .oneof(
    fc.constant(aggregateOf("count(*)", (f) => `cast(count(*)${f} as real)`)),
    number.map((x) => aggregateOf(`sum(${x.formula})`, (f) => `sum(${x.sql})${f}`)),
    number.map((x) => aggregateOf(`avg(${x.formula})`, (f) => `avg(${x.sql})${f}`)),
    number.map((x) => aggregateOf(`min(${x.formula})`, (f) => `min(${x.sql})${f}`)),
    number.map((x) => aggregateOf(`max(${x.formula})`, (f) => `max(${x.sql})${f}`)),
    number.map((x) => aggregateOf(`count(${x.formula})`, (f) => `cast(count(${x.sql})${f} as real)`)),
    text.map((x) => aggregateOf(`count(${x.formula})`, (f) => `cast(count(${x.sql})${f} as real)`)),
    number.map((x) =>
      aggregateOf(`count(distinct ${x.formula})`, (f) => `cast(count(distinct ${x.sql})${f} as real)`),
    ),
    text.map((x) =>
      aggregateOf(`count(distinct ${x.formula})`, (f) => `cast(count(distinct ${x.sql})${f} as real)`),
    ),
    number.map((x) => aggregateOf(`sum(distinct ${x.formula})`, (f) => `sum(distinct ${x.sql})${f}`)),
    number.map((x) =>
      aggregateOf(`geometric_mean(abs(${x.formula}) + 1)`, (f) => `exp(avg(ln(abs(${x.sql}) + 1.0))${f})`),
    ),
    number.map((x) => aggregateOf(`mode(${x.formula})`, (f) => `a_mode(${x.sql})${f}`)),
    number.map((x) => aggregateOf(`median(${x.formula})`, (f) => `a_median(${x.sql})${f}`)),
    number.map((x) =>
      aggregateOf(
        `percentile_cont(0.25) within group (order by ${x.formula})`,
        (f) => `a_quartile(${x.sql})${f}`,
      ),
    ),
    ...["stddev_pop", "stddev_samp", "var_pop", "var_samp"].map((fn) =>
      number.map((x) => aggregateOf(`${fn}(${x.formula})`, (f) => `a_${fn}(${x.sql})${f}`)),
    ),
    ...["max_by", "min_by"].map((fn) =>
      fc
        .tuple(number, number)
        .map(([x, key]) =>
          aggregateOf(`${fn}(${x.formula}, ${key.formula})`, (f) => `a_${fn}(${x.sql}, ${key.sql})${f}`),
        ),
    ),
    condition.map((x) =>
      aggregateOf(
        `count(*) filter (where ${x.formula})`,
        () => `cast(count(*) filter (where ${x.sql}) as real)`,
      ),
    ),
  )
  .map((a) => (a.formula.includes(") filter (where") ? { ...a, filtered: () => a } : a));

const aggregate: fc.Arbitrary<Case> = fc
  .tuple(plainAggregate, fc.option(condition, { nil: null }))
  .map(([a, where]) => (where ? a.filtered(where) : a));

/** Whether all or any of the rows are true: the smallest or largest of 0 and 1 there. */
const truth: fc.Arbitrary<Case> = fc
  .tuple(
    fc.constantFrom(["bool_and", "min"], ["bool_or", "max"]),
    condition,
    fc.option(condition, { nil: null }),
  )
  .map(([[fn, sql], x, where]) => {
    const made = aggregateOf(`${fn}(${x.formula})`, (f) => `${sql}(${x.sql})${f}`);
    return where ? made.filtered(where) : made;
  });

/** A group-level formula: an aggregate, or several in a scalar expression. */
export const measure: fc.Arbitrary<Case> = fc.oneof(
  truth,
  { weight: 3, arbitrary: aggregate },
  form(both("$0 / nullif($1, 0)", "$0 / nullif($1, 0.0)"), aggregate, aggregate),
  form(both("coalesce($0, 0) - $1", "coalesce($0, 0.0) - $1"), aggregate, aggregate),
  form(both("greatest($0, $1)", "coalesce(max($0, $1), $0, $1)"), aggregate, aggregate),
  form(
    both("case when $0 > $1 then $0 else 2 * $1 end", "case when $0 > $1 then $0 else 2.0 * $1 end"),
    aggregate,
    aggregate,
  ),
);

/** A filter of a query beside its SQL. */
export const filter: fc.Arbitrary<{ filter: object; sql: string }> = fc.constantFrom(
  { filter: { column: "t", in: ["a", "é", null] }, sql: "(t in ('a', 'é') or t is null)" },
  { filter: { column: "t", contains: "A" }, sql: "instr(lower(t), 'a') > 0" },
  { filter: { column: "t", isNull: false }, sql: "t is not null" },
  { filter: { column: "t", from: "Z", to: "é" }, sql: "t >= 'Z' and t <= 'é'" },
  { filter: { column: "a", from: -1, to: 3 }, sql: "a between -1.0 and 3.0" },
  { filter: { column: "a", in: [0, 1, 0.1] }, sql: "a in (0.0, 1.0, 0.1)" },
  { filter: { column: "b", isNull: true }, sql: "b is null" },
  { filter: { column: "flag", in: [true, null] }, sql: "(flag = 1 or flag is null)" },
  { filter: { column: "d", from: "2024-02-01" }, sql: "d >= '2024-02-01'" },
  { filter: { column: "d", by: "year", in: [2024] }, sql: "strftime('%Y', d) = '2024'" },
  {
    filter: { column: "d", relative: { unit: "month", from: -1, to: 0, anchor: "today" } },
    sql: "d between '2024-02-01' and '2024-03-31'",
  },
);

export type Row = [string | null, number | null, number | null, boolean | null, string | null];

/** Rows with nulls, ties, negative zero, large and tiny numbers, and texts beyond ASCII. */
export const row: fc.Arbitrary<Row> = fc.tuple(
  fc.option(fc.constantFrom("a", "é", "Z", "ß", "", "日本", "ab%", " a "), { nil: null }),
  fc.option(fc.oneof(fc.integer({ min: -4, max: 4 }), fc.constantFrom(0.1, -0, 1e15, 1e-9, 2.5, -2.5)), {
    nil: null,
  }),
  fc.option(fc.integer({ min: -2, max: 2 }), { nil: null }),
  fc.option(fc.boolean(), { nil: null }),
  fc.option(fc.constantFrom("2023-12-31", "2024-01-01", "2024-02-29", "2024-03-15", "2025-07-04"), {
    nil: null,
  }),
);
