/** The first characters of a text, at most `most` as they are stored, without half a character at the end. */
export const cutText = (text: string, most: number): string =>
  text.length > most ? text.slice(0, most).replace(/[\ud800-\udbff]$/, "") : text;
