// Import of a CSV with a million rows and eight columns beside the bare parser over the same file, its peak
// memory, and opening the table again.

import { once } from "node:events";
import { createReadStream, createWriteStream, mkdirSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parse } from "csv-parse";
import { isoDate } from "@/core/base/calendar";
import { tableSchema } from "@/core/project/schema";
import { seeded } from "@/demo/random";
import { TableCache } from "@/server/compute/table-cache";
import { readTable } from "@/server/import/read-table";
import { settings } from "@/server/settings";
import { ms } from "./median";

const ROWS = Number(process.argv[3] ?? 1_000_000);
settings.data = mkdtempSync(join(tmpdir(), "cavlo-bench-"));
mkdirSync(join(settings.data, "tables"));
const file = join(settings.data, "rows.csv");
const random = seeded(1);
const out = createWriteStream(file);
out.write("route,vessel,day,passengers,delay,revenue,ticket,late\n");
for (let i = 0; i < ROWS; i++) {
  const line = `Route ${Math.floor(random() * 24)},Vessel ${Math.floor(random() * 417)},${isoDate(19_723 + Math.floor(random() * 900))},${Math.floor(random() * 120)},${Math.floor(random() * 40) - 5},${(Math.floor(random() * 90_000) / 100).toFixed(2)},T${Math.floor(random() * 50_000)},${random() < 0.1}\n`;
  if (!out.write(line)) await once(out, "drain");
}
out.end();
await once(out, "close");

/**
 * Runs work and gives its milliseconds and the highest resident memory meanwhile, in MB above what there was.
 */
async function measured(work: () => Promise<unknown>): Promise<{ took: number; peak: number }> {
  const before = process.memoryUsage().rss;
  let peak = before;
  const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 20);
  const began = performance.now();
  await work();
  clearInterval(watch);
  return { took: performance.now() - began, peak: peak / 1e6 };
}

const bare = await measured(async () => {
  const parser = createReadStream(file, { highWaterMark: 1 << 18 }).pipe(parse({}));
  let rows = 0;
  for await (const _ of parser) rows++;
  return rows;
});
let read: Awaited<ReturnType<typeof readTable>> | null = null;
const ours = await measured(async () => {
  read = await readTable("t", file, "rows.csv", {}, () => {});
});
const table = tableSchema.parse({
  id: "t",
  name: "rows",
  rows: ROWS,
  columns: (read as unknown as Awaited<ReturnType<typeof readTable>>).columns,
  source: { file: "rows.csv" },
});
const opened = await measured(async () => {
  for (const column of new TableCache(1e10).table(table).columns) void column.data;
});
const again = await measured(async () => {
  for (const column of new TableCache(1e10).table(table).columns) void column.data;
});
console.log(`${ROWS.toLocaleString("en")} rows, 8 columns`);
console.log(`bare parser   ${ms(bare.took)}`);
console.log(
  `import        ${ms(ours.took)}: ${(ours.took / bare.took).toFixed(2)} times the bare parser; peak memory of the process ${ours.peak.toFixed(0)} MB`,
);
console.log(`first opening ${ms(opened.took)}, opening again ${ms(again.took)}`);
rmSync(settings.data, { recursive: true });
process.exit(0);
