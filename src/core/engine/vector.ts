import { TextMap } from "../base/text-map";
import type { Value, ValueType } from "../base/value";
import type { ColumnData } from "../data/column";
import { type ColumnRange, columnRange } from "../data/column-range";
import type { Expr } from "../formula/expr";
import { scalarOf } from "../formula/scalars";
import { type Block, placesOf, type Readers } from "./block";
import { BLOCK, type Loops, OPERATORS } from "./loops/loops";
import type { ColumnSource } from "./source-column";

/**
 * The values of an expression over a block. Numbers, days, milliseconds and booleans (0 or 1) are doubles
 * with NaN for null, which no formula yields otherwise; texts are codes into a dictionary (-1 is null).
 * `whole` promises that all numbers are whole and so small that any sum of them is exact, `within` that all
 * values or codes lie in a range; a vector without them may still be so. Only who asks for it with
 * `storedKernel` gets a vector with `at` or `scale`: then value i is `numbers[at[i]] / scale`.
 */
export type Vector =
  | {
      numbers: Float64Array;
      at?: Int32Array;
      scale?: number;
      whole?: boolean;
      within?: ColumnRange["within"];
    }
  | { codes: Int32Array; dictionary: string[]; within?: ColumnRange["within"] };

/** Computes an expression for the rows of a block. The vector is reused by the next call. */
export type Kernel = (block: Block) => Vector;

const isText = (type: ValueType) => type === "text";

function columnKernel(data: ColumnData, readers: Readers): Kernel {
  const { loops } = readers;
  if (data.type === "text") {
    const reader = readers.codes(data);
    const out = loops.ints(BLOCK);
    const { dictionary } = data;
    const { within } = columnRange(data);
    const vector = { codes: out, dictionary, within };
    return (block) => {
      const codes = reader.codesOf(block);
      if (block.whole && codes instanceof Int32Array) return { codes, dictionary, within };
      loops.gatherInts(codes, placesOf(block), block.length, out);
      return vector;
    };
  }
  const reader = readers.cells(data);
  const out = loops.doubles(BLOCK);
  const { none, scale } = data;
  const range = scale === 1 ? columnRange(data) : null;
  const facts = { whole: range?.exact ?? false, within: range?.within ?? null };
  const vector = { numbers: out, ...facts };
  return (block) => {
    // Rows that follow each other are read where they lie.
    if (block.whole) return { numbers: reader.valuesOf(block), ...facts };
    loops.toDoubles({ cells: reader.storedOf(block), none, at: block.offsets }, block.length, out);
    if (scale !== 1) loops.scaled(out, scale, block.length, out);
    return vector;
  };
}

/**
 * The numbers of a column as they are stored and where they lie, for who reads them once and in order; null
 * where the expression is not such a column. Decimals are whole in units of their last place.
 */
export function storedKernel(expr: Expr, source: ColumnSource, readers: Readers): Kernel | null {
  if (expr.op !== "column") return null;
  const { data } = source.column(expr.table, expr.column);
  if (data.type !== "number") return null;
  const { exact: whole, within } = columnRange(data);
  const reader = readers.cells(data);
  const { scale } = data;
  return (block) => {
    const numbers = reader.markedOf(block);
    return block.whole
      ? { numbers, scale, whole, within }
      : { numbers, at: block.offsets, scale, whole, within };
  };
}

function constantKernel(type: ValueType, value: Value, { loops }: Readers): Kernel {
  if (isText(type)) {
    const vector = {
      codes: loops.ints(BLOCK).fill(value === null ? -1 : 0),
      dictionary: value === null ? [] : [String(value)],
    };
    return () => vector;
  }
  const vector = { numbers: loops.doubles(BLOCK).fill(value === null ? Number.NaN : Number(value)) };
  return () => vector;
}

type Doubles = Float64Array;
type Loop = (a: Doubles, b: Doubles, out: Doubles, length: number) => void;

const unknown = (a: number, b: number) => a !== a || b !== b;

/** Comparisons give 1, 0, or NaN where a side is null. */
const COMPARE: Record<string, Loop> = {
  "=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] === b[i] ? 1 : 0;
  },
  "<>": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] !== b[i] ? 1 : 0;
  },
  "<": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] < b[i] ? 1 : 0;
  },
  "<=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] <= b[i] ? 1 : 0;
  },
  ">": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] > b[i] ? 1 : 0;
  },
  ">=": (a, b, out, length) => {
    for (let i = 0; i < length; i++) out[i] = unknown(a[i], b[i]) ? Number.NaN : a[i] >= b[i] ? 1 : 0;
  },
};

function loopKernel(loop: Loop, left: Kernel, right: Kernel, { loops }: Readers): Kernel {
  const out = loops.doubles(BLOCK);
  const vector = { numbers: out };
  return (block) => {
    loop(
      (left(block) as { numbers: Doubles }).numbers,
      (right(block) as { numbers: Doubles }).numbers,
      out,
      block.length,
    );
    return vector;
  };
}

function logicKernel(fn: "and" | "or", args: Kernel[], { loops }: Readers): Kernel {
  const out = loops.doubles(BLOCK);
  const vector = { numbers: out };
  const settles = fn === "and" ? 0 : 1;
  return (block) => {
    const { length } = block;
    out.fill(1 - settles, 0, length);
    for (const arg of args) {
      const a = (arg(block) as { numbers: Float64Array }).numbers;
      for (let i = 0; i < length; i++)
        if (out[i] !== settles && (a[i] === settles || a[i] !== a[i])) out[i] = a[i];
    }
    return vector;
  };
}

