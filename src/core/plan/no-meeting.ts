import { listed } from "../base/listed";
import { sameName } from "../base/names";
import type { ValueType } from "../base/value";
import type { Scope } from "../formula/expr";
import { type ColumnPlace, meetingColumn } from "../formula/meeting";
import { columnNamed, tableNamed } from "../formula/scope-names";

const PLURALS: Record<ValueType, string> = {
  number: "numbers",
  text: "texts",
  boolean: "true or false",
  date: "dates",
  timestamp: "timestamps",
  null: "nothing",
};

const isTime = (type: string | undefined) => type === "date" || type === "timestamp";

/** The columns of a table, numbers aside, in which another one meets it. */
function sharedWith(scope: Scope, table: string, other: string): string[] {
  const columns = tableNamed(scope, other)?.columns ?? [];
  return columns.flatMap(({ name, type }) => {
    const met = meetingColumn(scope, table, { table: other, column: name });
    const there = met && columnNamed(scope, met.table, met.column)?.type;
    return type !== "number" && there !== null && there === type ? name : [];
  });
}

/**
 * Why a table cannot be split by a column of another, and what would do: several dates of which none is that
 * which is meant, a column of that name that is read otherwise, or nothing that ties the two.
 */
export function whyNoMeeting(scope: Scope, table: string, { table: other, column }: ColumnPlace): string {
  const first = `${table} cannot be split by ${other}.${column}:`;
  const shared = sharedWith(scope, table, other).filter((name) => !sameName(name, column));
  const instead = shared.length > 0 ? ` Both can be split by ${listed(shared, 4, "or")}.` : "";
  const type = columnNamed(scope, other, column)?.type;
  const alike = columnNamed(scope, table, column);
  if (alike && alike.type !== "null" && alike.type !== type)
    return `${first} its own ${alike.name} holds ${PLURALS[alike.type]}, the other ${PLURALS[type ?? "null"]}. Read both alike on the Data step.${instead}`;
  const dates = (tableNamed(scope, table)?.columns ?? []).filter((c) => isTime(c.type)).map((c) => c.name);
  if (isTime(type) && dates.length > 1)
    return `${first} it has several dates, ${listed(dates)}, and none is called ${column}. Give the one that is meant that name on the Data step.${instead}`;
  if (isTime(type)) return `${first} it has no date.${instead}`;
  return `${first} it has no column of that name, and no link leads there.${instead || " If a column of it names rows of the other table, link the two on the Data step."}`;
}
