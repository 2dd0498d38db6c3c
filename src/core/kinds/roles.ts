/**
 * What a phrase of the sentence gives to a kind. A sentence keeps those that its kind has not, for kinds that
 * have them.
 */
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
