"use client";
import { useState } from "react";
import type { TableInfo } from "@/core/project/schema";
import type { TableFormat } from "@/render/table/table-file";
import { api } from "../shared/api";
import { Choose } from "../shared/choose";
import { useProjectStore } from "../shared/project-context";
import { TABLE_FORMAT_LABELS } from "../shared/table-formats";

/** Takes a table out of Cavlo as a file, with its derived columns. */
export function TableExport({ table }: { table: TableInfo }) {
  const store = useProjectStore();
  const [format, setFormat] = useState<TableFormat>("csv");
  const take = async () => {
    await store.getState().flush();
    const link = document.createElement("a");
    link.href = api.tableAddress(store.getState().id, table.name, format);
    link.click();
  };
  return (
    <div className="grid grid-cols-[1fr_auto] gap-1.5">
      <Choose
        label="Format"
        value={format}
        options={TABLE_FORMAT_LABELS}
        onChange={(f) => setFormat(f as TableFormat)}
      />
      <button type="button" className="button" onClick={() => void take()}>
        Take it out
      </button>
    </div>
  );
}
