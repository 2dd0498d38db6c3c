import type { Kind } from "./anatomy/kind";
import { capsuleStack } from "./capsule-stack";
import { donut } from "./donut";
import { gauge } from "./gauge";
import { lollipop } from "./lollipop";
import { nestedBars } from "./nested-bars";
import { numberCard } from "./number";
import { progressBar } from "./progress-bar";
import { progressRing } from "./progress-ring";
import { radialBars } from "./radial-bars";
import type { RoleId } from "./roles";
import { rose } from "./rose";
import { roundedBars } from "./rounded-bars";
import { waffle } from "./waffle";

/** Every kind, in the order of the gallery. */
export const KINDS = [
  donut,
  progressRing,
  gauge,
  progressBar,
  lollipop,
  roundedBars,
  capsuleStack,
  nestedBars,
  radialBars,
  rose,
  waffle,
  numberCard,
] as const satisfies readonly Kind[];

export type KindId = (typeof KINDS)[number]["id"];

const byId = new Map<string, Kind<KindId>>(KINDS.map((kind) => [kind.id, kind]));

/** Whether there is a kind of this id. */
export const isKind = (id: string): id is KindId => byId.has(id);

/** A kind by its id. Throws where there is none; a document names only kinds that are there. */
export function kindOf(id: string): Kind<KindId> {
  const kind = byId.get(id);
  if (!kind) throw new Error(`no kind ${id}`);
  return kind;
}

/** Whether the sentence of a kind has a role. */
export const hasRole = (kind: string, role: RoleId): boolean => kindOf(kind).roles.includes(role);
