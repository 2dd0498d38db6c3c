const isBare = (name: string) => /^[\p{L}_][\p{L}\p{M}\p{N}_$]*$/u.test(name);

/** A name as a formula writes it: bare where it can be, else in double quotes. */
export function quoteName(name: string): string {
  return isBare(name) ? name : `"${name.replaceAll('"', '""')}"`;
}
