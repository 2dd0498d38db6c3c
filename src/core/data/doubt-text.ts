import type { Doubt } from "./reading-guess";
import { readingLabel } from "./reading-label";
import type { Reading } from "./reading-schema";

/** A doubt about a column in one sentence: how it is read, and what it could be. */
export function doubtText(column: string, reading: Reading, { why, other, count, cells }: Doubt): string {
  switch (why) {
    case "decimal mark": {
      const [decimal, group] = reading.decimal === "," ? ["comma", "point"] : ["point", "comma"];
      return `“${column}”: a ${decimal} is read as the decimal mark, and a ${group} as grouping thousands. It could be the other way round.`;
    }
    case "day or month first":
      return reading.dateOrder === "dmy"
        ? `“${column}”: the day is read first, then the month. It could be the month first.`
        : `“${column}”: the month is read first. It could be the day first.`;
    case "zero and one":
      return `“${column}”: 0 and 1 are read as numbers. They could mean false and true.`;
    case "digits of a date":
      return reading.type === "date"
        ? `“${column}”: eight digits are read as a date. They could be numbers.`
        : `“${column}”: six digits are read as numbers. They could be months.`;
    case "counts from 1970":
      return `“${column}”: long whole numbers are read as numbers. They could count ${other.epoch === "s" ? "seconds" : "milliseconds"} since 1970.`;
    case "numbers with an e":
      return `“${column}”: an e is read as “times ten to the power of”. The cells could be names.`;
    case "all in brackets":
      return `“${column}”: brackets are read as a minus. The cells could be notes.`;
    case "texts like numbers":
      return `“${column}”: the file says that these are texts, so they stay texts. They could be read as ${readingLabel(other)}.`;
    case "words for nothing":
      return `“${column}”: ${count === 1 ? "1 cell says" : `${(count ?? 0).toLocaleString("en")} cells say`} “${cells[0]?.text ?? ""}”, which counts as empty. It could be a value.`;
    case "a few do not fit":
      return `“${column}”: read as text, since a few cells are no ${readingLabel(other)}. Read so, those cells would count as empty.`;
  }
}
