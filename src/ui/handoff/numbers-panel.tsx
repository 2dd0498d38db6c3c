"use client";
import { Download } from "lucide-react";
import { formatNumber } from "@/core/base/number-format";
import type { Visual } from "@/core/project/schema";
import type { VisualData } from "@/core/rows/visual-data";
import { api } from "../shared/api";
import { useProject } from "../shared/project-context";
import { AddressLine } from "./address-line";
import { useTaking } from "./taking";

const FILES = ["csv", "xlsx", "json", "ndjson"] as const;

/** The numbers of a visual as a file, and their address. */
export function NumbersPanel({ visual, data }: { visual: Visual; data: VisualData }) {
  const id = useProject((s) => s.id);
  const take = useTaking();
  return (
    <>
      <h2 className="section-title">Numbers</h2>
      <p className="text-sm text-muted">
        {data.rows.length} {data.rows.length === 1 ? "row" : "rows"}, {data.valueLabel.toLowerCase()}{" "}
        {formatNumber(data.total, data.format)} in all.
      </p>
      <div className="grid grid-cols-2 gap-2">
        {FILES.map((form) => (
          <button
            key={form}
            type="button"
            className="button"
            onClick={() => void take(api.visualAddress(id, visual.id, form, { download: "1" }))}
          >
            <Download size={14} /> Take {form.toUpperCase()}
          </button>
        ))}
      </div>
      <h3 className="mt-3 text-sm font-semibold">Their address on this server</h3>
      <p className="text-xs text-muted">
        Filters and inputs follow as <code className="font-mono">filter.COLUMN=</code> and{" "}
        <code className="font-mono">input.NAME=</code>.
      </p>
      {FILES.map((form) => (
        <AddressLine
          key={form}
          label={form.toUpperCase()}
          address={api.visualAddress(id, visual.id, form, {})}
        />
      ))}
    </>
  );
}
