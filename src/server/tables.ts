import { findNamed } from "@/core/base/names";
import type { TableInfo } from "@/core/project/schema";
import { HttpError } from "./http/errors";
import { readProject } from "./store/projects";

/** A table of a project by its name, without regard to case. Throws 404 where there is none. */
export function findTable(projectId: string, name: string): TableInfo {
  const { document } = readProject(projectId);
  const table = findNamed(document.tables, name);
  if (!table) throw new HttpError(404, "no_table", `This project has no table called “${name}”.`);
  return table;
}
