import { sameName } from "../base/names";
/**
 * A many-to-one tie: a row of `table` belongs to the row of `to` whose `key` equals its `column`. Names are
 * matched without regard to case.
 */
export interface Link {
  table: string;
  column: string;
  to: string;
  key: string;
}

/** More ways than these are not told apart: two are already one too many. */
const MOST_PATHS = 8;
/** Steps after which a search among circles of links ends; without circles each step leads on to the end. */
const MOST_STEPS = 20_000;

/** The tables, in lower case, from which links lead to a table, with itself. */
function leadingTo(links: readonly Link[], to: string): Set<string> {
  const leading = new Set([to.toLowerCase()]);
  for (let before = 0; before < leading.size; ) {
    before = leading.size;
    for (const link of links) if (leading.has(link.to.toLowerCase())) leading.add(link.table.toLowerCase());
  }
  return leading;
}

/**
 * The ways from one table to another along links (the first few, where there are many), each as its links in
 * order. Where a table is linked in a circle, no table is passed twice.
 */
export function pathsBetween(links: readonly Link[], from: string, to: string): Link[][] {
  const leading = leadingTo(links, to);
  const found: Link[][] = [];
  let steps = 0;
  const walk = (table: string, path: Link[]) => {
    for (const link of links) {
      if (found.length === MOST_PATHS || steps > MOST_STEPS) return;
      if (!sameName(link.table, table) || sameName(link.to, table) || !leading.has(link.to.toLowerCase()))
        continue;
      if (path.some((p) => sameName(p.table, link.to)) || sameName(link.to, from)) continue;
      steps++;
      if (sameName(link.to, to)) found.push([...path, link]);
      else walk(link.to, [...path, link]);
    }
  };
  walk(from, []);
  return found;
}

/** The tables that links lead to from a table, nearest first, without itself. */
export function reachedFrom(links: readonly Link[], table: string): string[] {
  const reached: string[] = [];
  const queue = [table];
  for (let from = queue.shift(); from !== undefined; from = queue.shift()) {
    for (const link of links) {
      if (
        !sameName(link.table, from) ||
        sameName(link.to, table) ||
        reached.some((r) => sameName(r, link.to))
      )
        continue;
      reached.push(link.to);
      queue.push(link.to);
    }
  }
  return reached;
}

/** The tables of a circle of links, the first one again at the end; null when there is none. */
export function circleOf(links: readonly Link[]): string[] | null {
  const done = new Set<string>();
  const walk = (table: string, path: string[]): string[] | null => {
    const at = path.findIndex((p) => sameName(p, table));
    if (at >= 0) return [...path.slice(at), table];
    if (done.has(table.toLowerCase())) return null;
    for (const link of links) {
      if (!sameName(link.table, table)) continue;
      const circle = walk(link.to, [...path, table]);
      if (circle) return circle;
    }
    done.add(table.toLowerCase());
    return null;
  };
  for (const { table } of links) {
    const circle = walk(table, []);
    if (circle) return circle;
  }
  return null;
}

/** A path in words: "sailings.route → routes.route". */
export function pathText(path: readonly Link[]): string {
  return path.map((l) => `${l.table}.${l.column} → ${l.to}.${l.key}`).join(", ");
}

/**
 * Why links cannot stand together, in a sentence that names them, or null: a circle, or two ways between the
 * same tables.
 */
export function linksProblem(links: readonly Link[]): string | null {
  const circle = circleOf(links);
  if (circle) return `These tables are linked in a circle: ${circle.join(" → ")}. Remove one of the links.`;
  for (const from of new Set(links.map((l) => l.table))) {
    for (const to of reachedFrom(links, from)) {
      const paths = pathsBetween(links, from, to);
      if (paths.length > 1)
        return `There is more than one way from ${from} to ${to}: ${paths.map(pathText).join("; or ")}. Remove one of the links.`;
    }
  }
  return null;
}
