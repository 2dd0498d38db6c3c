import type { Stored } from "../../data/stored";
import { BLOCK, type Loops, OPERATORS, type Places, TESTS } from "./loops";
import { plainLoops } from "./plain-loops";

/** What `assembly` exports: addresses are bytes of the memory, 0 where there is no array. */
interface Exports {
  toDoubles(from: number, width: number, out: number, length: number): void;
  toInts(from: number, width: number, out: number, length: number): void;
  markNulls(stored: number, none: number, length: number, out: number): void;
  scaled(stored: number, scale: number, length: number, out: number): void;
  gatherDoubles(values: number, at: number, length: number, out: number): void;
  gatherInts(values: number, at: number, length: number, out: number): void;
  pickRange(cells: number, low: number, high: number, count: number, out: number): number;
  pickRangeAmong(cells: number, low: number, high: number, from: number, length: number, out: number): number;
  pickCodes(codes: number, marks: number, from: number, length: number, out: number): number;
  pickNear(cells: number, low: number, marks: number, from: number, length: number, out: number): number;
  groupCodes(codes: number, groupOfCode: number, at: number, length: number, groups: number): number;
  groupNear(
    values: number,
    low: number,
    table: number,
    span: number,
    at: number,
    length: number,
    groups: number,
  ): number;
  groupPairs(pairs: number, width: number, second: number, length: number, groups: number): number;
  test(name: number, a: number, b: number, number: number, length: number, out: number): void;
  reckon(operator: number, a: number, b: number, length: number, out: number): void;
  sumFull(sums: number, numbers: number, at: number, groups: number, length: number): void;
  sumWhole(
    sums: number,
    counts: number,
    numbers: number,
    groups: number,
    length: number,
    filter: number,
  ): void;
  sumCompensated(
    sums: number,
    lost: number,
    counts: number,
    numbers: number,
    groups: number,
    length: number,
    filter: number,
  ): void;
  countRows(counts: number, groups: number, length: number): void;
  countWhere(counts: number, groups: number, length: number, filter: number): void;
  largest(best: number, groups: number, length: number, numbers: number, filter: number): void;
  smallest(best: number, groups: number, length: number, numbers: number, filter: number): void;
  markInts(
    marks: number,
    counts: number,
    low: number,
    words: number,
    values: number,
    groups: number,
    length: number,
    filter: number,
  ): void;
  markDoubles: Exports["markInts"];
  countBins(
    counts: number,
    low: number,
    per: number,
    width: number,
    numbers: number,
    groups: number,
    length: number,
    filter: number,
  ): void;
}

const PAGE = 1 << 16;
/** Never more, so that no array is ever moved; only what is written to is really taken of the machine. */
const PAGES = 1024;
/** Where the module keeps its own data ends. */
const FIRST = PAGE;
/** Loops write a few entries past the end of an array. */
const PAST = 64;
/** Scans that needed more than this give their memory back. */
const KEPT = 16 << 20;
type Held = ArrayBufferView | null;

/**
 * The loops in WebAssembly, over arrays of its own memory; where one of them stands elsewhere, or the memory
 * is full, the same in JavaScript. Either gives the same to the last bit.
 */
export class CompiledLoops implements Loops {
  private readonly memory = new WebAssembly.Memory({ initial: PAGES, maximum: PAGES });
  private readonly buffer = this.memory.buffer;
  private readonly wasm: Exports;
  readonly scratch: Float64Array;
  private free = FIRST;
  /** Where the arrays of a scan begin. */
  private readonly first: number;
  /** Up to where the memory has been written to. */
  private touched = FIRST;
  private readonly staging: Record<number, Int8Array | Int16Array | Int32Array>;

  constructor(
    module: WebAssembly.Module,
    private readonly ended: (loops: CompiledLoops) => void,
  ) {
    const instance = new WebAssembly.Instance(module, { env: { memory: this.memory } });
    this.wasm = instance.exports as unknown as Exports;
    const at = this.room(4 * BLOCK) as number;
    this.staging = {
      1: new Int8Array(this.buffer, at, BLOCK),
      2: new Int16Array(this.buffer, at, BLOCK),
      4: new Int32Array(this.buffer, at, BLOCK),
    };
    this.scratch = this.doubles(BLOCK);
    this.first = this.free;
  }

  /** The address of so many bytes, all zero; null where the memory is full. */
  private room(bytes: number): number | null {
    const at = this.free;
    const end = (at + bytes + PAST + 63) & ~63;
    if (end > PAGES * PAGE) return null;
    if (at < this.touched) new Uint8Array(this.buffer, at, Math.min(end, this.touched) - at).fill(0);
    this.free = end;
    this.touched = Math.max(this.touched, end);
    return at;
  }
  doubles(length: number): Float64Array {
    const at = this.room(8 * length);
    return at === null ? plainLoops.doubles(length) : new Float64Array(this.buffer, at, length);
  }
  ints(length: number): Int32Array {
    const at = this.room(4 * length);
    return at === null ? plainLoops.ints(length) : new Int32Array(this.buffer, at, length);
  }
  bytes(length: number): Uint8Array {
    const at = this.room(length);
    return at === null ? plainLoops.bytes(length) : new Uint8Array(this.buffer, at, length);
  }
  kept<T extends Float64Array | Int32Array>(array: T): T {
    return this.has(array) ? (array.slice() as T) : array;
  }
  end(): void {
    this.free = this.first;
    this.ended(this);
  }
  /** Whether it holds more memory than is worth keeping. */
  get isLarge(): boolean {
    return this.touched > KEPT;
  }

