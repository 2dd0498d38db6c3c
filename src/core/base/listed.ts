/**
 * Names in a row, as a sentence says them: "a", "a and b", "a, b and c"; of more than `most` the first, and how
 * many more.
 */
export function listed(names: readonly string[], most = 4, word: "and" | "or" = "and"): string {
  if (names.length > most) return `${names.slice(0, most).join(", ")} ${word} ${names.length - most} more`;
  if (names.length < 2) return names.join("");
  return `${names.slice(0, -1).join(", ")} ${word} ${names[names.length - 1]}`;
}
