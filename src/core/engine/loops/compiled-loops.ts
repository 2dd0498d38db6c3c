import type { Codes } from "../../data/stored";
import {
  BLOCK,
  type Lane,
  type Loops,
  type Marks,
  OPERATORS,
  type Pairs,
  type Places,
  type Records,
  TESTS,
} from "./loops";
import type { LoopsModule } from "./loops-module";
import { address, kindOf, ModuleMemory } from "./module-memory";
import { plainLoops } from "./plain-loops";
import { type Column, fillColumn, foldColumns, isKept } from "./record-columns";

/** The pages of 64 kB of each module; only what is written to is really taken of the machine. */
const PAGES = 1024;
/** The module walks large tables by regions of so many bytes, of which there are so many at most. */
const REGION = 1 << 18;
const REGIONS = 64;
/** The entries of the bucket of a region: what is put off, and a line between. */
const BUCKET = 1024 + 16;

/**
 * The loops in WebAssembly, over arrays of its own memory; where one of them stands elsewhere, or the memory
 * is full, the same in JavaScript. Either gives the same to the last bit.
 */
export class CompiledLoops extends ModuleMemory implements Loops {
  private readonly wasm: LoopsModule;

  constructor(
    module: WebAssembly.Module,
    pages: number,
    private readonly ended: (loops: CompiledLoops) => void,
  ) {
    super(pages);
    const instance = new WebAssembly.Instance(module, { env: { memory: this.memory } });
    this.wasm = instance.exports as unknown as LoopsModule;
  }

  override end(): void {
    super.end();
    this.ended(this);
  }

  toDoubles(...given: Parameters<Loops["toDoubles"]>): void {
    const [{ cells, none, at }, length, out] = given;
    if (this.has(cells) && this.has(at) && this.has(out))
      this.wasm.toDoubles(
        address(cells),
        kindOf(cells),
        none ?? Number.NaN,
        address(at),
        length,
        address(out),
      );
    else plainLoops.toDoubles(...given);
  }
  scaled(stored: Float64Array, scale: number, length: number, out: Float64Array): void {
    if (this.has(stored) && this.has(out)) this.wasm.scaled(address(stored), scale, length, address(out));
    else plainLoops.scaled(stored, scale, length, out);
  }
  gatherDoubles(values: Float64Array, at: Int32Array, length: number, out: Float64Array): void {
    if (this.has(values) && this.has(at) && this.has(out))
      this.wasm.gatherDoubles(address(values), address(at), length, address(out));
    else plainLoops.gatherDoubles(values, at, length, out);
  }
  gatherInts(codes: Codes, at: Places, length: number, out: Int32Array): void {
    if (this.has(codes) && this.has(at) && this.has(out))
      this.wasm.gatherInts(address(codes), kindOf(codes), address(at), length, address(out));
    else plainLoops.gatherInts(codes, at, length, out);
  }

  pickRange(...given: Parameters<Loops["pickRange"]>): number {
    const [cells, { low, high }, from, length, out] = given;
    if (!this.has(cells) || !this.has(from) || !this.has(out)) return plainLoops.pickRange(...given);
    return this.wasm.pickRange(address(cells), kindOf(cells), low, high, address(from), length, address(out));
  }
  pickCodes(...given: Parameters<Loops["pickCodes"]>): number {
    const [codes, marks, from, length, out] = given;
    if (!this.has(codes) || !this.has(marks) || !this.has(from) || !this.has(out))
      return plainLoops.pickCodes(...given);
    return this.wasm.pickCodes(
      address(codes),
      kindOf(codes),
      address(marks),
      address(from),
      length,
      address(out),
    );
  }
  pickNear(...given: Parameters<Loops["pickNear"]>): number {
    const [cells, { low, table }, from, length, out] = given;
    if (!this.has(cells) || !this.has(table) || !this.has(from) || !this.has(out))
      return plainLoops.pickNear(...given);
    return this.wasm.pickNear(
      address(cells),
      kindOf(cells),
      low,
      address(table),
      address(from),
      length,
      address(out),
    );
  }

  groupCodes(...given: Parameters<Loops["groupCodes"]>): boolean {
    const [codes, groupOfCode, at, length, groups] = given;
    if (!this.has(codes) || !this.has(groupOfCode) || !this.has(at) || !this.has(groups))
      return plainLoops.groupCodes(...given);
    const all = this.wasm.groupCodes(
      address(codes),
      kindOf(codes),
      address(groupOfCode),
      address(at),
      length,
      address(groups),
    );
    return all < 0;
  }
  groupNear(...given: Parameters<Loops["groupNear"]>): boolean {
    const [values, { low, table, isWhole }, at, length, groups] = given;
    if (!this.has(values) || !this.has(table) || !this.has(at) || !this.has(groups))
      return plainLoops.groupNear(...given);
    // Then nothing has to be asked: values are codes into a table that begins so far before this one.
    if (isWhole && kindOf(values) < 8)
      return (
        this.wasm.groupCodes(
          address(values),
          kindOf(values),
          address(table) - 4 * (low + 1),
          address(at),
          length,
          address(groups),
        ) < 0
      );
    const all = this.wasm.groupNear(
      address(values),
      kindOf(values),
      low,
      address(table),
      table.length,
      address(at),
      length,
      address(groups),
    );
    return all < 0;
  }
  groupPairs(...given: Parameters<Loops["groupPairs"]>): boolean {
    const [pairs, width, second, length, groups] = given;
    if (!this.has(pairs) || !this.has(second) || !this.has(groups)) return plainLoops.groupPairs(...given);
    return this.wasm.groupPairs(address(pairs), width, address(second), length, address(groups)) < 0;
  }

