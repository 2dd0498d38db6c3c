import type { Value } from "../../base/value";
import type { Vector } from "../vector";
import { type Accumulator, type GroupedRows, isIdentity } from "./accumulator";

const SAMPLED = 600;

/**
 * Puts the k-th smallest of `values[from .. to]` at place k, smaller ones before it and larger ones after (R.
 * W. Floyd, R. L. Rivest, Algorithm 489: SELECT, CACM 18, 1975). Where it makes no headway, the rest is
 * sorted.
 */
export function selectNth(
  values: Float64Array,
  from: number,
  to: number,
  k: number,
  patience = { left: 4 * Math.ceil(Math.log2(to - from + 2)) + 16 },
): void {
  let [left, right] = [from, to];
  while (right > left) {
    if (patience.left-- === 0) {
      values.subarray(left, right + 1).sort();
      return;
    }
    if (right - left > SAMPLED) {
      // The k-th of a sample bounds the k-th of all closely.
      const n = right - left + 1;
      const i = k - left + 1;
      const z = Math.log(n);
      const s = 0.5 * Math.exp((2 * z) / 3);
      const sd = 0.5 * Math.sqrt((z * s * (n - s)) / n) * Math.sign(i - n / 2);
      selectNth(
        values,
        Math.max(left, Math.floor(k - (i * s) / n + sd)),
        Math.min(right, Math.floor(k + ((n - i) * s) / n + sd)),
        k,
        patience,
      );
    }
    const pivot = values[k];
    let [i, j] = [left, right];
    values[k] = values[left];
    values[left] = pivot;
    if (values[right] > pivot) {
      values[left] = values[right];
      values[right] = pivot;
    }
    while (i < j) {
      const x = values[i];
      values[i++] = values[j];
      values[j--] = x;
      while (values[i] < pivot) i++;
      while (values[j] > pivot) j--;
    }
    if (values[left] === pivot) {
      const x = values[left];
      values[left] = values[j];
      values[j] = x;
    } else {
      j++;
      const x = values[j];
      values[j] = values[right];
      values[right] = x;
    }
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
  }
}

const CHUNK = 1 << 16;

/**
 * The groups of values: half as wide while all of them fit into 16 bits. Where several tables meet, there can
 * be more groups than one scan makes.
 */
type Owners = Uint16Array | Uint32Array;
const NARROW = 1 << 16;
const ownersFor = (groups: number, count: number): Owners =>
  groups <= NARROW ? new Uint16Array(count) : new Uint32Array(count);

/** Some of the values, and the group of each; null where all are of group 0. */
interface Chunk {
  values: Float64Array;
  groups: Owners | null;
  count: number;
}

/**
 * Keeps the values of each group; gives the one at a share of their order, interpolated as SQL's
 * percentile_cont.
 */
export class Percentile implements Accumulator {
  private chunks: Chunk[] = [];
  private size = 0;
  private byGroup: { starts: Int32Array; values: Float64Array } | null = null;

  constructor(readonly share: number) {}

  add({ groups, length, size }: GroupedRows, argument: Vector | null, filter: Uint8Array | null): void {
    const { numbers } = argument as { numbers: Float64Array };
    this.size = Math.max(this.size, size);
    let last = this.chunks.at(-1);
    // A scan makes at most MAX_GROUPS groups, which fit into 16 bits.
    if (!last || last.count + length > last.values.length) {
      last = {
        values: new Float64Array(Math.max(CHUNK, length)),
        groups: ownersFor(size, Math.max(CHUNK, length)),
        count: 0,
      };
      this.chunks.push(last);
    }
    const { values, groups: owners } = last as { values: Float64Array; groups: Owners };
    let { count } = last;
    for (let i = 0; i < length; i++) {
      const x = numbers[i];
      if (x !== x || (filter !== null && filter[i] === 0)) continue;
      values[count] = x;
      owners[count++] = groups[i];
    }
    last.count = count;
  }

  merge(into: Int32Array, groups: number): Accumulator {
    if (isIdentity(into)) return this;
    const merged = new Percentile(this.share);
    merged.size = groups;
    merged.chunks = this.chunks.map(({ values, groups: owners, count }) => ({
      values,
      count,
      groups: groups === 1 ? null : moved(owners, into, count, groups),
    }));
    return merged;
  }

  /** The values in the order of their groups, made when it is first asked for. */
  private sorted(): { starts: Int32Array; values: Float64Array } {
    if (this.byGroup) return this.byGroup;
    const starts = new Int32Array(this.size + 1);
    for (const { groups, count } of this.chunks) {
      if (groups === null) starts[1] += count;
      else for (let i = 0; i < count; i++) starts[groups[i] + 1]++;
    }
    for (let g = 0; g < this.size; g++) starts[g + 1] += starts[g];
    const next = starts.slice();
    const all = new Float64Array(starts[this.size]);
    for (const { values, groups, count } of this.chunks) {
      if (groups === null) {
        all.set(values.subarray(0, count), next[0]);
        next[0] += count;
      } else for (let i = 0; i < count; i++) all[next[groups[i]]++] = values[i];
    }
    this.byGroup = { starts, values: all };
    return this.byGroup;
  }

  result(group: number): Value {
    if (group >= this.size || !(this.share >= 0 && this.share <= 1)) return null;
    const { starts, values } = this.sorted();
    const [from, to] = [starts[group], starts[group + 1] - 1];
    if (to < from) return null;
    const at = this.share * (to - from);
    const low = from + Math.floor(at);
    selectNth(values, from, to, low);
    const a = values[low];
    if (at === Math.floor(at)) return a;
    let b = values[low + 1];
    for (let i = low + 2; i <= to; i++) if (values[i] < b) b = values[i];
    return a + (b - a) * (at - Math.floor(at));
  }
}

function moved(owners: Owners | null, into: Int32Array, count: number, groups: number): Owners {
  const made = ownersFor(groups, count);
  for (let i = 0; i < count; i++) made[i] = into[owners === null ? 0 : owners[i]];
  return made;
}
