"use client";
import type { ReactNode } from "react";
import type { SnapshotAnswer } from "../shared/api";

/** A number of bytes as it is said of a file. */
export function bytesText(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  const kilo = bytes / 1000;
  return kilo < 1000
    ? `${kilo < 10 ? kilo.toFixed(1) : Math.round(kilo)} kB`
    : `${(kilo / 1000).toFixed(1)} MB`;
}

const count = (n: number, one: string, many = `${one}s`) =>
  `${n.toLocaleString("en")} ${n === 1 ? one : many}`;

/** What of the data travels, in words. */
function travelText({ answers, index, rows }: SnapshotAnswer): string {
  if (rows.length > 0)
    return rows.map((t) => `${count(t.rows, "row")} of ${t.table} (${t.columns.join(", ")})`).join("; ");
  const given = `${count(answers, "answer")} as ${answers === 1 ? "it stands" : "they stand"}`;
  if (!index || index.cells === 0) return `${given}, no rows`;
  return `${given} and ${count(index.cells, "sum")} by ${index.keys.map((k) => `${k.name} (${k.values.toLocaleString("en")})`).join(", ")}; no rows`;
}

/** What is not answered anew, line by line. */
function limitLines({ limits }: SnapshotAnswer): string[] {
  return limits.map(({ of, by }) =>
    by === null ? `${of} is there only as it begins` : `${of} does not follow ${by.join(", ")}`,
  );
}

function Line({ name, children }: { name: string; children: ReactNode }) {
  return (
    <div className="flex gap-3 border-b border-rule py-1.5 text-sm last:border-b-0">
      <dt className="w-24 shrink-0 text-muted">{name}</dt>
      <dd className="min-w-0 flex-1 break-words">{children}</dd>
    </div>
  );
}

/** What of a project goes when something is taken out alive, and what stays behind. */
export function Travels({ about, isBoard, size }: { about: SnapshotAnswer; isBoard: boolean; size: string }) {
  const limits = limitLines(about);
  const { index, left } = about;
  return (
    <dl aria-label="What travels">
      <Line name="Travels">
        {travelText(about)}
        {index !== null && index.ofOneRow > 0 && (
          <span className="block text-amber">
            {index.ofOneRow === 1
              ? "One of the sums is"
              : `${index.ofOneRow.toLocaleString("en")} of the sums are`}{" "}
            of a single row.
          </span>
        )}
      </Line>
      <Line name="Size">{size}</Line>
      <Line name="Stays alive">
        {isBoard ? "hover, controls, inputs, picks, steps down" : "hover, picks, filters, inputs"}
      </Line>
      <Line name="Not anew">
        {limits.length === 0 ? (
          "all is answered anew"
        ) : (
          <ul>
            {limits.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        )}
      </Line>
      <Line name="Left behind">
        {left.length === 0
          ? "every column that nothing here uses"
          : `hidden columns that it uses: ${left.join(", ")}`}
      </Line>
    </dl>
  );
}
