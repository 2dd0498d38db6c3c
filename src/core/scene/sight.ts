import { converter, differenceEuclidean, parse } from "culori/fn";
import { toHex } from "./colour";

/**
 * How people with each colour-vision deficiency see linear RGB, row by row (Machado, Oliveira, Fernandes: A
 * physiologically-based model for simulation of color vision deficiency, IEEE TVCG 15, 2009; severity 1.0).
 */
export const SIGHTS = {
  protan: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  deutan: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  tritan: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
} as const;
/** A colour-vision deficiency. */
export type Sight = keyof typeof SIGHTS;

const distance = differenceEuclidean("oklab");
const linear = (x: number) => (x <= 0.04045 ? x / 12.92 : ((x + 0.055) / 1.055) ** 2.4);
const clamped = (x: number) => Math.min(1, Math.max(0, x));

/** A colour (#rrggbb) as somebody with a deficiency sees it. */
export function seenAs(color: string, sight: Sight): string {
  const [r, g, b] = [1, 3, 5].map((i) => linear(Number.parseInt(color.slice(i, i + 2), 16) / 255));
  const m = SIGHTS[sight];
  const [sr, sg, sb] = [0, 3, 6].map((i) => clamped(m[i] * r + m[i + 1] * g + m[i + 2] * b));
  return toHex({ mode: "lrgb", r: sr, g: sg, b: sb });
}

/** How far two colours lie apart in OKLab. */
export const colourDistance = (a: string, b: string): number => distance(parse(a) ?? a, parse(b) ?? b);

const ALL_SIGHTS = Object.keys(SIGHTS) as Sight[];
const inOklab = converter("oklab");
/** By a colour, where it lies in OKLab for everybody and for people with each deficiency: three numbers each. */
const places = new Map<string, Float64Array>();

function placesOf(color: string): Float64Array {
  let found = places.get(color);
  if (!found) {
    const seen = [color, ...ALL_SIGHTS.map((sight) => seenAs(color, sight))];
    found = Float64Array.from(
      seen.flatMap((one) => {
        const lab = inOklab(one);
        return lab ? [lab.l, lab.a, lab.b] : [0, 0, 0];
      }),
    );
    if (places.size > 5000) places.clear();
    places.set(color, found);
  }
  return found;
}

/** Few have a deficiency: colours that everybody sees apart are worth twice as much to them. */
const FOR_EVERYBODY = 0.5;

/**
 * How far two colours lie apart in OKLab for whoever sees them nearest; the distance that everybody sees
 * counts half, so that it is not given up for that of few.
 */
export function leastDistance(a: string, b: string): number {
  const [one, other] = [placesOf(a), placesOf(b)];
  let least = Number.POSITIVE_INFINITY;
  for (let i = 0; i < one.length; i += 3) {
    const [l, x, y] = [one[i] - other[i], one[i + 1] - other[i + 1], one[i + 2] - other[i + 2]];
    const distance = Math.sqrt(l * l + x * x + y * y);
    least = Math.min(least, i === 0 ? distance * FOR_EVERYBODY : distance);
  }
  return least;
}
