import type { utc as Zone } from "@date-fns/utc";
import type { format as Format } from "date-fns/format";
import type { parse as Parse } from "date-fns/parse";
import type { RE2JS as Library } from "re2js";

/**
 * What matches regular expressions and reads dates by patterns, which few projects need and which is as
 * large as the engine: the build puts this in its place (scripts/build-embed.mjs), and it is fetched where a
 * project asks for it.
 */
export let RE2JS: typeof Library;
export let format: typeof Format;
export let parse: typeof Parse;
export let utc: typeof Zone;

interface Patterns {
  RE2JS: typeof Library;
  format: typeof Format;
  parse: typeof Parse;
  utc: typeof Zone;
}

/** Fetches the libraries from their address, once. */
export async function loadPatterns(address: string): Promise<void> {
  if (RE2JS === undefined)
    ({ RE2JS, format, parse, utc } = (await import(/* @vite-ignore */ address)) as Patterns);
}
