import type { RefObject } from "react";
import type { Problem } from "@/core/base/problem";
import type { Level, Scope } from "@/core/formula/expr";

/** What a field of a formula shows and tells. */
export interface FormulaField {
  label: string;
  value: string;
  scope: Scope;
  table: string | null;
  level?: Level;
  problems: Problem[];
  onChange: (text: string) => void;
  /** What was selected in the plain field that had the focus as its place was taken, in UTF-16 units. */
  handOver: RefObject<{ from: number; to: number } | null>;
}
