import type { TableFormat } from "@/render/table/table-file";

/** The formats in which tables and results are taken out, as a list to choose from. */
export const TABLE_FORMAT_LABELS: { value: TableFormat; label: string }[] = [
  { value: "csv", label: "CSV" },
  { value: "xlsx", label: "XLSX workbook" },
  { value: "json", label: "JSON" },
  { value: "ndjson", label: "NDJSON, one row a line" },
];
