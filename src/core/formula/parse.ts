import { parseIsoDate, parseIsoTimestamp } from "../base/calendar";
import type { Problem, Span } from "../base/problem";
import { insteadOfKeyword, isBeforeValue } from "./foreign-words";
import { type Token, tokenize } from "./tokens";
import { type BinaryOperator, CAST_TYPES, type Node } from "./tree";

/** The most characters of a formula. */
const MAX_LENGTH = 10_000;
/** How deep the parts of a formula can stand in one another. */
export const MAX_DEPTH = 200;

/** Words that cannot be a bare name; write them in double quotes to use them as one. */
export const RESERVED = new Set(
  "and or not is null true false in between like escape case when then else end cast as distinct filter where from for within group order by".split(
    " ",
  ),
);

const BINDING: Record<string, number> = {
  or: 1,
  and: 2,
  "=": 4,
  "<>": 4,
  "<": 4,
  "<=": 4,
  ">": 4,
  ">=": 4,
  "+": 5,
  "-": 5,
  "||": 5,
  "*": 6,
  "/": 6,
  "%": 6,
};
const NOT_BINDING = 3;
const COMPARISON = 4;
const UNARY_BINDING = 7;

/** Recursive descent with precedence climbing; carries on after a problem so that all of them are found. */
class Parser {
  private at = 0;
  private depth = 0;
  private exhausted = false;

  constructor(
    private readonly tokens: Token[],
    readonly problems: Problem[],
  ) {}

  parse(): Node {
    const node = this.expression(0);
    if (this.peek().kind !== "end") {
      const token = this.peek();
      const message =
        token.text === ")" && token.kind === "symbol"
          ? "This closing bracket has no opening one. Remove it."
          : `Something is missing before “${token.text}”: an operator, or a comma inside a function.`;
      this.report(token, message);
    }
    return node;
  }

  private peek(ahead = 0): Token {
    return this.tokens[Math.min(this.at + ahead, this.tokens.length - 1)];
  }
  private next(): Token {
    const token = this.peek();
    if (this.at < this.tokens.length - 1) this.at++;
    return token;
  }
  private isWord(word: string, ahead = 0): boolean {
    const token = this.peek(ahead);
    return token.kind === "word" && token.text.toLowerCase() === word;
  }
  private isSymbol(symbol: string): boolean {
    const token = this.peek();
    return token.kind === "symbol" && token.text === symbol;
  }
  private takeWord(word: string): boolean {
    if (!this.isWord(word)) return false;
    this.next();
    return true;
  }
  private takeSymbol(symbol: string): boolean {
    if (!this.isSymbol(symbol)) return false;
    this.next();
    return true;
  }

  /** One problem a place: what follows from the first one is not news. */
  private report(span: Span, message: string): void {
    if (this.exhausted || this.problems.some((p) => p.start === span.start)) return;
    const foreign = this.foreignAt(span);
    const { start, end } = foreign?.token ?? span;
    this.problems.push({
      code: foreign ? "foreign" : "syntax",
      start,
      end: Math.max(end, start),
      message: foreign?.instead ?? message,
    });
  }
  /** The word of SQL that stands at a problem or, where its own value follows it, before that. */
  private foreignAt({ start }: Span): { token: Token; instead: string } | null {
    const at = this.tokens.findIndex((t) => t.start === start);
    const before = this.tokens[at - 1];
    const token = before && isBeforeValue(before.text) ? before : this.tokens[at];
    const instead = token?.kind === "word" ? insteadOfKeyword(token.text) : null;
    return instead ? { token, instead } : null;
  }
  private expectSymbol(symbol: string, message: string): void {
    if (!this.takeSymbol(symbol)) this.report(this.peek(), message);
  }
  private expectWord(word: string, message: string): void {
    if (!this.takeWord(word)) this.report(this.peek(), message);
  }
  private endOfLast(): number {
    return this.at > 0 ? this.tokens[this.at - 1].end : 0;
  }
  private span(start: number): Span {
    return { start, end: Math.max(start, this.endOfLast()) };
  }