  numberPairs(...given: Parameters<Loops["numberPairs"]>): void {
    const [firsts, width, second, length] = given;
    if (this.has(firsts) && this.has(second))
      this.wasm.numberPairs(address(firsts), width, address(second), length);
    else plainLoops.numberPairs(...given);
  }

  test(...given: Parameters<Loops["test"]>): void {
    const [name, a, b, out, length] = given;
    if (this.has(a) && this.has(b) && this.has(out))
      this.wasm.test(TESTS.indexOf(name), address(a), address(b), length, address(out));
    else plainLoops.test(...given);
  }
  reckon(...given: Parameters<Loops["reckon"]>): void {
    const [operator, a, b, out, length] = given;
    if (this.has(a) && this.has(b) && this.has(out)) {
      this.wasm.reckon(OPERATORS.indexOf(operator), address(a), address(b), length, address(out));
    } else plainLoops.reckon(...given);
  }

  records(pairs: Pairs): Records {
    const step = 2 * (pairs.sums + pairs.largest + pairs.smallest);
    const numbers = this.doubles(step * BLOCK);
    return { ...pairs, lanes: Array.from({ length: step }, (_, at): Column => ({ at, numbers, step })) };
  }
  fillValues(...given: Parameters<Loops["fillValues"]>): void {
    const [into, empty, { cells, none, at }, length, filter] = given;
    const { numbers, at: lane, step } = into as Column;
    if (this.has(numbers) && this.has(cells) && this.has(at) && this.has(filter)) {
      this.wasm.fillValues(
        address(cells),
        kindOf(cells),
        none ?? Number.NaN,
        address(at),
        address(filter),
        length,
        address(numbers) + 8 * lane,
        8 * step,
        empty,
      );
    } else
      fillColumn(into as Column, length, (i) => (isKept(given[2], filter, i) ? cells[at?.[i] ?? i] : empty));
  }
  fillCounts(...given: Parameters<Loops["fillCounts"]>): void {
    const [into, { cells, none, at }, length, filter] = given;
    const { numbers, at: lane, step } = into as Column;
    if (this.has(numbers) && this.has(cells) && this.has(at) && this.has(filter)) {
      this.wasm.fillCounts(
        address(cells),
        kindOf(cells),
        none ?? Number.NaN,
        address(at),
        address(filter),
        length,
        address(numbers) + 8 * lane,
        8 * step,
      );
    } else fillColumn(into as Column, length, (i) => Number(isKept(given[1], filter, i)));
  }
  fillFilter(into: Lane, filter: Uint8Array, length: number): void {
    const { numbers, at, step } = into as Column;
    if (this.has(numbers) && this.has(filter))
      this.wasm.fillFilter(address(filter), length, address(numbers) + 8 * at, 8 * step);
    else fillColumn(into as Column, length, (i) => filter[i]);
  }
  fillOnes(into: Lane): void {
    fillColumn(into as Column, BLOCK, () => 1);
  }
  foldLanes(...given: Parameters<Loops["foldLanes"]>): void {
    const [totals, groups, { lanes, sums, largest, smallest }, length] = given;
    const { numbers } = lanes[0] as Column;
    if (this.has(totals) && this.has(groups) && this.has(numbers)) {
      this.wasm.foldLanes(
        address(totals),
        address(groups),
        address(numbers),
        sums,
        largest,
        smallest,
        length,
      );
    } else foldColumns(...given);
  }
  sumCompensated(...given: Parameters<Loops["sumCompensated"]>): void {
    const [{ sums, lost, counts }, numbers, groups, length, filter] = given;
    if ([sums, lost, counts, numbers, groups, filter].every((a) => this.has(a))) {
      this.wasm.sumCompensated(
        address(sums),
        address(lost),
        address(counts),
        address(numbers),
        address(groups),
        length,
        address(filter),
      );
    } else plainLoops.sumCompensated(...given);
  }
  /** Where marks are put off: nowhere where they are few. */
  private bucketsFor(table: Marks): number {
    if (table.marks.byteLength <= REGION) return 0;
    table.buckets ??= this.ints(REGIONS + REGIONS * BUCKET);
    return this.has(table.buckets) ? address(table.buckets) : 0;
  }
  mark(...given: Parameters<Loops["mark"]>): void {
    const [into, , values, groups, length, filter] = given;
    const { low, words, marks } = into;
    into.isSettled = false;
    if (this.has(marks) && this.has(values) && this.has(groups) && this.has(filter)) {
      const mark = values instanceof Int32Array ? this.wasm.markInts : this.wasm.markDoubles;
      mark(
        address(marks),
        this.bucketsFor(into),
        low,
        32 * words,
        address(values),
        address(groups),
        length,
        address(filter),
      );
    } else plainLoops.mark(...given);
  }
  settleMarks(into: Marks, counts: Float64Array): void {
    const { marks, words, buckets } = into;
    if (into.isSettled || words === 0) return;
    into.isSettled = true;
    into.buckets = null;
    const groups = Math.floor(marks.length / words);
    if (groups === 0) return;
    if (this.has(marks)) {
      if (buckets) this.wasm.emptyMarks(address(marks), address(buckets));
      for (let g = 0; g < groups; g++) counts[g] = this.wasm.bitsIn(address(marks) + 4 * g * words, words);
      return;
    }
    // The memory was too full for more groups: what was put off before stands in the buckets still.
    if (buckets)
      eachPutOff(buckets, (place) => {
        marks[place >>> 5] |= 1 << (place & 31);
      });
    counts.fill(0, 0, groups);
    const nothing = { low: 0, words, marks: new Int32Array(words) };
    for (let g = 0; g < groups; g++) {
      nothing.marks.fill(0);
      plainLoops.unite(nothing, counts.subarray(g), 0, marks.subarray(g * words, (g + 1) * words));
    }
  }
  unite(...given: Parameters<Loops["unite"]>): void {
    const [into, , group, others] = given;
    const { marks, words } = into;
    if (this.has(marks)) {
      into.isSettled = false;
      this.piecewise(others, (from, at, length) =>
        this.wasm.uniteWords(address(marks) + 4 * (group * words + at), from, length),
      );
    } else plainLoops.unite(...given);
  }
  /** Words from elsewhere, a piece at a time in the memory of the module. */
  private piecewise(words: Int32Array, take: (from: number, at: number, length: number) => void): void {
    const piece = new Int32Array(this.buffer, this.scratch.byteOffset, BLOCK);
    for (let at = 0; at < words.length; at += BLOCK) {
      const length = Math.min(BLOCK, words.length - at);
      piece.set(words.subarray(at, at + length));
      take(address(piece), at, length);
    }
  }

