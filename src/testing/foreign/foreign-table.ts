import { answers, type Cells, categories, counts, dates, ids, numbers, rates, truths } from "./cells";
import { Random } from "./random";

/** A file with a table that nobody made for this application. */
export interface ForeignTable {
  seed: number;
  file: string;
  content: string;
}

type Sort = (random: Random) => Cells;
interface Form {
  /** Columns by their heads, of which a table has some, at least the first. */
  columns: [string, Sort][];
  rows: [number, number];
}

const QUESTION = "How satisfied were you, all in all, with the way in which your question was answered?";
const FORMS: Record<"report" | "export" | "survey" | "log" | "wide", Form> = {
  report: {
    columns: [
      ["Region", categories],
      ["Turnover", numbers],
      ["Cost (net)", numbers],
      ["Margin %", rates],
      ["Heads", counts],
      ["Average age", numbers],
    ],
    rows: [3, 30],
  },
  export: {
    columns: [
      ["customer_id", ids],
      ["opened_at", dates],
      ["Status", categories],
      ["Amount", numbers],
      ["Quantity", counts],
      ["is_active", truths],
      ["Closed", dates],
      ["constructor", categories],
      ["discount_rate", rates],
    ],
    rows: [20, 400],
  },
  survey: {
    columns: [
      ["Respondent", ids],
      [QUESTION, answers],
      ["Age group", categories],
      ["Would recommend", truths],
      ["Answered on", dates],
      ["Minutes taken", numbers],
      ["Remarks", categories],
    ],
    rows: [10, 200],
  },
  log: {
    columns: [
      ["time", dates],
      ["level", categories],
      ["host", categories],
      ["duration_ms", numbers],
      ["bytes", counts],
      ["ok", truths],
    ],
    rows: [30, 400],
  },
  wide: {
    columns: [
      ["Product", categories],
      ...["Jan", "Feb", "Mar", "Apr", "May", "Jun"].map((month): [string, Sort] => [month, numbers]),
      ["Total", numbers],
    ],
    rows: [3, 40],
  },
};

/** Heads as people leave them: two alike, one that is missing, one with braces. */
function heads(random: Random, names: string[]): string[] {
  return names.map((name, i) => {
    if (random.chance(0.04)) return "";
    if (i > 0 && random.chance(0.04)) return names[i - 1];
    if (random.chance(0.04)) return `${name} {value}`;
    return random.chance(0.1) ? `${name} ` : name;
  });
}

const quoted = (cell: string, separator: string) =>
  cell.includes(separator) || /["\r\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell;

/** The table that a seed makes, out of a grammar of messes. */
export function foreignTable(seed: number): ForeignTable {
  const random = new Random(seed);
  const form = random.pick(Object.keys(FORMS) as (keyof typeof FORMS)[]);
  const { columns, rows } = FORMS[form];
  const [first, ...others] = columns;
  const taken = [first, ...(form === "wide" ? others : random.some(others, 0.75))];
  const cells = taken.map(([, sort]) => sort(random));
  const count = random.int(...rows);
  const body = Array.from({ length: count }, (_, row) => cells.map((cell) => cell(row)));
  const table = [
    heads(
      random,
      taken.map(([name]) => name),
    ),
    ...body,
  ];
  if (form === "report" && random.chance(0.5)) table.push(["Total", ...taken.slice(1).map(() => "")]);
  const above = random.chance(0.3) ? [["Quarterly report"], ["as of", "31.12.2025"], []] : [];
  const below = random.chance(0.2) ? [[], ["Source: own reckoning"]] : [];
  const separator = random.pick([",", ";", "\t"]);
  const end = random.pick(["\n", "\r\n"]);
  const lines = [...above, ...table, ...below].map((line) =>
    line.map((cell) => quoted(cell, separator)).join(separator),
  );
  const mark = random.chance(0.2) ? "\ufeff" : "";
  return { seed, file: `${form} ${seed}.csv`, content: mark + lines.join(end) + end };
}
