import { nanoid } from "nanoid";
import { cutText } from "@/core/base/cut-text";
import { emptyProject, type Project, tableSchema } from "@/core/project/schema";
import { HttpError } from "../http/errors";
import { writeAbout } from "../store/about-table";
import { database } from "../store/database";
import { createProject, knownTables, type ProjectSummary, registerTable } from "../store/projects";
import { reclaimFiles, removeUnclaimed, type UnclaimedTable, unclaimedTables } from "../store/unclaimed";

/**
 * Tables that no project names, by the project that they were of. Those that cannot be known again stand
 * under no project.
 */
export interface UnclaimedGroup {
  /** The id of the project that they were of, or "" where that is not known. */
  project: string;
  name: string;
  tables: { id: string; name: string; rows: number | null }[];
}

const projectOf = (t: UnclaimedTable) => t.about?.project.id ?? "";

/** The stored tables that no project names, by the project they were of. */
export function unclaimedGroups(): UnclaimedGroup[] {
  const groups = new Map<string, UnclaimedGroup>();
  for (const table of unclaimedTables(knownTables())) {
    const project = projectOf(table);
    const group = groups.get(project) ?? { project, name: table.about?.project.name ?? "", tables: [] };
    group.tables.push({ id: table.id, name: table.about?.name ?? table.id, rows: table.about?.rows ?? null });
    groups.set(project, group);
  }
  return [...groups.values()];
}

function tablesOfGroup(project: string): UnclaimedTable[] {
  const found = unclaimedTables(knownTables()).filter((t) => projectOf(t) === project);
  if (found.length === 0)
    throw new HttpError(
      404,
      "no_tables",
      "There are no such tables any more. Load the list of projects again.",
    );
  return found;
}

/** Makes a project out of the tables that were of one project and that no project names any more. */
export function reclaimGroup(project: string): ProjectSummary {
  const tables = tablesOfGroup(project).filter((t) => t.about !== null);
  if (tables.length === 0)
    throw new HttpError(
      422,
      "unknown_tables",
      "What these tables hold is not known any more, so they cannot be brought back. Their files are kept in the data folder.",
    );
  const name = cutText(`${tables[0].about?.project.name || "Tables"} (brought back)`, 120);
  const names = new Set<string>();
  const declared = tables.flatMap(({ id, about }): Project["tables"] => {
    if (!about) return [];
    let free = about.name;
    for (let n = 2; names.has(free.toLowerCase()); n++) free = `${cutText(about.name, 110)}_${n}`;
    names.add(free.toLowerCase());
    return [
      tableSchema.parse({
        id,
        name: free,
        rows: about.rows,
        columns: about.columns,
        source: { file: about.name },
      }),
    ];
  });
  const id = nanoid(12);
  for (const table of tables) {
    reclaimFiles(table);
    if (table.about) writeAbout({ ...table.about, project: { id, name } });
  }
  return database()
    .transaction(() => {
      const made = createProject({ ...emptyProject(name), tables: declared }, id);
      for (const t of declared) registerTable(id, { id: t.id, rows: t.rows, columns: t.columns.length });
      return made;
    })
    .immediate();
}

/** Removes the tables of a group for good, because somebody said so. */
export function removeGroup(project: string): void {
  for (const table of tablesOfGroup(project)) removeUnclaimed(table);
}
