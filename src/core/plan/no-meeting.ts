import { listed } from "../base/listed";
import { sameName } from "../base/names";
import type { ValueType } from "../base/value";
import type { Scope } from "../formula/expr";
import { type ColumnPlace, meetingColumn } from "../formula/meeting";
import { columnNamed, tableNamed } from "../formula/scope-names";
import { QueryError } from "./query-error";

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

/** Why a table cannot be split by a column of another. */
export interface NoMeeting {
  /** The reason, in sentences. */
  why: string;
  /** Columns of the other table by which both can be split. */
  instead: string[];
  /** Columns of the table that would meet the other one if they had its name. */
  renamed: string[];
}

/**
 * Why a table cannot be split by a column of another, and what would do: several dates of which none is that
 * which is meant, a column of that name that is read otherwise, or nothing that ties the two.
 */
export function noMeeting(scope: Scope, table: string, { table: other, column }: ColumnPlace): NoMeeting {
  const first = `${table} cannot be split by ${other}.${column}:`;
  const instead = sharedWith(scope, table, other).filter((name) => !sameName(name, column));
  const both = instead.length > 0 ? ` Both can be split by ${listed(instead, 4, "or")}.` : "";
  const type = columnNamed(scope, other, column)?.type;
  const alike = columnNamed(scope, table, column);
  const because = (why: string, renamed: string[] = []) => ({ why: `${first} ${why}`, instead, renamed });
  if (alike && alike.type !== "null" && alike.type !== type)
    return because(
      `its own ${alike.name} holds ${PLURALS[alike.type]}, the other ${PLURALS[type ?? "null"]}. Read both alike on the Data step.${both}`,
    );
  const dates = (tableNamed(scope, table)?.columns ?? []).filter((c) => isTime(c.type)).map((c) => c.name);
  if (isTime(type) && dates.length > 1)
    return because(
      `it has several dates, ${listed(dates)}, and none is called ${column}. Give the one that is meant that name on the Data step.${both}`,
      dates,
    );
  if (isTime(type)) return because(`it has no date.${both}`);
  return because(
    `it has no column of that name, and no link leads there.${both || " If a column of it names rows of the other table, link the two on the Data step."}`,
  );
}

/** A query whose table cannot be split by a column of another. */
export class NoMeetingError extends QueryError {
  readonly told: NoMeeting;

  constructor(
    scope: Scope,
    readonly table: string,
    readonly place: ColumnPlace,
  ) {
    const told = noMeeting(scope, table, place);
    super("no_meeting", told.why);
    this.told = told;
  }
}
