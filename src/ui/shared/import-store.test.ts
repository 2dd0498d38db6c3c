import { afterEach, expect, it, vi } from "vitest";
import { MOST } from "@/core/project/most";
import { emptyProject, tableSchema } from "@/core/project/schema";
import { createImportStore } from "./import-store";
import { createProjectStore } from "./project-store";

afterEach(() => vi.unstubAllGlobals());

const table = tableSchema.parse({
  id: "kept-kept-kept-1",
  name: "good",
  rows: 1,
  columns: [{ name: "c", reading: { type: "text" } }],
  source: { file: "good.csv" },
});

/**
 * A stand-in for the network, not for our own code: it answers imports as the server's
 * documented interface does.
 */
function network(): void {
  vi.stubGlobal("fetch", async (path: string) => {
    const name = new URL(path, "http://127.0.0.1").searchParams.get("name");
    const line =
      name === "good.csv"
        ? { table, notes: [], doubts: [] }
        : { error: { code: "not_a_table", message: `There is no table in ${name}.` } };
    return new Response(`${JSON.stringify({ progress: 0.5, rows: 1 })}\n${JSON.stringify(line)}\n`);
  });
}
const stores = () => {
  const project = createProjectStore({
    id: "p",
    name: "P",
    revision: 1,
    changedAt: "",
    document: emptyProject("P"),
  });
  return { project, imports: createImportStore(project) };
};

it("says of every file that could not be brought in why, also when others follow it", async () => {
  network();
  const { project, imports } = stores();
  imports.getState().start(["bad.csv", "good.csv", "worse.csv"].map((name) => new File(["x"], name)));
  await vi.waitFor(() => expect(imports.getState()).toMatchObject({ running: null, waiting: [] }));
  expect(imports.getState().problems).toEqual([
    "bad.csv: There is no table in bad.csv.",
    "worse.csv: There is no table in worse.csv.",
  ]);
  expect(project.getState().document.tables.map((t) => t.name)).toEqual(["good"]);
  expect(imports.getState().arrived).toBe(table.id);
  // The next try begins without them.
  imports.getState().start([new File(["x"], "good.csv")]);
  expect(imports.getState().problems).toEqual([]);
});

it("says before anything is sent that a project has no room for another table", async () => {
  const sent = vi.fn();
  vi.stubGlobal("fetch", sent);
  const { project, imports } = stores();
  const full = Array.from({ length: MOST.project.tables }, (_, i) => ({
    ...table,
    id: `t${i}`,
    name: `t${i}`,
  }));
  project.setState({ document: { ...project.getState().document, tables: full } });
  imports.getState().start(["one.csv", "two.csv"].map((name) => new File(["x"], name)));
  await vi.waitFor(() => expect(imports.getState().waiting).toEqual([]));
  expect(imports.getState().problems).toEqual([
    "one.csv: A project has at most 200 tables. Remove some first.",
    "two.csv: A project has at most 200 tables. Remove some first.",
  ]);
  expect(sent).not.toHaveBeenCalled();
  expect(project.getState().document.tables).toHaveLength(200);
});
