import { findNamed } from "../base/names";
import type { Scope, ScopeColumn, ScopeTable } from "./expr";

/** What a scope's names lead to, by the name in lower case; of equal names the first counts. */
interface Names {
  measures: Map<string, Scope["measures"][number]>;
  tables: Map<string, ScopeTable>;
}

const known = new WeakMap<Scope, Names>();

function byName<T extends { name: string }>(list: readonly T[]): Map<string, T> {
  const map = new Map<string, T>();
  for (const one of list) if (!map.has(one.name.toLowerCase())) map.set(one.name.toLowerCase(), one);
  return map;
}

function namesOf(scope: Scope): Names {
  let names = known.get(scope);
  if (!names) {
    names = { measures: byName(scope.measures), tables: byName(scope.tables) };
    known.set(scope, names);
  }
  return names;
}

/** A measure by its name, without regard to case. */
export const measureNamed = (scope: Scope, name: string): Scope["measures"][number] | undefined =>
  namesOf(scope).measures.get(name.toLowerCase());

/** A table by its name, without regard to case. */
export const tableNamed = (scope: Scope, name: string): ScopeTable | undefined =>
  namesOf(scope).tables.get(name.toLowerCase());

/** A column of a table by their names, without regard to case. */
export const columnNamed = (scope: Scope, table: string, column: string): ScopeColumn | undefined =>
  findNamed(tableNamed(scope, table)?.columns ?? [], column);
