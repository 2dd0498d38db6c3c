import type { Value } from "@/core/base/value";
import type { Filter, QueryInput } from "@/core/plan/query";
import type { Project, Visual } from "@/core/project/schema";
import type { RowKey } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import type { CategoryOf } from "@/core/scene/marks";
import { behindQuery } from "@/core/view/behind-query";
import type { BoardAction, BoardState } from "@/core/view/board-state";
import { isPickable } from "@/core/view/picks";
import { spoken } from "@/core/view/spoken";
import { canStepDown, splitBelow } from "@/core/view/steps";
import type { MenuItem } from "./menu";
import type { BehindAsked } from "./rows-sheet";

/** A category of a visual with what it is called. */
export type NamedCategory = CategoryOf & { label: string };

/** A visual on a board, as its reader sees it. */
export interface OnTile {
  visual: Visual;
  /** The same as it is stepped down in, and the categories that it was stepped down from. */
  seen: Visual;
  path: readonly RowKey[];
  data: VisualData;
}

/** What a pick on a visual does: the others answer, and it keeps its whole. */
export function pickOn(
  { visual, data }: Pick<OnTile, "visual" | "data">,
  act: (action: BoardAction) => void,
): (picked: CategoryOf, more: boolean) => void {
  return ({ key, side }, more) => {
    const shown = (side === "series" ? data.series : data.rows).map((r) => r.key);
    if (isPickable(key)) act({ type: "pick", visual: visual.id, side, key, more, shown });
  };
}

/** What can be done with a category of a visual, or with the visual as a whole: picks and steps. */
export function menuOf(
  on: OnTile,
  category: NamedCategory | null,
  state: BoardState,
  act: (action: BoardAction) => void,
): MenuItem[] {
  const { visual, path } = on;
  const up: MenuItem[] =
    path.length === 0
      ? []
      : [
          {
            text: "Step back up",
            run: () => act({ type: "step up", visual: visual.id, to: path.length - 1 }),
          },
        ];
  if (!category || !isPickable(category.key)) return up;
  const { key, side, label } = category;
  const pick = pickOn(on, act);
  const picked = state.picks.find((p) => p.visual === visual.id && p.side === side);
  const isPicked = picked?.keys.includes(key) ?? false;
  const below = side === "split" && canStepDown(spoken(visual), path, key) ? splitBelow(visual, path) : null;
  return [
    { text: isPicked ? `Clear ${label}` : `Pick ${label}`, run: () => pick(category, isPicked) },
    ...(picked && !isPicked ? [{ text: `Pick ${label} too`, run: () => pick(category, true) }] : []),
    ...(below
      ? [
          {
            text: `Step down in ${label}, to ${below.by ?? below.column}`,
            run: () => act({ type: "step down", visual: visual.id, key }),
          },
        ]
      : []),
    ...up,
  ];
}

/** The rows behind a category of a visual, and behind all of it. */
export function rowsItems(
  { seen, data }: Pick<OnTile, "seen" | "data">,
  category: NamedCategory | null,
  project: Project,
  around: { filters: Filter[]; inputs: Record<string, Value> },
  onRows: (asked: BehindAsked) => void,
): MenuItem[] {
  const item = (name: string, query: QueryInput | null): MenuItem[] =>
    query ? [{ text: `Rows behind ${name}`, run: () => onRows({ name, query }) }] : [];
  return [
    ...(category ? item(category.label, behindQuery(seen, project, around, { ...category, data })) : []),
    ...item(seen.name, behindQuery(seen, project, around, null)),
  ];
}