  countBins(...given: Parameters<Loops["countBins"]>): number {
    const [{ low, shift, width, counts }, numbers, groups, length, filter, written] = given;
    const { places = null, count = 0 } = written ?? {};
    if (![counts, numbers, groups, filter, places].every((a) => this.has(a)))
      return plainLoops.countBins(...given);
    return this.wasm.countBins(
      address(counts),
      low,
      shift,
      width,
      address(numbers),
      address(groups),
      length,
      address(filter),
      places ? address(places) + 4 * count : 0,
    );
  }
  pickPlaces(...given: Parameters<Loops["pickPlaces"]>): number {
    const [places, marks, shift, length, out] = given;
    if (!this.has(places) || !this.has(marks) || !this.has(out)) return plainLoops.pickPlaces(...given);
    return this.wasm.pickPlaces(address(places), address(marks), shift, length, address(out));
  }
  addBins(...given: Parameters<Loops["addBins"]>): void {
    const [{ counts, width }, group, others, from] = given;
    if (this.has(counts))
      this.piecewise(others.subarray(from * width, (from + 1) * width), (at, first, length) =>
        this.wasm.addCounts(address(counts) + 4 * (group * width + first), at, length),
      );
    else plainLoops.addBins(...given);
  }
}

/** What the buckets of a table hold. */
function eachPutOff(buckets: Int32Array, take: (place: number) => void): void {
  for (let region = 0; region < REGIONS; region++)
    for (let i = 0; i < buckets[region]; i++) take(buckets[REGIONS + region * BUCKET + i]);
}

/**
 * Gives loops out of a compiled module, each to one scan at a time: those that have ended are given again.
 * `pages` of 64 kB are the memory of each. Throws what WebAssembly throws where the machine does not run the
 * module.
 */
export function compiledLoops(module: WebAssembly.Module, pages = PAGES): () => Loops {
  const idle: CompiledLoops[] = [];
  const make = () =>
    new CompiledLoops(module, pages, (ended) => {
      if (!ended.isLarge && !idle.includes(ended)) idle.push(ended);
    });
  idle.push(make());
  return () => {
    try {
      return idle.pop() ?? make();
    } catch {
      // No more memory is to be had: the same takes longer.
      return plainLoops;
    }
  };
}
