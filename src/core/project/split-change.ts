import type { Visual } from "./schema";

type Split = Visual["split"];

const isTime = (split: Split): boolean => split?.by !== undefined;
/** What a visual begins with, and what nobody chose as long as it stands so. */
const isUnchosen = ({ by, order }: Visual["order"], time: boolean) =>
  time ? by === "split" && order === "asc" : by === "value" && order === "desc";

/**
 * What becomes of the order of rows when they are split by something else: dates stand in order of time, and
 * other rows by size, unless somebody chose an order.
 */
export function orderAfter({ split, order }: Pick<Visual, "split" | "order">, next: Split): Visual["order"] {
  if (isTime(split) === isTime(next) || next === null || !isUnchosen(order, isTime(split))) return order;
  return isTime(next) ? { by: "split", order: "asc" } : { by: "value", order: "desc" };
}
