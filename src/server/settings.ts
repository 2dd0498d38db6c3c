import { join } from "node:path";

/** Settings of the server, from its environment; `./start` and `serve.ts` set them. */
export const settings = {
  /** The folder with the application's own files. */
  root: process.env.CAVLO_ROOT ?? process.cwd(),
  /** The folder with the projects. */
  data: process.env.CAVLO_DATA ?? join(process.cwd(), "data"),
  /** The largest file to import, in bytes. */
  importLimit: Number(process.env.CAVLO_IMPORT_LIMIT_MB ?? 200) * 1_000_000,
  /** The longest that one import may read, in milliseconds. */
  importTime: Number(process.env.CAVLO_IMPORT_MINUTES ?? 15) * 60_000,
  /** The longest that one question to the compute workers may take, in milliseconds. */
  queryTime: Number(process.env.CAVLO_QUERY_SECONDS ?? 30) * 1000,
  /** Memory for tables and for what was computed from them, over all compute workers, in bytes. */
  memoryLimit: Number(process.env.CAVLO_MEMORY_MB ?? 1500) * 1_000_000,
};