  private expression(minimum: number): Node {
    if (this.depth >= MAX_DEPTH) {
      if (!this.exhausted)
        this.problems.push({
          ...this.peek(),
          code: "limit",
          message: `The formula is nested more than ${MAX_DEPTH} levels deep. Move a part of it into a measure of its own.`,
        });
      this.exhausted = true;
      this.at = this.tokens.length - 1;
      return { kind: "error", ...this.span(this.peek().start) };
    }
    this.depth++;
    let left = this.prefix();
    for (;;) {
      const extended = this.suffix(left, minimum);
      if (!extended) break;
      left = extended;
    }
    this.depth--;
    return left;
  }

  private prefix(): Node {
    const token = this.peek();
    const start = token.start;
    if (this.isWord("not")) {
      this.next();
      const arg = this.expression(NOT_BINDING);
      return { kind: "unary", op: "not", arg, ...this.span(start) };
    }
    if (token.kind === "symbol" && (token.text === "-" || token.text === "+")) {
      this.next();
      const arg = this.expression(UNARY_BINDING);
      return { kind: "unary", op: token.text, arg, ...this.span(start) };
    }
    return this.primary();
  }

  /** Takes an operator and what follows it, or gives null when the expression ends here. */
  private suffix(left: Node, minimum: number): Node | null {
    const token = this.peek();
    const start = left.start;
    const word = token.kind === "word" ? token.text.toLowerCase() : "";
    const op = token.kind === "symbol" ? token.text : word;
    const binding = token.kind === "symbol" || word === "and" || word === "or" ? BINDING[op] : undefined;
    if (binding !== undefined) {
      if (binding < minimum || binding === 0) return null;
      this.next();
      const right = this.expression(binding + 1);
      return { kind: "binary", op: op as BinaryOperator, left, right, ...this.span(start) };
    }
    if (minimum > COMPARISON) return null;
    const negated = word === "not" && ["between", "in", "like"].some((w) => this.isWord(w, 1));
    if (negated) this.next();
    if (this.takeWord("is")) return this.isSuffix(left);
    if (this.takeWord("between")) {
      const low = this.expression(COMPARISON + 1);
      this.expectWord("and", "“between” needs two limits: x between low and high.");
      const high = this.expression(COMPARISON + 1);
      return { kind: "between", arg: left, low, high, negated, ...this.span(start) };
    }
    if (this.takeWord("in")) {
      this.expectSymbol("(", "“in” needs a list in brackets: x in ('a', 'b').");
      const list = this.isSymbol(")") ? [] : this.list();
      if (list.length === 0)
        this.report(this.peek(), "The list after “in” is empty. Write at least one value in it.");
      this.expectSymbol(")", "The list after “in” has no closing bracket.");
      return { kind: "in", arg: left, list, negated, ...this.span(start) };
    }
    if (this.takeWord("like")) {
      const pattern = this.expression(COMPARISON + 1);
      const escapeSign = this.takeWord("escape") ? this.expression(COMPARISON + 1) : undefined;
      return { kind: "like", arg: left, pattern, escape: escapeSign, negated, ...this.span(start) };
    }
    return null;
  }

  private isSuffix(left: Node): Node {
    const start = left.start;
    const negated = this.takeWord("not");
    if (this.takeWord("null")) return { kind: "isNull", arg: left, negated, ...this.span(start) };
    if (this.takeWord("distinct")) {
      this.expectWord("from", "Write “is distinct from”.");
      const right = this.expression(COMPARISON + 1);
      return { kind: "isDistinct", left, right, negated, ...this.span(start) };
    }
    this.report(this.peek(), "After “is” comes null, not null, distinct from, or not distinct from.");
    return { kind: "error", ...this.span(start) };
  }

  private list(): Node[] {
    const items = [this.expression(0)];
    while (this.takeSymbol(",")) items.push(this.expression(0));
    return items;
  }

