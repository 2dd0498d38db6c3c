import type { KindId } from "../project/schema";
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
import { rose } from "./rose";
import { roundedBars } from "./rounded-bars";
import { waffle } from "./waffle";

/** Every kind, in the order of the gallery. */
export const KINDS: Kind[] = [
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
];

export function kindOf(id: KindId): Kind {
  const kind = KINDS.find((k) => k.id === id);
  if (!kind) throw new Error(`no kind ${id}`);
  return kind;
}
