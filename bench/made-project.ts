import { seeded } from "@/demo/random";
import { BASE } from "./server";

/** Posts JSON to the server of the benchmarks. */
export const post = async (path: string, body: unknown) =>
  (
    await fetch(BASE + path, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: JSON.stringify(body),
    })
  ).json();

/** A day of the table, by its number. */
export const dayOf = (n: number) => new Date(Date.UTC(2024, 0, 1 + n)).toISOString().slice(0, 10);

/** Makes a project with a table of so many rows; `more` is what its document has besides. */
export async function madeProject(rows: number, more: object = {}) {
  const { project } = await post("/api/projects", { name: "Made" });
  const random = seeded(1);
  const upTo = (many: number) => Math.floor(random() * many);
  function* lines(): Generator<Uint8Array> {
    const encoder = new TextEncoder();
    yield encoder.encode("route,vessel,channel,fare_class,day,passengers,delay,revenue\n");
    for (let i = 0; i < rows; i += 50_000)
      yield encoder.encode(
        Array.from(
          { length: Math.min(50_000, rows - i) },
          () =>
            `Route ${upTo(24)},Vessel ${upTo(417)},Channel ${upTo(6)},Class ${upTo(4)},${dayOf(upTo(900))},${upTo(120)},${upTo(40) - 5},${upTo(90_000) / 100}\n`,
        ).join(""),
      );
  }
  const source = lines();
  const body = new ReadableStream({
    pull(controller) {
      const { value, done } = source.next();
      if (done) controller.close();
      else controller.enqueue(value);
    },
  });
  const imported = await fetch(`${BASE}/api/projects/${project.id}/tables?name=rows.csv`, {
    method: "POST",
    body,
    duplex: "half",
  } as RequestInit);
  const last = JSON.parse((await imported.text()).trim().split("\n").at(-1) as string);
  if (!last.table) throw new Error(JSON.stringify(last).slice(0, 500));
  const { project: saved } = await (await fetch(`${BASE}/api/projects/${project.id}`)).json();
  const document = { ...saved.document, tables: [last.table], ...more };
  const put = await fetch(`${BASE}/api/projects/${project.id}`, {
    method: "PUT",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ revision: saved.revision, document }),
  });
  if (!put.ok) throw new Error(await put.text());
  return { id: project.id as string, document };
}
