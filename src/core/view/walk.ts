/** A walk through some boards of a project: each is shown for so many seconds, again and again. */
export interface Walk {
  boards: readonly string[];
  seconds: number;
}

/** How long each board of a walk is shown, in seconds. */
export const WALK_SECONDS = { least: 5, most: 3600, usual: 20 } as const;

const [BOARDS, SECONDS] = ["walk", "every"];

/** The walk that an address names, through the boards that there are; null where it names none of two or more. */
export function walkFrom(address: URLSearchParams, boards: readonly { id: string }[]): Walk | null {
  const named = [...new Set(address.getAll(BOARDS))].filter((id) => boards.some((b) => b.id === id));
  if (named.length < 2) return null;
  const asked = Number(address.get(SECONDS) ?? "");
  const { least, most, usual } = WALK_SECONDS;
  const isNumber = Number.isFinite(asked) && asked > 0;
  return { boards: named, seconds: isNumber ? Math.min(most, Math.max(least, Math.round(asked))) : usual };
}

/** Writes a walk into an address, in the place of the one that it names; null takes it out. */
export function writeWalk(address: URLSearchParams, walk: Walk | null): void {
  address.delete(BOARDS);
  address.delete(SECONDS);
  if (!walk) return;
  for (const id of walk.boards) address.append(BOARDS, id);
  address.set(SECONDS, String(walk.seconds));
}

/** The board that comes after one; the first where that is none of the walk. */
export const boardAfter = ({ boards }: Walk, now: string): string =>
  boards[(boards.indexOf(now) + 1) % boards.length];
