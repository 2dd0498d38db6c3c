import type { Board, Project } from "../project/schema";
import { makeRoom } from "../project/tile-layout";
import { brokenIn, namedInAny } from "./broken";
import { type Change, inverse, withChanges } from "./changes";
import { isEqual } from "./is-equal";
import { settled, toldChanges } from "./told-changes";

/** What two windows made otherwise of the same unit, or of what the other names: one side of it can be kept. */
export interface Conflict {
  mine: Change[];
  theirs: Change[];
}

/** Two versions of a document as one; what conflicts stands in it as `theirs` has it. */
export interface Merged {
  document: Project;
  conflicts: Conflict[];
}

const begins = (path: readonly string[], start: readonly string[]) =>
  start.every((name, i) => path[i] === name);
const meets = (a: Change, b: Change) =>
  a.isOrder || b.isOrder
    ? a.isOrder === b.isOrder && a.path.join("/") === b.path.join("/")
    : begins(a.path, b.path) || begins(b.path, a.path);
/** The thing that a change belongs to: a measure, a visual, or a field of the project. */
const thingOf = ({ path, isOrder }: Change) => (isOrder ? "order " : "") + path.slice(0, 2).join("/");

/** Conflicts put together that are about the same thing of theirs, or of mine. */
function paired(missed: readonly Change[], theirs: readonly Change[]): Conflict[] {
  const conflicts: Conflict[] = [];
  for (const change of missed) {
    const met = theirs.filter((their) => meets(their, change));
    const known = conflicts.find((c) => met.some((their) => c.theirs.includes(their)));
    if (known) {
      known.mine.push(change);
      known.theirs.push(...met.filter((their) => !known.theirs.includes(their)));
    } else conflicts.push({ mine: [change], theirs: met });
  }
  return conflicts;
}

/** Changes by the thing that they belong to. */
function byThing(changes: readonly Change[]): Change[][] {
  const groups = new Map<string, Change[]>();
  for (const change of changes) groups.set(thingOf(change), [...(groups.get(thingOf(change)) ?? []), change]);
  return [...groups.values()];
}

/** Two versions of a document, the one that both grew from, and what theirs changed since. */
interface Sides {
  base: Project;
  mine: Project;
  theirs: Project;
  others: readonly Change[];
}

/** As few of the groups as are enough, of which all together are. */
function fewest(groups: Change[][], isEnough: (changes: Change[]) => boolean): Change[] {
  let needed = groups;
  for (const group of groups) {
    const fewer = needed.filter((other) => other !== group);
    if (isEnough(fewer.flat())) needed = fewer;
  }
  return needed.flat();
}

/**
 * Finds changes of both sides that do not go together although they touch different things: one names what
 * the other removed or called otherwise, both use the same name, or the whole holds too much. What is
 * `applying` of mine, and not found, is in the document.
 */
function clashes({ base, mine, theirs, others }: Sides, applying: readonly Change[]): Merged {
  const conflicts: Conflict[] = [];
  const anywhere = namedInAny([mine, theirs]);
  const known = [mine, theirs].map((side) => brokenIn(side, anywhere));
  const without = (changes: readonly Change[], some: readonly Change[]) =>
    changes.filter((change) => !some.includes(change));
  const together = (own: readonly Change[], their = others) =>
    settled(withChanges(withChanges(base, their).document, own).document, base);
  for (let kept = applying; ; ) {
    const document = together(kept);
    const faultsOf = (merged: Project) =>
      [...brokenIn(merged, anywhere)].filter((fault) => known.every((set) => !set.has(fault)));
    const faults = kept.length === 0 ? [] : faultsOf(document);
    if (faults.length === 0) return { document, conflicts };
    const heals = (merged: Project) => {
      const left = faultsOf(merged);
      return !left.includes(faults[0]) && left.every((fault) => faults.includes(fault));
    };
    const own = fewest(byThing(kept), (some) => heals(together(without(kept, some))));
    const met = fewest(byThing(others), (some) => heals(together(kept, without(others, some))));
    conflicts.push({ mine: own, theirs: met });
    kept = without(kept, own);
  }
}

/**
 * What both sides decided: where both changed the same unit and one's only followed from the rest, it gives
 * way, and is told again.
 */
function decided(own: readonly Change[], others: readonly Change[]): [Change[], Change[]] {
  const place = ({ path, isOrder }: Change) => JSON.stringify([path, isOrder]);
  const givesWay = (side: readonly Change[]) => {
    const places = new Set(side.map(place));
    return (change: Change) => !change.follows || !places.has(place(change));
  };
  return [own.filter(givesWay(others)), others.filter(givesWay(own))];
}

/** The boards on which two windows put tiles: what lies on the same place now gives way. */
const apart = (boards: Board[], sides: Project[]): Board[] =>
  boards.map((board) => {
    const same = sides.some((side) =>
      isEqual(side.boards.find((b) => b.id === board.id)?.tiles, board.tiles),
    );
    if (same) return board;
    const places = new Map(makeRoom(board.tiles, []).map((place) => [place.id, place]));
    return { ...board, tiles: board.tiles.map((t) => ({ ...t, ...places.get(t.id) })) };
  });

/**
 * Merges two documents that grew from the same `base`. What touches different units is taken from both; what
 * does not go together is a conflict, in which theirs stands until `takeMine` of the conflict's place says
 * otherwise. Merged from either side, documents without conflicts are the same.
 */
export function merge(
  base: Project,
  mine: Project,
  theirs: Project,
  takeMine: (conflict: number) => boolean = () => false,
): Merged {
  const [own, others] = decided(toldChanges(base, mine), toldChanges(base, theirs));
  const { missed } = withChanges(withChanges(base, others).document, own);
  const applying = own.filter((change) => !missed.includes(change));
  const found = clashes({ base, mine, theirs, others }, applying);
  const conflicts = [...paired(missed, others), ...found.conflicts];
  let { document } = found;
  for (const [i, conflict] of conflicts.entries())
    if (takeMine(i))
      document = withChanges(
        withChanges(document, inverse(conflict.theirs), true).document,
        conflict.mine,
        true,
      ).document;
  const boards = apart(document.boards, [mine, theirs]);
  return { document: settled({ ...document, boards }, base), conflicts };
}
