/** What `assembly` exports: addresses are bytes of the memory, 0 where there is no array. */
export interface LoopsModule {
  toDoubles(cells: number, kind: number, none: number, at: number, length: number, out: number): void;
  scaled(stored: number, scale: number, length: number, out: number): void;
  gatherDoubles(values: number, at: number, length: number, out: number): void;
  gatherInts(codes: number, kind: number, at: number, length: number, out: number): void;
  pickRange(
    cells: number,
    kind: number,
    low: number,
    high: number,
    from: number,
    length: number,
    out: number,
  ): number;
  pickCodes(codes: number, kind: number, marks: number, from: number, length: number, out: number): number;
  pickNear(
    cells: number,
    kind: number,
    low: number,
    marks: number,
    from: number,
    length: number,
    out: number,
  ): number;
  groupCodes(
    codes: number,
    kind: number,
    groupOfCode: number,
    at: number,
    length: number,
    groups: number,
  ): number;
  groupNear(
    values: number,
    kind: number,
    low: number,
    table: number,
    span: number,
    at: number,
    length: number,
    groups: number,
  ): number;
  numberPairs(firsts: number, width: number, second: number, length: number): void;
  groupPairs(pairs: number, width: number, second: number, length: number, groups: number): number;
  test(name: number, a: number, b: number, length: number, out: number): void;
  reckon(operator: number, a: number, b: number, length: number, out: number): void;
  fillValues(
    cells: number,
    kind: number,
    none: number,
    at: number,
    filter: number,
    length: number,
    to: number,
    stride: number,
    empty: number,
  ): void;
  fillCounts(
    cells: number,
    kind: number,
    none: number,
    at: number,
    filter: number,
    length: number,
    to: number,
    stride: number,
  ): void;
  fillFilter(filter: number, length: number, to: number, stride: number): void;
  foldLanes(
    totals: number,
    groups: number,
    records: number,
    sums: number,
    largest: number,
    smallest: number,
    length: number,
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
  markInts(
    marks: number,
    buckets: number,
    low: number,
    width: number,
    values: number,
    groups: number,
    length: number,
    filter: number,
  ): void;
  markDoubles: LoopsModule["markInts"];
  emptyMarks(marks: number, buckets: number): void;
  bitsIn(words: number, length: number): number;
  uniteWords(into: number, from: number, length: number): void;
  countBins(
    counts: number,
    low: number,
    shift: number,
    width: number,
    numbers: number,
    groups: number,
    length: number,
    filter: number,
    written: number,
  ): number;
  addCounts(into: number, from: number, length: number): void;
  pickPlaces(places: number, marks: number, shift: number, length: number, out: number): number;
}
