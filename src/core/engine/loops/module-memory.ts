import type { Codes, Stored } from "../../data/stored";
import { BLOCK } from "./loops";
import { plainLoops } from "./plain-loops";

/** The bytes that WebAssembly counts memory in. */
const PAGE = 1 << 16;
/** Where the module keeps its own data ends. */
const FIRST = PAGE;
/** Loops write a few entries past the end of an array. */
const PAST = 64;
/** Scans that needed more than this give their memory back. */
const KEPT = 32 << 20;

/**
 * What an array in the memory of a module remembers of itself: asked of a typed array, where it stands takes
 * longer than what the module does with a few hundred cells.
 */
export interface Placed {
  home?: ModuleMemory;
  address?: number;
  width?: number;
}
/** An array that may stand in the memory of a module; null where there is none. */
export type Held = (ArrayBufferView & Placed) | null;

/** The memory of a module, with the arrays of one scan at a time; where it is full, they stand elsewhere. */
export class ModuleMemory {
  protected readonly memory: WebAssembly.Memory;
  protected readonly buffer: ArrayBuffer;
  readonly scratch: Float64Array;
  private free = FIRST;
  /** Where the arrays of a scan begin. */
  private readonly first: number;
  /** Up to where the memory has been written to. */
  private touched = FIRST;

  /** `pages` of 64 kB: so many at first and never more, so that no array is ever moved. */
  constructor(pages: number) {
    this.memory = new WebAssembly.Memory({ initial: pages, maximum: pages });
    this.buffer = this.memory.buffer;
    this.scratch = this.doubles(BLOCK);
    this.first = this.free;
  }

  /** The address of so many bytes, all zero; null where the memory is full. */
  private room(bytes: number): number | null {
    const at = this.free;
    const end = 64 * Math.ceil((at + bytes + PAST) / 64);
    if (end > this.buffer.byteLength) return null;
    if (at < this.touched) new Uint8Array(this.buffer, at, Math.min(end, this.touched) - at).fill(0);
    this.free = end;
    this.touched = Math.max(this.touched, end);
    return at;
  }
  private placed<T extends ArrayBufferView & { BYTES_PER_ELEMENT: number }>(array: T & Placed): T {
    array.home = this;
    array.address = array.byteOffset;
    array.width = array.BYTES_PER_ELEMENT;
    return array;
  }
  doubles(length: number): Float64Array {
    const at = this.room(8 * length);
    return at === null ? plainLoops.doubles(length) : this.placed(new Float64Array(this.buffer, at, length));
  }
  ints(length: number): Int32Array {
    const at = this.room(4 * length);
    return at === null ? plainLoops.ints(length) : this.placed(new Int32Array(this.buffer, at, length));
  }
  bytes(length: number): Uint8Array {
    const at = this.room(length);
    return at === null ? plainLoops.bytes(length) : this.placed(new Uint8Array(this.buffer, at, length));
  }
  /** What is to outlive the scan, out of the memory. */
  kept<T extends Float64Array | Int32Array>(array: T): T {
    return this.has(array) ? (array.slice() as T) : array;
  }
  /** Has the next arrays take the place of those that there are. */
  end(): void {
    this.free = this.first;
  }
  /** Whether it holds more memory than is worth keeping. */
  get isLarge(): boolean {
    return this.touched > KEPT;
  }

  /** Whether an array stands in it, or is none. */
  protected has(array: Held): boolean {
    return array === null || array.home === this || array.buffer === this.buffer;
  }

  holdCells(cells: Stored, held: Stored | null): Stored {
    const out = held ?? this.like(cells);
    out.set(cells);
    return out;
  }
  holdCodes(codes: Codes, held: Codes | null): Codes {
    const out = held ?? (this.like(codes) as Codes);
    out.set(codes);
    return out;
  }
  /** Room for a run of such cells. */
  private like(cells: Stored): Stored {
    const Of = cells.constructor as Int8ArrayConstructor;
    const at = this.room(BLOCK * cells.BYTES_PER_ELEMENT);
    return at === null ? new Of(BLOCK) : this.placed(new Of(this.buffer, at, BLOCK));
  }
}

/** How the module names the width of cells. */
export const kindOf = (cells: (Stored | Codes) & Placed): number => cells.width ?? cells.BYTES_PER_ELEMENT;
/** Where an array begins; zero where there is none. */
export const address = (array: Held): number => array?.address ?? array?.byteOffset ?? 0;
