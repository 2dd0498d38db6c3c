// Clicks on a board over the server: twelve visuals and three controls, before its cells are gathered and
// after, how long gathering takes, and how much it delays others. node bench/run.mjs clicks [rows]
import type { Filter } from "@/core/plan/query";
import { boardQueries, touched } from "./made-board";
import { dayOf, madeProject, post } from "./made-project";
import { median, ms } from "./median";
import { BASE, startServer } from "./server";

const ROWS = Number(process.argv[3] ?? 1_000_000);
process.env.CAVLO_IMPORT_LIMIT_MB = "2000";
const server = await startServer(["--no-demo"]);
const { id, document } = await madeProject(ROWS);

// As the application sends it with every question.
const { tables, links, measures, inputs, conventions } = document;
const draft = { tables, links, measures, inputs, conventions };
let step = 0;
const CLICKS: Record<string, () => Filter[]> = {
  "a value of one control": () => [{ column: "channel", in: [`Channel ${step++ % 6}`] }],
  "a range of days": () => [{ column: "day", from: dayOf(step++ * 7), to: "2026-05-15" }],
  "all three controls": () => [
    { column: "channel", in: ["Channel 1", "Channel 2"] },
    { column: "fare_class", in: [`Class ${step++ % 4}`] },
    { column: "day", from: dayOf(step * 11), to: "2026-04-30" },
  ],
};
const results = `/api/projects/${id}/results`;
const inside: number[] = [];
async function clicks(filters: () => Filter[], times: number): Promise<number[]> {
  const took: number[] = [];
  for (let i = 0; i < times; i++) {
    const asked = boardQueries(filters());
    const began = performance.now();
    const answer = await post(results, { queries: asked, draft });
    took.push(performance.now() - began);
    inside.push(Math.max(...answer.results.map((r: { ms?: number }) => r.ms ?? 0)));
    if (answer.results.some((r: object) => "error" in r))
      throw new Error(JSON.stringify(answer).slice(0, 500));
  }
  return took;
}
const cells = async () => (await (await fetch(`${BASE}/api/health`)).json()).cells;

await clicks(CLICKS["a range of days"], 3);
const before: Record<string, number> = {};
for (const [label, filters] of Object.entries(CLICKS)) before[label] = median(await clicks(filters, 9));
const calm = await clicks(CLICKS["a range of days"], 15);

const began = performance.now();
await post(`/api/projects/${id}/cells`, {
  board: "one",
  queries: boardQueries([]),
  touched,
  now: [],
  draft,
});
const delayed: number[] = [];
for (let i = 0; i < 15 && (await cells()).boards === 0; i++) {
  delayed.push(...(await clicks(CLICKS["a range of days"], 1)));
  await new Promise((resolve) => setTimeout(resolve, 300));
}
while ((await cells()).boards === 0) await new Promise((resolve) => setTimeout(resolve, 50));
const built = performance.now() - began;
const { bytes } = await cells();
console.log(
  `${ROWS.toLocaleString("en")} rows; cells gathered in ${ms(built)} with ${delayed.length} clicks between, ${(bytes / 1e6).toFixed(0)} MB`,
);
console.log(
  `a click meanwhile: median ${ms(median(delayed))}, worst ${ms(Math.max(...delayed))}; without gathering median ${ms(median(calm))}, worst ${ms(Math.max(...calm))}`,
);
for (const [label, filters] of Object.entries(CLICKS)) {
  const { scanned } = await cells();
  inside.length = 0;
  const took = await clicks(filters, 60);
  const missed = (await cells()).scanned - scanned;
  console.log(
    `${label.padEnd(24)} ${ms(median(took)).padStart(8)} from cells (${ms(median(inside))} in the thread, worst ${ms(Math.max(...took))}, ${missed} of ${60 * 12} answers scanned), ${ms(before[label]).padStart(8)} scanned, ratio ${(median(took) / before[label]).toFixed(3)}`,
  );
}
await server.restart();
const restarted = performance.now();
await post(results, { queries: [boardQueries([])[0]], draft });
console.log(`first answer after a restart: ${ms(performance.now() - restarted)}`);
server.stop();
process.exit(0);
