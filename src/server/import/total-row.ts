import { isNothing } from "@/core/data/reading";
import type { Cell } from "../store/table-files";
import { lookOf } from "./sniff";

/** What reports call the row under a table that adds it up. */
const TOTALS = [
  "total",
  "totals",
  "grand total",
  "sum",
  "summe",
  "gesamt",
  "gesamtsumme",
  "insgesamt",
  "totale",
  "somme",
  "somma",
  "suma",
  "soma",
  "totaal",
  "summa",
  "i alt",
  "totalt",
  "yhteensä",
  "celkem",
  "razem",
  "összesen",
  "toplam",
  "итого",
  "всего",
  "合計",
  "合计",
  "总计",
  "합계",
];

/** What is said of the last row of a table where it may be the total of the others; null where it is not. */
export function totalNote(last: Cell[]): string | null {
  const filled = last.filter((cell): cell is string => cell !== null && !isNothing(cell));
  const [name, ...others] = filled;
  if (name === undefined || !others.some((cell) => lookOf(cell) === "number")) return null;
  const word = name
    .trim()
    .toLowerCase()
    .replace(/\s*[:：]$/, "");
  return TOTALS.includes(word)
    ? `The last row is called “${name.trim()}” and counts like any other. Where it is the total of the others, filter it out.`
    : null;
}
