import type { KindId } from "../project/schema";

export type RoleId =
  | "value"
  | "split"
  | "series"
  | "more"
  | "second"
  | "headSize"
  | "pictures"
  | "comparison"
  | "target"
  | "range"
  | "zones"
  | "keep"
  | "order";

/** The roles that each kind has; a sentence keeps the others for kinds that have them. */
export const ROLES: Record<KindId, RoleId[]> = {
  donut: ["value", "more", "split", "series", "order", "keep"],
  "progress ring": ["value", "more", "target", "split", "order", "keep"],
  gauge: ["value", "target", "range", "zones"],
  "progress bar": ["value", "target", "split", "order", "keep"],
  lollipop: ["value", "split", "headSize", "pictures", "order", "keep"],
  "rounded bars": ["value", "split", "series", "order", "keep"],
  "capsule stack": ["value", "split", "series", "order", "keep"],
  "nested bars": ["value", "second", "split", "order", "keep"],
  "radial bars": ["value", "target", "split", "order", "keep"],
  rose: ["value", "split", "order", "keep"],
  waffle: ["value", "target", "split", "order", "keep"],
  number: ["value", "comparison", "split"],
};

export const hasRole = (kind: KindId, role: RoleId): boolean => ROLES[kind].includes(role);
