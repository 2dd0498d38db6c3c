// A module of its own, fetched only where formulas match regular expressions.
export { RE2JS } from "re2js";
