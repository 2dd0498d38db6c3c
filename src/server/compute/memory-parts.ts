/** What shares the memory for tables and what is computed of them (`settings.memoryLimit`), as parts of it. */
export const MEMORY_PARTS = {
  /** Columns that all threads see. */
  columns: 0.55,
  /** The cells of boards. */
  cells: 0.25,
  /** What threads compute and remember, each its share. */
  threads: 0.16,
  /** What those who help with scans hold. */
  helpers: 0.04,
} as const;
