import { sameName } from "../base/names";
import { NEW_FORMAT } from "../base/number-format";
import { quoteName } from "../formula/quote-name";
import { newMeasure } from "../project/defaults";
import { freeName } from "../project/names";
import { type OfferedColumn, offeredColumns } from "../project/offered";
import type { Measure, Project, TableInfo } from "../project/schema";
import { type NumberFacts, numberSense } from "./number-sense";

type Known = Pick<Project, "tables" | "links" | "measures" | "inputs" | "conventions">;

const MOST_PROPOSALS = 24;

/** What is known of the numbers of a column; null where nothing is. */
type KnownNumbers = (column: OfferedColumn) => NumberFacts | null;

const spoken = (name: string) => name.replaceAll(/[_-]+/g, " ").trim();

/** What the most ask of a table comes first. */
const RANKS = ["sum", "share", "average", "rows", "different"] as const;
interface Asked {
  rank: (typeof RANKS)[number];
  label: string;
  formula: string;
}

/** What a column can be asked for; `facts` are those of its numbers. */
function askedOf({ type, column }: OfferedColumn, facts: NumberFacts | null): Asked[] {
  const name = quoteName(column);
  const about = spoken(column);
  const distinct: Asked = {
    rank: "different",
    label: `Different ${about}`,
    formula: `count(distinct ${name})`,
  };
  if (type === "number") {
    const mean: Asked = { rank: "average", label: `Average of ${about}`, formula: `avg(${name})` };
    const sum: Asked = { rank: "sum", label: `Sum of ${about}`, formula: `sum(${name})` };
    return { amount: [sum, mean], level: [mean], name: [distinct] }[numberSense(column, facts)];
  }
  if (type === "boolean") {
    const formula = `count(*) filter (where ${name}) / nullif(count(${name}), 0)`;
    return [{ rank: "share", label: `Share of ${about}`, formula }];
  }
  return type === "text" && numberSense(column, null) === "name" ? [distinct] : [];
}

/** What the columns of a table offer to be measured, and how many rows it has. */
function proposedOf(project: Known, table: TableInfo, facts: KnownNumbers): Omit<Measure, "id">[] {
  const taken = [...project.measures, ...project.inputs].map((m) => m.name);
  const { locale, currency } = project.conventions;
  const columns = [...table.columns, ...table.derived].map((c) => c.name);
  const made = ({ rank, label, formula }: Asked) => {
    const name = freeName(label, [...taken, ...columns]);
    taken.push(name);
    const style = rank === "share" ? ("percent" as const) : NEW_FORMAT.style;
    const format = { ...NEW_FORMAT, style, locale, currency };
    return newMeasure({ id: "", name, label, table: table.name, formula, format });
  };
  const asked = offeredColumns(project, table.name)
    .filter((c) => c.own)
    .flatMap((c) => askedOf(c, facts(c)));
  const rows: Asked = { rank: "rows", label: `Rows of ${table.name}`, formula: "count(*)" };
  const ranked = RANKS.flatMap((rank) => [...asked, rows].filter((a) => a.rank === rank));
  return ranked.slice(0, MOST_PROPOSALS).map(made);
}

/**
 * Measures that the columns of a project offer and that it does not have yet: the sum and the average of
 * numbers, the share of what is true, how many different ids there are, and the count of rows. They are
 * proposals: their ids stand for them until one is taken. `facts` tells what is known of a column's numbers.
 */
export function proposedMeasures(project: Known, facts: KnownNumbers = () => null): Measure[] {
  const has = ({ table, formula }: Omit<Measure, "id">) =>
    project.measures.some((m) => m.table !== null && sameName(m.table, table ?? "") && m.formula === formula);
  return project.tables
    .flatMap((table) => proposedOf(project, table, facts))
    .filter((m) => !has(m))
    .map((m) => ({ ...m, id: `proposed ${m.table}\n${m.formula}` }));
}
