import type { Rule } from "../../project/schema";
import type { Mark } from "../../scene/marks";

/** A line of a legend: what its colour or symbol stands for. */
export interface LegendEntry extends Pick<Mark, "datum" | "names"> {
  key: string;
  color: string;
  label: string;
  value: string;
  /** The value as it is written where there is little room; empty where it has no shorter form. */
  short?: string;
  symbol?: Rule["symbol"];
}
