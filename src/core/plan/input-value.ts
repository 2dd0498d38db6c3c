import { parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import type { Value, ValueType } from "../base/value";
import { QueryError } from "./query-error";

/**
 * An input's value as formulas use it: dates come as ISO 8601 text. Throws a QueryError where it does not fit
 * the input's type.
 */
export function inputValue(value: Value, type: ValueType, name: string): Value {
  if (value === null) return null;
  const fits = () => {
    if (type === "date" && typeof value === "string") return parseIsoDate(value);
    if (type === "timestamp" && typeof value === "string") return parseIsoTimestamp(value);
    if (type === "number" && typeof value === "number" && Number.isFinite(value)) return value;
    if (type === "text" && typeof value === "string") return value;
    return type === "boolean" && typeof value === "boolean" ? value : null;
  };
  const result = fits();
  if (result === null)
    throw new QueryError(
      "bad_input",
      `The input “${name}” is a ${type}, and ${JSON.stringify(value)} is none.`,
    );
  return result;
}
