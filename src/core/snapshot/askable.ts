import type { Touched } from "../engine/cells/plan-cells";
import { columnNamed } from "../formula/scope-names";
import type { QueryInput } from "../plan/query";
import { scopeOf } from "../project/names";
import type { Board, Project, Visual } from "../project/schema";
import { filtersOfTile, touchedBy, UNTOUCHED } from "../view/board-state";
import { choicesQuery, MOST_LISTED } from "../view/column-choices";
import { extentQuery } from "../view/column-extent";
import { columnOfPick } from "../view/picks";
import { measuresBehind, proofQuery } from "../view/proofs";
import { toQuery } from "../view/query";
import { textQueries } from "../view/text-names";

/** What is taken out: a board, or visuals with the columns by which a page may filter them. */
export type Taken = { board: string } | { visuals: string[]; filters: Touched[] };

/** A query with what it is of, in words. */
export interface Asked {
  of: string;
  query: QueryInput;
}

/** What may be asked of something that was taken out. */
export interface Askable {
  /** What it asks as it begins. */
  begin: Asked[];
  /** What it asks besides, whatever is filtered; answers do not depend on filters of `touched`. */
  free: Asked[];
  /** What can be filtered. */
  touched: Touched[];
}

/** A board or visuals of a project as they are taken out; null where something is not there. */
export function takenFrom(project: Project, taken: Taken): { board: Board | null; visuals: Visual[] } | null {
  if ("board" in taken) {
    const board = project.boards.find((b) => b.id === taken.board);
    const shown = new Set(board?.tiles.flatMap((t) => (t.type === "visual" ? t.visual : [])));
    return board ? { board, visuals: project.visuals.filter((v) => shown.has(v.id)) } : null;
  }
  const visuals = taken.visuals.flatMap((id) => project.visuals.find((v) => v.id === id) ?? []);
  return visuals.length > 0 && visuals.length === taken.visuals.length ? { board: null, visuals } : null;
}

/** A visual on each of the splits that its reader can step down to. */
const onEachLevel = (visual: Visual): Visual[] =>
  visual.split ? [visual, ...visual.steps.map((split) => ({ ...visual, split }))] : [visual];

/** What settles the proofs of what visuals show. */
function proofsOf(visuals: Visual[], project: Project): Asked[] {
  const behind = new Set(visuals.flatMap((v) => [...measuresBehind(v, project)]));
  return project.measures
    .filter((m) => behind.has(m.id))
    .flatMap((m) =>
      m.proofs.flatMap((proof) => {
        const query = proofQuery(m, proof, project);
        return query ? [{ of: `the tests of ${m.label}`, query }] : [];
      }),
    );
}

/** Values that a reader chooses from. */
function choicesOf({ controls }: Pick<Board, "controls">, project: Project): Asked[] {
  return controls.flatMap((control): Asked[] => {
    if (control.type === "input") {
      const input = project.inputs.find((i) => i.id === control.input);
      const from = input?.choicesFrom;
      return from ? [{ of: input.label, query: choicesQuery(from.table, from.column) }] : [];
    }
    const { table, column, by, label: of, as } = control;
    if (as === "buttons") return [{ of, query: choicesQuery(table, column, by) }];
    return as === "list" || as === "menu"
      ? [{ of, query: choicesQuery(table, column, by, MOST_LISTED) }]
      : [];
  });
}

/** The ends of the stretches that a reader sets. */
const extentsOf = ({ controls }: Pick<Board, "controls">, project: Project): Asked[] =>
  controls.flatMap((c) =>
    c.type === "filter" &&
    c.as === "stretch" &&
    columnNamed(scopeOf(project), c.table, c.column)?.type === "number"
      ? [{ of: c.label, query: extentQuery(c) }]
      : [],
  );

/** The columns of the splits that readers step down to: where they do, the categories above are filters. */
function steppedBy(visuals: Visual[], project: Project): Touched[] {
  const levels = visuals.flatMap((v) => v.steps.map((split) => ({ ...v, split })));
  return levels.flatMap((v) => {
    const place = columnOfPick(v, "split", project);
    return place ? [{ column: `${place.table}.${place.column}`, ...(place.by ? { by: place.by } : {}) }] : [];
  });
}

const isSame = (a: Touched, b: Touched) => a.column === b.column && a.by === b.by;

function askableOfBoard(board: Board, visuals: Visual[], project: Project): Askable {
  const begun = { project, board, state: UNTOUCHED };
  const whole = { ...begun, board: { ...board, controls: [] } };
  const choices = choicesOf(board, project);
  const touched: Touched[] = touchedBy(board, project);
  const tiles = board.tiles.flatMap((tile): { begin: Asked[]; free: Asked[] } | [] => {
    if (tile.type === "text") {
      const asked = (ground: typeof begun) =>
        textQueries(tile, ground).map((query) => ({ of: "a text of the board", query }));
      return { begin: asked(begun), free: asked(whole) };
    }
    const visual = tile.type === "visual" && visuals.find((v) => v.id === tile.visual);
    if (!visual || tile.type !== "visual") return [];
    const filters = filtersOfTile(board, UNTOUCHED, tile, project);
    return {
      begin: askedOf([visual], project, filters),
      free: askedOf(onEachLevel(visual), project),
    };
  });
  return {
    begin: [
      ...tiles.flatMap((t) => t.begin),
      ...choices,
      ...extentsOf(board, project),
      ...proofsOf(visuals, project),
    ],
    free: [...tiles.flatMap((t) => t.free), ...choices],
    touched: [...touched, ...steppedBy(visuals, project).filter((s) => !touched.some((t) => isSame(t, s)))],
  };
}

const askedOf = (visuals: Visual[], project: Project, filters: Parameters<typeof toQuery>[2] = []): Asked[] =>
  visuals.flatMap((v) => {
    const query = toQuery(v, project, filters);
    return query ? [{ of: v.name, query }] : [];
  });

/** What may be asked of a board or of visuals that are taken out of a project. */
export function askableOf(project: Project, taken: Taken): Askable {
  const found = takenFrom(project, taken);
  if (!found) return { begin: [], free: [], touched: [] };
  const { board, visuals } = found;
  if (board) return askableOfBoard(board, visuals, project);
  const asked = askedOf(visuals, project);
  return {
    begin: [...asked, ...proofsOf(visuals, project)],
    free: asked,
    touched: "filters" in taken ? taken.filters : [],
  };
}
