import type { Rule } from "../../project/schema";

/** A line of a legend: what its colour or symbol stands for. */
export interface LegendEntry {
  key: string;
  color: string;
  label: string;
  value: string;
  symbol?: Rule["symbol"];
}
