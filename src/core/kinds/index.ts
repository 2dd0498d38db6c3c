import type { KindId } from "../project/schema";
import { donut } from "./donut";
import { gauge } from "./gauge";
import type { Kind } from "./kind";
import { progressBar } from "./progress-bar";

/** Every kind, in the order of the gallery. */
export const KINDS: Kind[] = [donut, gauge, progressBar];

export function kindOf(id: KindId): Kind {
  const kind = KINDS.find((k) => k.id === id);
  if (!kind) throw new Error(`no kind ${id}`);
  return kind;
}
