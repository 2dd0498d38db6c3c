import type { Span } from "../base/problem";
import type { Value, ValueType } from "../base/value";

/** The operators between two operands. */
export const BINARY_OPERATORS = [
  "or",
  "and",
  "=",
  "<>",
  "<",
  "<=",
  ">",
  ">=",
  "+",
  "-",
  "||",
  "*",
  "/",
  "%",
] as const;
/** One of BINARY_OPERATORS. */
export type BinaryOperator = (typeof BINARY_OPERATORS)[number];

/** The types by the words that a cast names them with. */
export const CAST_TYPES = {
  number: "number",
  double: "number",
  numeric: "number",
  integer: "number",
  text: "text",
  boolean: "boolean",
  date: "date",
  timestamp: "timestamp",
} as const;

/** The tree of a formula as it was written, before names and types are known. */
export type Node = Span &
  (
    | { kind: "literal"; type: ValueType; value: Value }
    | { kind: "name"; parts: string[] }
    | { kind: "input"; name: string }
    | { kind: "unary"; op: "-" | "+" | "not"; arg: Node }
    | { kind: "binary"; op: BinaryOperator; left: Node; right: Node }
    | {
        kind: "call";
        name: string;
        nameSpan: Span;
        args: Node[];
        star: boolean;
        distinct: boolean;
        filter?: Node;
        orderBy?: Node;
      }
    | { kind: "case"; subject?: Node; branches: { when: Node; result: Node }[]; otherwise?: Node }
    | { kind: "cast"; arg: Node; to: ValueType }
    | { kind: "between"; arg: Node; low: Node; high: Node; negated: boolean }
    | { kind: "in"; arg: Node; list: Node[]; negated: boolean }
    | { kind: "like"; arg: Node; pattern: Node; escape?: Node; negated: boolean }
    | { kind: "isNull"; arg: Node; negated: boolean }
    | { kind: "isDistinct"; left: Node; right: Node; negated: boolean }
    | { kind: "extract"; field: string; fieldSpan: Span; arg: Node }
    | { kind: "error" }
  );
