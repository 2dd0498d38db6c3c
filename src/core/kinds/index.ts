import type { RoleId } from "../project/roles";
import type { Kind } from "./anatomy/kind";
import { capsuleStack } from "./capsule-stack";
import type { CapsuleStackPart } from "./capsule-stack/parts";
import { donut } from "./donut";
import type { DonutPart } from "./donut/parts";
import { gauge } from "./gauge";
import type { GaugePart } from "./gauge/parts";
import { lollipop } from "./lollipop";
import type { LollipopPart } from "./lollipop/parts";
import { nestedBars } from "./nested-bars";
import type { NestedBarsPart } from "./nested-bars/parts";
import { numberCard } from "./number";
import type { NumberCardPart } from "./number/parts";
import { progressBar } from "./progress-bar";
import type { ProgressBarPart } from "./progress-bar/parts";
import { progressRing } from "./progress-ring";
import type { ProgressRingPart } from "./progress-ring/parts";
import { radialBars } from "./radial-bars";
import type { RadialBarsPart } from "./radial-bars/parts";
import { rose } from "./rose";
import type { RosePart } from "./rose/parts";
import { roundedBars } from "./rounded-bars";
import type { RoundedBarsPart } from "./rounded-bars/parts";
import { waffle } from "./waffle";
import type { WafflePart } from "./waffle/parts";

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

/** The id of a kind. */
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

/** The kind that shows rows side by side by their length alone: what parts that make no whole are mended to. */
export const SIDE_BY_SIDE = roundedBars;

/** Whether the sentence of a kind has a role. */
export const hasRole = (kind: string, role: RoleId): boolean => kindOf(kind).roles.includes(role);

/** A part of any kind. */
export type KindPart =
  | CapsuleStackPart
  | DonutPart
  | GaugePart
  | LollipopPart
  | NestedBarsPart
  | NumberCardPart
  | ProgressBarPart
  | ProgressRingPart
  | RadialBarsPart
  | RosePart
  | RoundedBarsPart
  | WafflePart;