  private has(array: Held): boolean {
    return array === null || array.buffer === this.buffer;
  }

  toDoubles(cells: Stored, out: Float64Array): Float64Array {
    if (cells instanceof Float64Array || !this.has(out) || cells.length > BLOCK) {
      out.set(cells);
      return out;
    }
    const staging = this.staging[cells.BYTES_PER_ELEMENT];
    staging.set(cells);
    this.wasm.toDoubles(staging.byteOffset, cells.BYTES_PER_ELEMENT, out.byteOffset, cells.length);
    return out;
  }
  toInts(codes: Int8Array | Int16Array | Int32Array, out: Int32Array): Int32Array {
    if (codes instanceof Int32Array || !this.has(out) || codes.length > BLOCK) {
      out.set(codes);
      return out;
    }
    const staging = this.staging[codes.BYTES_PER_ELEMENT];
    staging.set(codes);
    this.wasm.toInts(staging.byteOffset, codes.BYTES_PER_ELEMENT, out.byteOffset, codes.length);
    return out;
  }
  markNulls(stored: Float64Array, none: number, length: number, out: Float64Array): void {
    if (this.has(stored) && this.has(out))
      this.wasm.markNulls(stored.byteOffset, none, length, out.byteOffset);
    else plainLoops.markNulls(stored, none, length, out);
  }
  scaled(stored: Float64Array, scale: number, length: number, out: Float64Array): void {
    if (this.has(stored) && this.has(out)) this.wasm.scaled(stored.byteOffset, scale, length, out.byteOffset);
    else plainLoops.scaled(stored, scale, length, out);
  }
  gatherDoubles(values: Float64Array, at: Int32Array, length: number, out: Float64Array): void {
    if (this.has(values) && this.has(at) && this.has(out))
      this.wasm.gatherDoubles(values.byteOffset, at.byteOffset, length, out.byteOffset);
    else plainLoops.gatherDoubles(values, at, length, out);
  }
  gatherInts(values: Int32Array, at: Int32Array, length: number, out: Int32Array): void {
    if (this.has(values) && this.has(at) && this.has(out))
      this.wasm.gatherInts(values.byteOffset, at.byteOffset, length, out.byteOffset);
    else plainLoops.gatherInts(values, at, length, out);
  }

  pickRange(...given: Parameters<Loops["pickRange"]>): number {
    const [cells, { low, high }, from, length, out] = given;
    if (!this.has(cells) || !this.has(from) || !this.has(out)) return plainLoops.pickRange(...given);
    return from === null
      ? this.wasm.pickRange(cells.byteOffset, low, high, length, out.byteOffset)
      : this.wasm.pickRangeAmong(cells.byteOffset, low, high, from.byteOffset, length, out.byteOffset);
  }
  pickCodes(...given: Parameters<Loops["pickCodes"]>): number {
    const [codes, marks, from, length, out] = given;
    if (!this.has(codes) || !this.has(marks) || !this.has(from) || !this.has(out))
      return plainLoops.pickCodes(...given);
    return this.wasm.pickCodes(codes.byteOffset, marks.byteOffset, address(from), length, out.byteOffset);
  }
  pickNear(...given: Parameters<Loops["pickNear"]>): number {
    const [cells, { low, table }, from, length, out] = given;
    if (!this.has(cells) || !this.has(table) || !this.has(from) || !this.has(out))
      return plainLoops.pickNear(...given);
    return this.wasm.pickNear(cells.byteOffset, low, table.byteOffset, address(from), length, out.byteOffset);
  }

  groupCodes(...given: Parameters<Loops["groupCodes"]>): boolean {
    const [codes, groupOfCode, at, length, groups] = given;
    if (!this.has(codes) || !this.has(groupOfCode) || !this.has(at) || !this.has(groups))
      return plainLoops.groupCodes(...given);
    const { byteOffset } = groupOfCode;
    return this.wasm.groupCodes(codes.byteOffset, byteOffset, address(at), length, groups.byteOffset) < 0;
  }
  groupNear(...given: Parameters<Loops["groupNear"]>): boolean {
    const [values, { low, table }, at, length, groups] = given;
    if (!this.has(values) || !this.has(table) || !this.has(at) || !this.has(groups))
      return plainLoops.groupNear(...given);
    const all = this.wasm.groupNear(
      values.byteOffset,
      low,
      table.byteOffset,
      table.length,
      address(at),
      length,
      groups.byteOffset,
    );
    return all < 0;
  }
  groupPairs(...given: Parameters<Loops["groupPairs"]>): boolean {
    const [pairs, width, second, length, groups] = given;
    if (!this.has(pairs) || !this.has(second) || !this.has(groups)) return plainLoops.groupPairs(...given);
    return this.wasm.groupPairs(pairs.byteOffset, width, second.byteOffset, length, groups.byteOffset) < 0;
  }

