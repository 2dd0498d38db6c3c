import type { Calendar } from "../base/calendar";
import { findNamed, sameName } from "../base/names";
import { TextMap } from "../base/text-map";
import type { Value } from "../base/value";
import {
  type CellData,
  type ColumnData,
  type ColumnType,
  cellsOf,
  findColumn,
  resting,
  type Table,
} from "../data/column";
import { inArray, isNone, packCodes, packNumbers } from "../data/stored";
import { checkFormula } from "../formula/check";
import type { Expr, Scope } from "../formula/expr";
import { type Link, pathsBetween, reachedFrom } from "../formula/links";
import { bindInputs, TODAY } from "../plan/bind-inputs";
import { QueryError } from "../plan/query-error";
import { Readers, wholeBlock } from "./block";
import type { Crew } from "./crew";
import { BLOCK } from "./loops/loops";
import type { ScanSource } from "./scan-source";
import type { SourceColumn } from "./source-column";
import { checkStop, type StopFlag } from "./stop";
import { compileRow } from "./vector";

const TYPE_WORDS: Record<ColumnData["type"], string> = {
  number: "numbers",
  text: "texts",
  boolean: "true or false",
  date: "dates",
  timestamp: "timestamps",
};

/**
 * For each row of the many side, the row of the one side that has the same key, or -1. Throws a
 * QueryError where the two are of different types, or where a key stands twice, since then the link would
 * not be many-to-one.
 */
export function matchRows(from: ColumnData, key: ColumnData, link: Link): Int32Array {
  if (from.type !== key.type)
    throw new QueryError(
      "bad_link",
      `${link.table}.${link.column} holds ${TYPE_WORDS[from.type]} and ${link.to}.${link.key} ${TYPE_WORDS[key.type]}, so they never match. Change the type of one of them.`,
    );
  const twice = (value: unknown, first: number, second: number) =>
    new QueryError(
      "bad_link",
      `${link.to}.${link.key} is no key: ${JSON.stringify(value)} stands in its rows ${first + 1} and ${second + 1}. Link to a column in which every value stands once.`,
    );
  if (from.type === "text" && key.type === "text") {
    const rowOf = new TextMap<number>();
    key.codes.forEach((code, row) => {
      if (code < 0) return;
      const text = key.dictionary[code];
      const known = rowOf.get(text);
      if (known !== undefined) throw twice(text, known, row);
      rowOf.set(text, row);
    });
    const rowOfCode = Int32Array.from([null, ...from.dictionary], (text) =>
      text === null ? -1 : (rowOf.get(text) ?? -1),
    );
    return Int32Array.from(from.codes, (code) => rowOfCode[code + 1]);
  }
  const [rows, keys] = [from, key] as CellData[];
  const keyCells = inArray(keys.values);
  const rowOf = new Map<number, number>();
  for (let row = 0; row < keyCells.length; row++) {
    if (isNone(keyCells[row], keys.none)) continue;
    const value = keyCells[row] / keys.scale;
    const known = rowOf.get(value);
    if (known !== undefined) throw twice(value, known, row);
    rowOf.set(value, row);
  }
  return Int32Array.from(inArray(rows.values), (stored) =>
    isNone(stored, rows.none) ? -1 : (rowOf.get(stored / rows.scale) ?? -1),
  );
}

/** A column's cells at other rows; null where there is none (-1). */
function cellsAt(data: ColumnData, rows: Int32Array): ColumnData {
  const stored = cellsOf(data);
  const none = data.type === "text" ? -1 : data.none;
  const cells = new (stored.constructor as Float64ArrayConstructor)(rows.length);
  for (let i = 0; i < rows.length; i++) cells[i] = rows[i] < 0 ? none : stored[rows[i]];
  const found = { ...data, ...(data.type === "text" ? { codes: cells } : { values: cells }) } as ColumnData;
  return resting(found);
}

/** Computes a row-level expression for every row, packed as a column of its type. */
function materialize(expr: Expr, source: TableSource): ColumnData {
  const { rows } = source.table;
  const type: ColumnType = expr.type === "null" ? "text" : expr.type;
  const kernel = compileRow(
    expr.type === "null" ? { op: "constant", type: "text", value: null } : expr,
    source,
    new Readers(),
  );
  const codes = new Int32Array(type === "text" ? rows : 0);
  const numbers = new Float64Array(type === "text" ? 0 : rows);
  let dictionary: string[] = [];
  const block = wholeBlock();
  for (let base = 0; base < rows; base += BLOCK) {
    source.checkStop();
    block.base = base;
    block.count = block.length = Math.min(BLOCK, rows - base);
    const vector = kernel(block);
    if ("codes" in vector) {
      // A kernel writes into one dictionary that only grows.
      dictionary = vector.dictionary;
      codes.set(vector.codes.subarray(0, block.length), base);
    } else numbers.set(vector.numbers.subarray(0, block.length), base);
  }
  if (type === "text") return { type, codes: packCodes(codes, dictionary.length), dictionary };
  return resting({ type, ...packNumbers(numbers) });
}

/**
 * A table as formulas see it: its columns, its derived columns, and the columns that links lead to. What had
 * to be computed stays with the table.
 */
export class TableSource implements ScanSource {
  /** Changes whenever anything that its columns depend on does. */
  readonly version: string;
  /** Two with the same one have the same rows, and count weeks and years alike. */
  readonly name: string;

  constructor(
    readonly table: Table,
    private readonly sources: TableSources,
  ) {
    const { scope, today } = sources;
    const names = [table.name, ...reachedFrom(scope.links ?? [], table.name)];
    const formulas = names.map((n) => sources.derivedOf(n));
    const parts = [
      names.map((n) => sources.find(n)?.version ?? ""),
      formulas,
      names.length > 1 ? scope.links : [],
      /current_date/i.test(JSON.stringify(formulas)) ? today : "",
    ];
    this.version = shortName(JSON.stringify(parts));
    this.name = JSON.stringify([table.name, this.version, this.calendar]);
  }