function notKernel(arg: Kernel, { loops }: Readers): Kernel {
  const out = loops.doubles(BLOCK);
  const vector = { numbers: out };
  return (block) => {
    const a = (arg(block) as { numbers: Float64Array }).numbers;
    for (let i = 0; i < block.length; i++) out[i] = 1 - a[i];
    return vector;
  };
}

/** A text function whose other arguments are constants is computed once for each distinct text. */
function dictionaryKernel(expr: Expr & { op: "call" }, at: number, arg: Kernel, { loops }: Readers): Kernel {
  const constants = expr.args.map((a) => (a.op === "constant" ? a.value : null));
  const evaluate = scalarOf(expr.fn);
  const known = new Map<string | null, Value>();
  const of = (text: string | null): Value => {
    let value = known.get(text);
    if (value === undefined) {
      constants[at] = text;
      value = evaluate(constants);
      known.set(text, value);
    }
    return value;
  };
  const write = writer(expr.type, loops);
  let cache: { dictionary: string[]; values: Value[] } | null = null;
  return (block) => {
    const { codes, dictionary } = arg(block) as { codes: Int32Array; dictionary: string[] };
    if (cache?.dictionary !== dictionary) cache = { dictionary, values: [] };
    const { values } = cache;
    for (let i = 0; i < block.length; i++) {
      const code = codes[i] + 1;
      let value = values[code];
      if (value === undefined) {
        value = of(code === 0 ? null : dictionary[code - 1]);
        values[code] = value;
      }
      write.set(i, value);
    }
    return write.vector;
  };
}

/**
 * Writes values of a type into a vector of its own; text gets a dictionary that grows with what is written.
 */
function writer(type: ValueType, loops: Loops): { vector: Vector; set: (i: number, value: Value) => void } {
  if (isText(type)) {
    const vector = { codes: loops.ints(BLOCK), dictionary: [] as string[] };
    const known = new TextMap<number>();
    return {
      vector,
      set: (i, value) => {
        if (value === null) {
          vector.codes[i] = -1;
          return;
        }
        const text = value as string;
        let code = known.get(text);
        if (code === undefined) {
          code = vector.dictionary.length;
          vector.dictionary.push(text);
          known.set(text, code);
        }
        vector.codes[i] = code;
      },
    };
  }
  const numbers = loops.doubles(BLOCK);
  return {
    vector: { numbers },
    set: (i, value) => (numbers[i] = value === null ? Number.NaN : Number(value)),
  };
}

function genericKernel(expr: Expr & { op: "call" }, args: Kernel[], { loops }: Readers): Kernel {
  const evaluate = scalarOf(expr.fn);
  const write = writer(expr.type, loops);
  const booleans = expr.args.map((a) => a.type === "boolean");
  const row: Value[] = new Array(args.length).fill(null);
  return (block) => {
    const vectors = args.map((arg) => arg(block));
    for (let i = 0; i < block.length; i++) {
      for (let k = 0; k < vectors.length; k++) {
        const v = vectors[k];
        if ("codes" in v) row[k] = v.codes[i] < 0 ? null : v.dictionary[v.codes[i]];
        else if (Number.isNaN(v.numbers[i])) row[k] = null;
        else row[k] = booleans[k] ? v.numbers[i] === 1 : v.numbers[i];
      }
      write.set(i, evaluate(row));
    }
    return write.vector;
  };
}

/**
 * Compiles a row-level expression over a source into a kernel. Inputs must have been bound before. `kernelOf`
 * gives the kernels of its parts, so that a caller can share them. No text is ever run: the kernel is a tree
 * of closures.
 */
export function compileRow(
  expr: Expr,
  source: ColumnSource,
  readers: Readers,
  kernelOf: (expr: Expr) => Kernel = (e) => compileRow(e, source, readers),
): Kernel {
  switch (expr.op) {
    case "constant":
      return constantKernel(expr.type, expr.value, readers);
    case "column":
      return columnKernel(source.column(expr.table, expr.column).data, readers);
    case "call": {
      const args = expr.args.map(kernelOf);
      const texts = expr.args.flatMap((a, i) => (isText(a.type) && a.op !== "constant" ? [i] : []));
      const others = expr.args.filter((a, i) => a.op !== "constant" && !texts.includes(i));
      if (texts.length === 1 && others.length === 0)
        return dictionaryKernel(expr, texts[0], args[texts[0]], readers);
      if (expr.args.some((a) => isText(a.type))) return genericKernel(expr, args, readers);
      const operator = OPERATORS.find((o) => o === expr.fn);
      const loop: Loop | null = operator
        ? (a, b, out, length) => readers.loops.reckon(operator, a, b, out, length)
        : Object.hasOwn(COMPARE, expr.fn)
          ? COMPARE[expr.fn]
          : null;
      if (loop) return loopKernel(loop, args[0], args[1], readers);
      if (expr.fn === "and" || expr.fn === "or") return logicKernel(expr.fn, args, readers);
      if (expr.fn === "not") return notKernel(args[0], readers);
      return genericKernel(expr, args, readers);
    }
    default:
      throw new Error(`${expr.op} is not a row-level expression`);
  }
}
