import { formatNumber, PLAIN_FORMAT } from "@/core/base/number-format";

const MOST_DECIMALS = 6;

/** A number with as many decimals as it has, up to some. */
export function numberText(value: number): string {
  const places = Array.from({ length: MOST_DECIMALS }, (_, i) => i);
  const decimals = places.find((d) => Number(value.toFixed(d)) === value) ?? MOST_DECIMALS;
  return formatNumber(value, { ...PLAIN_FORMAT, decimals });
}