  /** How weeks and years are counted. */
  get calendar(): Calendar | undefined {
    return this.sources.scope.calendar;
  }

  /** Who helps with scans of this table. */
  get crew(): Crew | undefined {
    return this.sources.crew;
  }

  /** So many rows are scanned at a time where several share the work. */
  get chunk(): number {
    return this.sources.chunk;
  }

  /** The same source, scanned by nobody else. */
  alone(): TableSource {
    return this.sources.alone().of(this.table.name);
  }

  /** Asked between steps of work whether it is to end. */
  get stop(): StopFlag {
    return this.sources.stop;
  }

  /** Throws a QueryError where the work over this source is to end. */
  checkStop(): void {
    this.sources.checkStop();
  }

  /**
   * A column by the table that has it and its name. Throws a QueryError where there is none, or where links
   * do not lead there.
   */
  column(owner: string, name: string): SourceColumn {
    const own = sameName(owner, this.table.name);
    const formula = own ? this.sources.formulaOf(owner, name) : undefined;
    if (own && formula === undefined) {
      const column = findColumn(this.table, name);
      if (!column)
        throw new QueryError("unknown_column", `The table ${this.table.name} has no column “${name}”.`);
      return { data: column.data, rows: null };
    }
    return this.computed(`${owner}.${name}`.toLowerCase(), () => {
      if (formula !== undefined) return { data: this.derive(formula, name), rows: null };
      const rows = this.rowsIn(owner);
      return { data: cellsAt(this.sources.of(owner).column(owner, name).data, rows), rows };
    });
  }

  private derive(formula: string, name: string): ColumnData {
    const { scope, today } = this.sources;
    const checked = checkFormula(formula, scope, this.table.name, "derived", `${this.table.name}.${name}`);
    if (!checked.expr)
      throw new QueryError(
        "bad_formula",
        `The derived column ${this.table.name}.${name}: ${checked.problems[0].message}`,
      );
    return materialize(bindInputs(checked.expr, new Map([[TODAY, today]])), this);
  }

  /** For each row of this table, its row in another table. */
  private rowsIn(owner: string): Int32Array {
    const paths = pathsBetween(this.sources.scope.links ?? [], this.table.name, owner);
    if (paths.length !== 1)
      throw new QueryError(
        "bad_link",
        `${paths.length ? "More than one way leads" : "No link leads"} from ${this.table.name} to ${owner}.`,
      );
    const path = paths[0];
    const last = path[path.length - 1];
    const found = this.computed(`to ${owner}`.toLowerCase(), () => {
      const step = matchRows(
        this.sources.of(last.table).column(last.table, last.column).data,
        this.sources.of(last.to).column(last.to, last.key).data,
        last,
      );
      if (path.length === 1) return { data: null, rows: step };
      const before = this.rowsIn(last.table);
      return { data: null, rows: before.map((row) => (row < 0 ? -1 : step[row])) };
    });
    return found.rows as Int32Array;
  }

  private computed<T extends { data: ColumnData | null; rows: Int32Array | null }>(
    key: string,
    make: () => T,
  ): T {
    this.table.computed ??= new Map();
    const known = this.table.computed.get(key);
    if (known?.version === this.version) return known as unknown as T;
    const made = make();
    this.table.computed.set(key, { version: this.version, ...made });
    return made;
  }
}

const shortNames = new Map<string, string>();
let nextShortName = 1;
/** A short name for a long text, the same for the same text. */
function shortName(text: string): string {
  let name = shortNames.get(text);
  if (name === undefined) {
    if (shortNames.size > 2000) shortNames.clear();
    name = `v${nextShortName++}`;
    shortNames.set(text, name);
  }
  return name;
}

/** What `chunk` usually is. */
const CHUNK = 32 * BLOCK;

/** The tables of a catalog as sources, each made when it is first asked for. */
export class TableSources {
  private readonly made = new Map<string, TableSource>();

  constructor(
    private readonly tables: Table[],
    readonly scope: Scope,
    /** What current_date is, as whole days; null when nobody said. */
    readonly today: Value,
    readonly stop: StopFlag = () => null,
    readonly crew?: Crew,
    readonly chunk = CHUNK,
  ) {}

  /** The same tables, scanned by nobody else. */
  alone(): TableSources {
    return new TableSources(this.tables, this.scope, this.today, this.stop, undefined, this.chunk);
  }

  /** Throws a QueryError where the work over these sources is to end. Asked between blocks. */
  checkStop(): void {
    checkStop(this.stop);
  }

  find(name: string): Table | undefined {
    return findNamed(this.tables, name);
  }

  of(name: string): TableSource {
    const key = name.toLowerCase();
    let source = this.made.get(key);
    if (!source) {
      const table = this.find(name);
      if (!table) throw new QueryError("unknown_table", `There is no table called “${name}”.`);
      source = new TableSource(table, this);
      this.made.set(key, source);
    }
    return source;
  }

  /** The formulas of a table's derived columns, by name. */
  derivedOf(table: string): [string, string][] {
    const columns = findNamed(this.scope.tables, table)?.columns ?? [];
    return columns.flatMap((c): [string, string][] => (c.formula === undefined ? [] : [[c.name, c.formula]]));
  }

  formulaOf(table: string, column: string): string | undefined {
    const columns = findNamed(this.scope.tables, table)?.columns ?? [];
    return columns.find((c) => c.formula !== undefined && sameName(c.name, column))?.formula;
  }
}
