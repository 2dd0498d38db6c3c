// A module of its own, fetched only where regular expressions are matched or dates read by patterns.
export { utc } from "@date-fns/utc";
export { format } from "date-fns/format";
export { parse } from "date-fns/parse";
export { RE2JS } from "re2js";
