import { join } from "node:path";

/** Settings of the server, from its environment; `./start` and `serve.ts` set them. */
export const settings = {
  /** The folder with the application's own files. */
  root: process.env.CAVLO_ROOT ?? process.cwd(),
  /** The folder with the projects. */
  data: process.env.CAVLO_DATA ?? join(process.cwd(), "data"),
  /** The largest file to import, in bytes. */
  importLimit: Number(process.env.CAVLO_IMPORT_LIMIT_MB ?? 200) * 1_000_000,
  /** Memory for tables in the compute worker, in bytes. */
  memoryLimit: Number(process.env.CAVLO_MEMORY_MB ?? 1500) * 1_000_000,
};