  test(...given: Parameters<Loops["test"]>): void {
    const [name, a, b, out, length] = given;
    const other = typeof b === "number" ? null : b;
    if (this.has(a) && this.has(other) && this.has(out)) {
      this.wasm.test(
        TESTS.indexOf(name),
        a.byteOffset,
        address(other),
        typeof b === "number" ? b : 0,
        length,
        out.byteOffset,
      );
    } else plainLoops.test(...given);
  }
  reckon(...given: Parameters<Loops["reckon"]>): void {
    const [operator, a, b, out, length] = given;
    if (this.has(a) && this.has(b) && this.has(out)) {
      this.wasm.reckon(OPERATORS.indexOf(operator), a.byteOffset, b.byteOffset, length, out.byteOffset);
    } else plainLoops.reckon(...given);
  }

  sumFull(...given: Parameters<Loops["sumFull"]>): void {
    const [sums, numbers, at, groups, length] = given;
    if (this.has(sums) && this.has(numbers) && this.has(at) && this.has(groups)) {
      this.wasm.sumFull(sums.byteOffset, numbers.byteOffset, address(at), groups.byteOffset, length);
    } else plainLoops.sumFull(...given);
  }
  sumWhole(...given: Parameters<Loops["sumWhole"]>): void {
    const [{ sums, counts }, numbers, groups, length, filter] = given;
    if ([sums, counts, numbers, groups, filter].every((a) => this.has(a))) {
      this.wasm.sumWhole(
        sums.byteOffset,
        counts.byteOffset,
        numbers.byteOffset,
        groups.byteOffset,
        length,
        address(filter),
      );
    } else plainLoops.sumWhole(...given);
  }
  sumCompensated(...given: Parameters<Loops["sumCompensated"]>): void {
    const [{ sums, lost, counts }, numbers, groups, length, filter] = given;
    if ([sums, lost, counts, numbers, groups, filter].every((a) => this.has(a))) {
      this.wasm.sumCompensated(
        sums.byteOffset,
        lost.byteOffset,
        counts.byteOffset,
        numbers.byteOffset,
        groups.byteOffset,
        length,
        address(filter),
      );
    } else plainLoops.sumCompensated(...given);
  }
  countRows(...given: Parameters<Loops["countRows"]>): void {
    const [counts, groups, length, filter] = given;
    if (this.has(counts) && this.has(groups) && this.has(filter)) {
      if (filter === null) this.wasm.countRows(counts.byteOffset, groups.byteOffset, length);
      else this.wasm.countWhere(counts.byteOffset, groups.byteOffset, length, filter.byteOffset);
    } else plainLoops.countRows(...given);
  }
  extreme(...given: Parameters<Loops["extreme"]>): void {
    const [sign, best, groups, length, numbers, filter] = given;
    if (this.has(best) && this.has(groups) && this.has(numbers) && this.has(filter)) {
      const take = sign === 1 ? this.wasm.largest : this.wasm.smallest;
      take(best.byteOffset, groups.byteOffset, length, numbers.byteOffset, address(filter));
    } else plainLoops.extreme(...given);
  }
  mark(...given: Parameters<Loops["mark"]>): void {
    const [{ low, words, marks, counts }, values, groups, length, filter] = given;
    if ([marks, counts, values, groups, filter].every((a) => this.has(a))) {
      const mark = values instanceof Int32Array ? this.wasm.markInts : this.wasm.markDoubles;
      mark(
        marks.byteOffset,
        counts.byteOffset,
        low,
        words,
        values.byteOffset,
        groups.byteOffset,
        length,
        address(filter),
      );
    } else plainLoops.mark(...given);
  }
  countBins(...given: Parameters<Loops["countBins"]>): void {
    const [{ low, unit, width, counts }, numbers, groups, length, filter] = given;
    if ([counts, numbers, groups, filter].every((a) => this.has(a))) {
      this.wasm.countBins(
        counts.byteOffset,
        low,
        1 / unit,
        width,
        numbers.byteOffset,
        groups.byteOffset,
        length,
        address(filter),
      );
    } else plainLoops.countBins(...given);
  }
}

const address = (array: Places | Uint8Array | Float64Array): number => array?.byteOffset ?? 0;

/**
 * Gives loops out of a compiled module, each to one scan at a time: those that have ended are given again.
 * Throws what WebAssembly throws where the machine does not run the module.
 */
export function compiledLoops(module: WebAssembly.Module): () => Loops {
  const idle: CompiledLoops[] = [];
  const make = () =>
    new CompiledLoops(module, (ended) => {
      if (!ended.isLarge && !idle.includes(ended)) idle.push(ended);
    });
  idle.push(make());
  return () => idle.pop() ?? make();
}