  private primary(): Node {
    const token = this.peek();
    const start = token.start;
    switch (token.kind) {
      case "number":
        this.next();
        return { kind: "literal", type: "number", value: Number(token.text), start, end: token.end };
      case "string":
        this.next();
        return { kind: "literal", type: "text", value: token.text, start, end: token.end };
      case "input":
        this.next();
        return { kind: "input", name: token.text, start, end: token.end };
      case "quoted":
        return this.name();
      case "word":
        return this.word();
      case "symbol":
        if (this.takeSymbol("(")) {
          const inner = this.expression(0);
          this.expectSymbol(")", "This bracket is not closed. Add ) where it ends.");
          return { ...inner, ...this.span(start) };
        }
    }
    return this.missing();
  }

  private missing(): Node {
    const token = this.peek();
    const before = this.at > 0 ? this.tokens[this.at - 1] : null;
    const place = before && before.kind !== "end" ? ` after “${before.text}”` : "";
    const message =
      token.kind === "end" && this.at === 0
        ? "The formula is empty. Begin with an aggregate, for example sum(…)."
        : `A value is missing${place}.`;
    this.report(token, message);
    if (token.kind === "symbol" && ![")", ","].includes(token.text)) this.next();
    return { kind: "error", start: token.start, end: token.end };
  }

  private word(): Node {
    const token = this.peek();
    const { start, end } = token;
    const word = token.text.toLowerCase();
    if (word === "null") {
      this.next();
      return { kind: "literal", type: "null", value: null, start, end };
    }
    if (word === "true" || word === "false") {
      this.next();
      return { kind: "literal", type: "boolean", value: word === "true", start, end };
    }
    if (word === "case") return this.caseExpression();
    if (word === "cast") return this.castExpression();
    if ((word === "date" || word === "timestamp") && this.peek(1).kind === "string")
      return this.dateLiteral(word);
    if (RESERVED.has(word)) return this.missing();
    const opens = this.peek(1);
    if (opens.kind === "symbol" && opens.text === "(") return this.call();
    if (word === "current_date") {
      this.next();
      return {
        kind: "call",
        name: word,
        nameSpan: { start, end },
        args: [],
        star: false,
        distinct: false,
        start,
        end,
      };
    }
    return this.name();
  }

  private name(): Node {
    const first = this.next();
    const parts = [first.text];
    while (this.isSymbol(".")) {
      this.next();
      const part = this.peek();
      if (part.kind !== "word" && part.kind !== "quoted") {
        this.report(part, "A column name is missing after the dot.");
        break;
      }
      parts.push(this.next().text);
    }
    return { kind: "name", parts, ...this.span(first.start) };
  }

  private dateLiteral(word: "date" | "timestamp"): Node {
    const { start } = this.next();
    const token = this.next();
    const value = word === "date" ? parseIsoDate(token.text) : parseIsoTimestamp(token.text);
    if (value === null) {
      const example = word === "date" ? "date '2026-05-01'" : "timestamp '2026-05-01 08:30:00'";
      this.report(token, `“${token.text}” is not a ${word}. Write it as in ${example}.`);
    }
    return { kind: "literal", type: word, value, ...this.span(start) };
  }

  private caseExpression(): Node {
    const { start } = this.next();
    const subject = this.isWord("when") ? undefined : this.expression(0);
    const branches: { when: Node; result: Node }[] = [];
    while (this.takeWord("when")) {
      const when = this.expression(0);
      this.expectWord("then", "A “when” needs its “then”.");
      branches.push({ when, result: this.expression(0) });
    }
    if (branches.length === 0) this.report(this.peek(), "A “case” needs at least one “when … then …”.");
    const otherwise = this.takeWord("else") ? this.expression(0) : undefined;
    this.expectWord("end", "A “case” closes with “end”.");
    return { kind: "case", subject, branches, otherwise, ...this.span(start) };
  }

