import { sameName } from "../base/names";
import type { Named } from "./names";
import type { Project, Visual } from "./schema";

type Known = Pick<Named, "measures">;

/** What a split is called: its column, or the stretch of time it is by. */
const splitWord = ({ column, by }: NonNullable<Visual["split"]>) =>
  by ?? column.slice(column.lastIndexOf(".") + 1).replaceAll("_", " ");

/** What a visual is called by itself: "Passengers by route", as its title begins. Empty without a value. */
function madeName({ value, split, title }: Visual, { measures }: Known): string {
  const label = measures.find((m) => m.id === value)?.label ?? "";
  return split && label && title !== "{measure}" ? `${label} by ${splitWord(split)}` : label;
}

/** A made name that is not taken: told apart by the kind, then by a number. */
export function freeMadeName(visual: Visual, project: Known, taken: readonly string[]): string {
  const name = madeName(visual, project);
  const isTaken = (candidate: string) => taken.some((t) => sameName(t, candidate));
  if (!isTaken(name)) return name;
  const ofKind = `${name}, ${visual.kind}`;
  for (let n = 1; ; n++) {
    const candidate = n === 1 ? ofKind : `${ofKind} ${n}`;
    if (!isTaken(candidate)) return candidate;
  }
}

/** Whether a visual's name was made from its sentence, and typed by nobody. */
function isMade(visual: Visual, project: Known): boolean {
  const made = madeName(visual, project);
  if (made === "" || !visual.name.startsWith(made)) return false;
  const rest = visual.name.slice(made.length);
  const told = rest.startsWith(`, ${visual.kind}`) ? rest.slice(visual.kind.length + 2) : rest;
  return /^( \d+)?$/.test(told);
}

/**
 * The project in which the names of visuals that were made from their sentences follow what these say now.
 * `before` is the project that it was; what somebody typed stays.
 */
export function withFollowedNames(project: Project, before: Project): Project {
  if (project.visuals === before.visuals && project.measures === before.measures) return project;
  const names = project.visuals.map((v) => v.name);
  const visuals = project.visuals.map((visual, at) => {
    const was = before.visuals.find((v) => v.id === visual.id);
    const isSame = was === visual && project.measures === before.measures;
    if (!was || isSame || was.name !== visual.name || !isMade(was, before) || isMade(visual, project))
      return visual;
    const name = freeMadeName(visual, project, names.toSpliced(at, 1));
    if (name === "") return visual;
    names[at] = name;
    return { ...visual, name };
  });
  return visuals.every((v, i) => v === project.visuals[i]) ? project : { ...project, visuals };
}
