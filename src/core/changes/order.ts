/** The longest run of members that stand in the same order in both lists, each of which holds a member once. */
function sameOrder(base: readonly string[], side: readonly string[]): Set<string> {
  const place = new Map(side.map((key, i) => [key, i]));
  const found = base.filter((key) => place.has(key));
  // The length of the longest run that ends at each member, and the member before it.
  const length = found.map(() => 1);
  const before = found.map(() => -1);
  for (let i = 0; i < found.length; i++)
    for (let j = 0; j < i; j++)
      if (Number(place.get(found[j])) < Number(place.get(found[i])) && length[j] >= length[i]) {
        length[i] = length[j] + 1;
        before[i] = j;
      }
  const run = new Set<string>();
  for (let at = length.indexOf(Math.max(...length)); at >= 0; at = before[at]) run.add(found[at]);
  return run;
}

/** The member after which a moved or new one stands, of those that are left; null at the beginning. */
function anchorIn(side: readonly string[], key: string, left: ReadonlySet<string>): string | null {
  for (let i = side.indexOf(key) - 1; i >= 0; i--) if (left.has(side[i])) return side[i];
  return null;
}

/**
 * The order of a list that two sides put in order, each from the same `base`. A member that one side moved or
 * added stands after the one that it follows there; where both put something after the same member, the keys
 * decide. Which side is called mine makes no difference. Null where both moved the same member to different
 * places. Members that are not in `left` are gone.
 */
export function mergedOrder(
  base: readonly string[],
  mine: readonly string[],
  theirs: readonly string[],
  left: ReadonlySet<string>,
): string[] | null {
  const [unmovedByMe, unmovedByThem] = [sameOrder(base, mine), sameOrder(base, theirs)];
  const stable: string[] = [];
  const after = new Map<string | null, string[]>();
  for (const key of left) {
    const wasThere = base.includes(key);
    const sides = [
      mine.includes(key) && !(wasThere && unmovedByMe.has(key)) ? mine : null,
      theirs.includes(key) && !(wasThere && unmovedByThem.has(key)) ? theirs : null,
    ].filter((side) => side !== null);
    if (sides.length === 0) continue;
    const anchors = new Set(sides.map((side) => anchorIn(side, key, left)));
    if (anchors.size > 1) return null;
    const [anchor] = anchors;
    after.set(anchor, [...(after.get(anchor) ?? []), key]);
  }
  const moved = new Set([...after.values()].flat());
  stable.push(...base.filter((key) => left.has(key) && !moved.has(key)));
  const order: string[] = [];
  const put = (key: string | null) => {
    if (key !== null) order.push(key);
    for (const next of (after.get(key) ?? []).toSorted()) put(next);
  };
  put(null);
  for (const key of stable) put(key);
  // Members that only stand after each other have no place.
  return order.length === left.size ? order : null;
}