  private castExpression(): Node {
    const { start } = this.next();
    this.expectSymbol("(", "Write cast(x as number).");
    const arg = this.expression(0);
    this.expectWord("as", "Write the type after “as”: cast(x as number).");
    const type = this.peek();
    const to =
      type.kind === "word" && Object.hasOwn(CAST_TYPES, type.text.toLowerCase())
        ? CAST_TYPES[type.text.toLowerCase() as keyof typeof CAST_TYPES]
        : null;
    if (to || type.kind === "word") this.next();
    if (!to) this.report(type, "The type must be number, text, boolean, date or timestamp.");
    this.expectSymbol(")", "This bracket is not closed. Add ) where it ends.");
    return { kind: "cast", arg, to: to ?? "null", ...this.span(start) };
  }

  private call(): Node {
    const token = this.next();
    const name = token.text.toLowerCase();
    const nameSpan = { start: token.start, end: token.end };
    this.next();
    if (name === "extract") return this.extract(nameSpan);
    let args: Node[] = [];
    let star = false;
    const distinct = this.takeWord("distinct");
    if (this.isSymbol("*")) {
      this.next();
      star = true;
    } else if (!this.isSymbol(")")) {
      args = name === "position" ? this.placeArguments() : this.list();
      if (name === "substring") {
        for (const word of ["from", "for"]) if (this.takeWord(word)) args.push(this.expression(0));
      }
    }
    this.expectSymbol(")", `The brackets of ${name} are not closed. Add ) where they end.`);
    let orderBy: Node | undefined;
    if (this.takeWord("within")) {
      this.expectWord("group", "Write within group (order by x).");
      this.expectSymbol("(", "Write within group (order by x).");
      this.expectWord("order", "Write within group (order by x).");
      this.expectWord("by", "Write within group (order by x).");
      orderBy = this.expression(0);
      this.expectSymbol(")", "This bracket is not closed. Add ) where it ends.");
    }
    let filter: Node | undefined;
    if (this.takeWord("filter")) {
      this.expectSymbol("(", "Write filter (where …).");
      this.expectWord("where", "Write filter (where …).");
      filter = this.expression(0);
      this.expectSymbol(")", "The brackets of filter are not closed. Add ) where they end.");
    }
    return { kind: "call", name, nameSpan, args, star, distinct, filter, orderBy, ...this.span(token.start) };
  }

  /** position(part in text): its “in” is no test of a list. */
  private placeArguments(): Node[] {
    const part = this.expression(COMPARISON + 1);
    if (!this.takeWord("in")) this.expectSymbol(",", "Write position(part in text).");
    return [part, this.expression(0)];
  }

  private extract(nameSpan: Span): Node {
    const field = this.peek();
    if (field.kind === "word") this.next();
    else this.report(field, "Write the part first: extract(year from d).");
    this.expectWord("from", "Write “from” after the part: extract(year from d).");
    const arg = this.expression(0);
    this.expectSymbol(")", "This bracket is not closed. Add ) where it ends.");
    return {
      kind: "extract",
      field: field.text.toLowerCase(),
      fieldSpan: { start: field.start, end: field.end },
      arg,
      ...this.span(nameSpan.start),
    };
  }
}

/**
 * Parses a formula (the grammar is in docs/formulas.md). Always gives a tree, with `error` nodes where
 * the text could not be read, and every syntax problem with its place.
 */
export function parseFormula(source: string): { node: Node; problems: Problem[] } {
  if (source.length > MAX_LENGTH) {
    const message = `The formula has ${source.length} characters; at most ${MAX_LENGTH} are allowed. Move a part of it into a measure of its own.`;
    return {
      node: { kind: "error", start: 0, end: source.length },
      problems: [{ code: "limit", start: MAX_LENGTH, end: source.length, message }],
    };
  }
  const { tokens, problems } = tokenize(source);
  const parser = new Parser(tokens, problems);
  const node = parser.parse();
  problems.sort((a, b) => a.start - b.start);
  return { node, problems };
}
