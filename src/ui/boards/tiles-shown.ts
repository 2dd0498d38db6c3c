"use client";
import { useCallback, useMemo, useRef } from "react";
import type { TemplateNames } from "@/core/base/template";
import type { Filter, QueryInput } from "@/core/plan/query";
import type { Board, Tile, Visual } from "@/core/project/schema";
import { visualOnBoard } from "@/core/view/board-look";
import { type BoardState, inputsOf, tileFilters, wholeFor } from "@/core/view/board-state";
import { textNames, wholeForText } from "@/core/view/text-names";
import { failingProofs } from "@/present/proof-notes";
import { useDesign } from "../shared/design";
import { useProject } from "../shared/project-context";
import { type Answer, useResults } from "../shared/results";
import { useTheme } from "../shared/theme";
import { type AskedVisual, type Pictured, usePictured } from "../shared/visual-data";

type VisualOnTile = Extract<Tile, { type: "visual" }>;

/** What a tile with a visual shows while its board is arranged: what its readers see. */
export interface ShownVisual extends Pictured {
  /** The visual as the document has it, and in the look of the board. */
  kept: Visual;
  visual: Visual;
  notes: string[];
  failing: string[];
}

const FIELDS = ["data", "pending", "kept", "visual", "notes", "failing"] as const;

/** What is told with answers, once these are there: it is tried first to learn which queries it asks. */
function useAnswered<T>(tell: (answer: (query: QueryInput) => Answer | null) => T): T {
  const asked = new Map<string, QueryInput>();
  tell((query) => {
    asked.set(JSON.stringify(query), query);
    return null;
  });
  const keys = [...asked.keys()];
  const answers = useResults([...asked.values()]);
  const known = new Map(keys.map((key, i) => [key, answers[i]]));
  return tell((query) => known.get(JSON.stringify(query)) ?? null);
}

/** What a text says while its board is arranged. */
export interface ShownText {
  names: TemplateNames;
  notes: string[];
}

/** Gives the same object for what says the same, so that nothing is made anew for a place that changes. */
function useSame<T>(): (key: string, value: T) => T {
  const known = useRef(new Map<string, { text: string; value: T }>());
  return useCallback((key, value) => {
    const text = JSON.stringify(value);
    const before = known.current.get(key);
    if (before?.text === text) return before.value;
    known.current.set(key, { text, value });
    return value;
  }, []);
}

/** What the tiles of a board show, by their ids, as its reader has set it: visuals, and the names in texts. */
export function useTilesShown(board: Board, state: BoardState) {
  const project = useProject((s) => s.document);
  const theme = useTheme((s) => s.theme);
  const design = useDesign();
  const inputs = useMemo(() => inputsOf(project.inputs, state), [project.inputs, state]);
  const { tiles, controls, look } = board;
  const sameFilters = useSame<Filter[]>();
  const sameWords = useSame<string[]>();
  const asked = useMemo(
    () =>
      tiles.flatMap((tile): (AskedVisual & { kept: Visual; tile: VisualOnTile })[] => {
        const kept = tile.type === "visual" && project.visuals.find((v) => v.id === tile.visual);
        if (!kept || tile.type !== "visual") return [];
        const visual = visualOnBoard(kept, tile, { tiles, look }, { theme, design });
        const filters = sameFilters(tile.id, tileFilters({ controls }, state, tile, project, false).all);
        return [{ key: tile.id, kept, visual, tile, filters }];
      }),
    [tiles, controls, look, state, project, theme, design, sameFilters],
  );
  const data = usePictured(asked, inputs);
  const { failing, texts } = useAnswered((answer) => ({
    failing: asked.map(({ kept }) => failingProofs(kept, project, answer)),
    texts: new Map(
      tiles.flatMap((tile): [string, ShownText][] => {
        if (tile.type !== "text") return [];
        const ground = { project, board, state };
        const notes = wholeForText(tile, ground).map((label) => `whole for ${label}`);
        return [[tile.id, { names: textNames(tile, ground, answer), notes }]];
      }),
    ),
  }));
  const known = useRef(new Map<string, ShownVisual>());
  const visuals = new Map(
    asked.map(({ key, kept, visual, tile }, i): [string, ShownVisual] => {
      const whole = wholeFor(board, state, tile, project).map((label) => `whole for ${label}`);
      const notes = sameWords(`notes ${key}`, whole);
      const now = { ...data[i], kept, visual, notes, failing: sameWords(`failing ${key}`, failing[i]) };
      const before = known.current.get(key);
      const isSame = before && FIELDS.every((field) => before[field] === now[field]);
      if (!isSame) known.current.set(key, now);
      return [key, isSame ? before : now];
    }),
  );
  return { visuals, texts };
}
export type TilesShown = ReturnType<typeof useTilesShown>;
