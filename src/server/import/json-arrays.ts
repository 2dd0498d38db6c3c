import { createReadStream } from "node:fs";
import { Tokenizer, TokenType } from "@streamparser/json";
import { ImportProblem } from "./import-problem";

/**
 * An array of objects inside a file that is one object: its path (data.items), the byte at which it begins,
 * and how many rows it has.
 */
export interface JsonArray {
  path: string;
  start: number;
  rows: number;
}

const MOST_ARRAYS = 100;
const MOST_PATH = 280;

interface Level {
  array: JsonArray | null;
  isArray: boolean;
  /** The key under which the next value stands. */
  key: string;
  expectsKey: boolean;
  /** Whether an array lies above: what is inside of rows is no table of its own. */
  inRows: boolean;
}

const written = (key: string) => (/^[^."\s]+$/u.test(key) ? key : JSON.stringify(key));

/**
 * Finds the arrays of objects that are reached through objects alone, in the order of the file; empty arrays
 * and arrays of plain values are passed over.
 */
export async function arraysIn(path: string): Promise<JsonArray[]> {
  const found: JsonArray[] = [];
  const levels: Level[] = [];
  const tokenizer = new Tokenizer();
  tokenizer.onToken = ({ token, value, offset }) => {
    const top = levels.at(-1);
    if (token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET) {
      const isArray = token === TokenType.LEFT_BRACKET;
      if (!isArray && top?.array) top.array.rows++;
      const at = levels
        .filter((l) => !l.isArray)
        .map((l) => written(l.key))
        .join(".");
      const inRows = top !== undefined && (top.inRows || top.isArray);
      const array =
        isArray && !inRows && at.length > 0 && at.length <= MOST_PATH
          ? { path: at, start: offset, rows: 0 }
          : null;
      levels.push({ array, isArray, key: "", expectsKey: !isArray, inRows });
    } else if (token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET) {
      const closed = levels.pop();
      if (closed?.array && closed.array.rows > 0 && found.length < MOST_ARRAYS) found.push(closed.array);
    } else if (top && !top.isArray) {
      if (token === TokenType.STRING && top.expectsKey) top.key = String(value).toWellFormed();
      if (token === TokenType.COLON) top.expectsKey = false;
      if (token === TokenType.COMMA) top.expectsKey = true;
    }
  };
  try {
    for await (const chunk of createReadStream(path, { highWaterMark: 1 << 18 }))
      if (!tokenizer.isEnded) tokenizer.write(chunk as Buffer);
  } catch (error) {
    const why =
      error instanceof Error
        ? error.message.replace(/ at chunk position.*absolute position "(\d+)".*/s, " at byte $1")
        : String(error);
    throw new ImportProblem(
      `The JSON is broken: ${why}. It may have been cut short; save it again and bring in the new file.`,
    );
  }
  return found.toSorted((a, b) => a.start - b.start);
}
