import type { Project } from "../project/schema";
import { isEqual } from "./is-equal";
import { mergedOrder } from "./order";
import { fieldsOf, PROJECT_SHAPE, type Shape } from "./shape";

/**
 * One unit of a document that is another: a field, a dial, a place, a member that came or went (`undefined`
 * where it was or is not there), or the order of a list's members by their keys. `path` leads to it by the
 * names of fields and the keys of members, so that it means the same in any version of the document.
 */
export interface Change {
  path: readonly string[];
  from?: unknown;
  to?: unknown;
  isOrder?: true;
  /** It follows from the rest of the document, and nobody decided it. */
  follows?: true;
}

type Container = Record<string, unknown>;
type Member = Container & { id?: string; name?: string };

const UNIT: Shape = { type: "unit" };

const own = (container: Container, name: string) =>
  Object.hasOwn(container, name) ? container[name] : undefined;
const keysIn = (list: unknown, key: "id" | "name"): string[] =>
  (list as Member[]).map((member) => String(member[key]));

/** The value of a unit: a field's, or those of the fields that are one together. */
function unitIn(container: Container, unit: string): unknown {
  const fields = fieldsOf(unit);
  return fields.length === 1
    ? own(container, unit)
    : Object.fromEntries(fields.map((field) => [field, container[field]]));
}

function collect(a: unknown, b: unknown, shape: Shape, path: readonly string[], found: Change[]): void {
  if (a === b) return;
  if (shape.type === "fields") {
    for (const [name, of] of Object.entries(shape.fields))
      collect(unitIn(a as Container, name), unitIn(b as Container, name), of, [...path, name], found);
  } else if (shape.type === "record") {
    const [was, is] = [a as Container, b as Container];
    for (const name of new Set([...Object.keys(was), ...Object.keys(is)]))
      collect(own(was, name), own(is, name), UNIT, [...path, name], found);
  } else if (shape.type === "items") {
    collectMembers(a as Member[], b as Member[], shape, path, found);
  } else if (!isEqual(a, b)) found.push({ path, from: a, to: b });
}

function collectMembers(
  a: Member[],
  b: Member[],
  { key, fields }: Shape & { type: "items" },
  path: readonly string[],
  found: Change[],
): void {
  const known = new Map(a.map((member) => [String(member[key]), member]));
  const now = new Map(b.map((member) => [String(member[key]), member]));
  // Members that a key does not tell apart go together.
  if (known.size < a.length || now.size < b.length)
    return void (isEqual(a, b) || found.push({ path, from: a, to: b }));
  for (const [name, member] of known)
    if (!now.has(name)) found.push({ path: [...path, name], from: member, to: undefined });
  for (const [name, member] of now) {
    const was = known.get(name);
    if (!was) found.push({ path: [...path, name], from: undefined, to: member });
    // A member of another type is another one, under the same key.
    else if (was.type !== member.type && "type" in was && path.length > 1)
      found.push({ path: [...path, name], from: was, to: member });
    else collect(was, member, { type: "fields", fields }, [...path, name], found);
  }
  const [from, to] = [[...known.keys()], [...now.keys()]];
  if (!isEqual(from, to)) found.push({ path, from, to, isOrder: true });
}

/** What makes document `b` of document `a`, unit by unit. Equal documents have no changes. */
export function changesBetween(a: Project, b: Project): Change[] {
  const found: Change[] = [];
  collect(a, b, PROJECT_SHAPE, [], found);
  return found;
}

/** The changes that take these back. */
export const inverse = (changes: readonly Change[]): Change[] =>
  changes.map(({ path, from, to, ...rest }) => ({ path, from: to, to: from, ...rest }));

/** Says that a place is not there, or holds something else than it should. */
const MISSED = Symbol("missed");

/**
 * A part of a document in which `write` has put something else at the end of a path; MISSED where what holds
 * it is gone, or where `write` says so. The part that is given stays as it was.
 */
function rewritten(
  at: unknown,
  shape: Shape,
  path: readonly string[],
  write: (value: unknown, shape: Shape) => unknown,
): unknown {
  const [name, ...rest] = path;
  const within = (value: unknown, inner: Shape) => {
    if (rest.length === 0) return write(value, inner);
    return value === undefined ? MISSED : rewritten(value, inner, rest, write);
  };
  if (shape.type === "items") {
    const list = at as Member[];
    const index = list.findIndex((member) => member[shape.key] === name);
    const member = within(list[index], { type: "fields", fields: shape.fields });
    if (member === MISSED) return MISSED;
    if (index < 0) return member === undefined ? list : [...list, member];
    return member === undefined ? list.toSpliced(index, 1) : list.with(index, member as Member);
  }
  const container = at as Container;
  const isRecord = shape.type === "record";
  const inner = shape.type === "fields" && Object.hasOwn(shape.fields, name) ? shape.fields[name] : UNIT;
  const value = within(isRecord ? own(container, name) : unitIn(container, name), inner);
  if (value === MISSED) return MISSED;
  if (!isRecord && fieldsOf(name).length > 1) return { ...container, ...(value as Container) };
  // Unlike an assignment, entries take names that mean something to the language for names.
  const entries = Object.entries(container);
  if (value === undefined) return Object.fromEntries(entries.filter(([other]) => other !== name));
  return Object.fromEntries(
    Object.hasOwn(container, name)
      ? entries.map(([other, was]) => [other, other === name ? value : was])
      : [...entries, [name, value]],
  );
}

/** The members of a list in another order; MISSED where they were put elsewhere meanwhile. */
function inOrder(list: Member[], key: "id" | "name", { from, to }: Change, isForced: boolean): unknown {
  const [was, is, now] = [from as string[], to as string[], keysIn(list, key)];
  const left = new Set(now);
  const base = isForced ? now.filter((name) => is.includes(name)) : was;
  // What came with this change stands where it says, and not at the end, where it was put for now.
  const theirs = now.filter((name) => was.includes(name) || !is.includes(name));
  const order = mergedOrder(base, is, isForced ? now : theirs, left);
  if (order === null) return MISSED;
  const members = new Map(list.map((member) => [String(member[key]), member]));
  return isEqual(order, now) ? list : order.flatMap((name) => members.get(name) ?? []);
}

/**
 * The document with changes made to it, and those that do not apply, which leave it as it is: another value
 * stands there than the one that they were made from, or what they belong to is gone. With `isForced` a value
 * that stands there gives way.
 */
export function withChanges(
  document: Project,
  changes: readonly Change[],
  isForced = false,
): { document: Project; missed: Change[] } {
  const missed: Change[] = [];
  let next: unknown = document;
  const make = (change: Change, write: (value: unknown, shape: Shape) => unknown) => {
    const written = rewritten(next, PROJECT_SHAPE, change.path, write);
    if (written === MISSED) missed.push(change);
    else next = written;
  };
  for (const change of changes)
    if (!change.isOrder)
      make(change, (value) => {
        if (isEqual(value, change.to)) return value;
        return isForced || isEqual(value, change.from) ? change.to : MISSED;
      });
  for (const change of changes)
    if (change.isOrder)
      make(change, (list, shape) =>
        shape.type === "items" ? inOrder(list as Member[], shape.key, change, isForced) : MISSED,
      );
  return { document: next as Project, missed };
}
