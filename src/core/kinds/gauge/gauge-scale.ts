import type { VisualData } from "../../rows/visual-data";
import { type PastEnd, type Scale, scaleOf } from "../anatomy/scale";

type Scaled = Pick<VisualData, "minimum" | "maximum" | "target" | "total" | "atRest" | "zones" | "format">;

/**
 * The scale of a gauge. Ends that nobody set come from its zones, its target and its value before a reader
 * filters anything, so that the needle can be compared with where it stood.
 */
export function gaugeScale(data: Scaled, past: PastEnd, areShares: boolean): Scale {
  const { total, atRest, zones } = data;
  const edges = areShares ? [] : zones.flatMap(({ to }) => (to === null ? [] : to));
  const target = atRest?.target ?? data.target;
  return scaleOf({ ...data, target, value: total, still: atRest?.total ?? null, edges, past });
}
