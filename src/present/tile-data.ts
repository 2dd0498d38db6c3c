import { own } from "@/core/base/own";
import type { Filter, QueryInput } from "@/core/plan/query";
import type { Project, Visual } from "@/core/project/schema";
import type { RowKey } from "@/core/rows/row-key";
import type { VisualData } from "@/core/rows/visual-data";
import type { ShareOf } from "@/core/scene/part-of";
import { visualOnBoard } from "@/core/view/board-look";
import { type BoardState, type inputsOf, tileFilters } from "@/core/view/board-state";
import { partShares } from "@/core/view/part-shares";
import type { Design } from "@/core/view/picture";
import { toQuery } from "@/core/view/query";
import { steppedVisual } from "@/core/view/steps";
import { toVisualData } from "@/core/view/visual-data";
import type { Answers } from "./answers";
import type { Presented } from "./board-controls";
import type { VisualOnTile } from "./board-grid";
import { canLightUp } from "./visual-tile";

/** A visual with all of its categories: what of each is picked, the largest few would not say. */
const allOfIt = (visual: Visual): Visual => ({ ...visual, keep: null });

/** What a tile shows, and what it was made of. */
interface Known {
  of: unknown[];
  data: VisualData;
  part: ShareOf | null;
  /** Whether it cannot light up a part. */
  keepsOnly: boolean;
}

/** What a tile asks, and of what: the same queries while that is the same. */
interface Asked {
  seen: Visual;
  project: Project;
  around: string;
  query: QueryInput | null;
  partQuery: QueryInput | null;
}

/** What a tile shows now. */
export interface TileNow extends Omit<Known, "of"> {
  /** The visual as it is drawn: in the look of the board, and stepped down in by this path. */
  seen: Visual;
  path: readonly RowKey[];
  pending: boolean;
  filters: Filter[];
}

/** What tiles are shown with. */
export interface TileGround extends Presented {
  state: BoardState;
  inputs: ReturnType<typeof inputsOf>;
  design: Design;
  theme: "light" | "night";
  /** The answer to a query as far as it is there; it is asked otherwise. */
  answer: (query: QueryInput) => ReturnType<Answers["of"]>;
}

/** What the visuals of a board show, by their tiles: the same objects until something that they depend on changes. */
export class TilesData {
  private readonly known = new Map<string, Known>();
  /** What tiles asked last, with a part to light up and without. */
  private readonly asked = new Map<string, Asked>();
  /** Visuals that were stepped down in. */
  private readonly stepped = new Map<string, { of: Visual; path: readonly RowKey[]; seen: Visual }>();

  clear(): void {
    this.known.clear();
    this.asked.clear();
  }

  /** What a tile shows: what it showed before while its answer is under way. */
  of(tile: VisualOnTile, visual: Visual, ground: TileGround): TileNow {
    const { seen, path } = this.seenOn(tile, visual, ground);
    const before = this.known.get(tile.id);
    const shownWith = (canLight: boolean) => {
      const { asked, filters } = this.askedOf(tile, seen, ground, canLight);
      return this.made(asked, before, filters, ground);
    };
    const first = shownWith(true);
    // What cannot light up a part keeps only it, and says so.
    const { data, part, pending, filters } = first.keepsOnly ? shownWith(false) : first;
    const { keepsOnly } = first;
    if (!pending || !before) this.known.set(tile.id, { of: first.of, data, part, keepsOnly });
    return { seen, path, data, part, keepsOnly, pending, filters };
  }

  /** What a tile asks, as far as that is known before it is answered. */
  queries(tile: VisualOnTile, visual: Visual, ground: TileGround): QueryInput[] {
    const { seen } = this.seenOn(tile, visual, ground);
    const { asked } = this.askedOf(tile, seen, ground, true);
    return [asked.query, asked.partQuery].filter((query) => query !== null);
  }

  /** The visual of a tile as it is seen on its board, and the path that it was stepped down by. */
  private seenOn(tile: VisualOnTile, visual: Visual, { board, state, design, theme }: TileGround) {
    const path = own(state.steps, visual.id) ?? [];
    return { path, seen: this.seen(tile.id, visualOnBoard(visual, tile, board, { theme, design }), path) };
  }

  private askedOf(tile: VisualOnTile, seen: Visual, ground: TileGround, canLight: boolean) {
    const { board, state, project } = ground;
    const { all: filters, part: further } = tileFilters(board, state, tile, project, canLight);
    const name = JSON.stringify([tile.id, canLight]);
    return { filters, asked: this.askedBy(name, seen, { filters, further }, ground) };
  }

  private askedBy(
    name: string,
    seen: Visual,
    { filters, further }: { filters: Filter[]; further: Filter[] },
    { project, inputs }: TileGround,
  ): Asked {
    const around = JSON.stringify([filters, further, inputs]);
    const before = this.asked.get(name);
    if (before?.seen === seen && before.project === project && before.around === around) return before;
    const query = toQuery(seen, project, filters, inputs);
    const partQuery =
      further.length > 0 ? toQuery(allOfIt(seen), project, [...filters, ...further], inputs) : null;
    const asked = { seen, project, around, query, partQuery };
    this.asked.set(name, asked);
    return asked;
  }

  private made(
    { seen, around, query, partQuery }: Asked,
    before: Known | undefined,
    filters: Filter[],
    { project, inputs, design, answer: answerOf }: TileGround,
  ): Known & { pending: boolean; filters: Filter[] } {
    const answerTo = (query: QueryInput | null) => query && answerOf(query);
    const answer = answerTo(query);
    const partAnswer = answerTo(partQuery);
    const of = [answer, partAnswer, seen, project, around];
    const pending = (query !== null && answer === null) || (partQuery !== null && partAnswer === null);
    if (before && (pending || before.of.every((x, i) => x === of[i]))) return { ...before, pending, filters };
    const data = toVisualData(seen, project, answer, { inputs, filters });
    const picked = partAnswer && toVisualData(allOfIt(seen), project, partAnswer, { inputs, filters });
    const part = picked && partShares(data, picked);
    const isLit = part !== null && canLightUp(seen, data, design, part);
    const keepsOnly = partQuery !== null && !pending && !isLit;
    return { of, data, part: isLit ? part : null, keepsOnly, pending, filters };
  }

  /** The visual as it is stepped down in: the same object while it is the same. */
  private seen(tile: string, visual: Visual, path: readonly RowKey[]): Visual {
    const known = this.stepped.get(tile);
    if (known?.of === visual && known.path === path) return known.seen;
    const seen = steppedVisual(visual, path);
    this.stepped.set(tile, { of: visual, path, seen });
    return seen;
  }
}
