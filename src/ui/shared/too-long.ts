/** Says of a text that it is too long, or null; nothing of what was typed is cut off. */
export const tooLong = (text: string, longest: number): string | null =>
  text.length > longest
    ? `It has ${text.length.toLocaleString("en")} characters, of ${longest.toLocaleString("en")} at most.`
    : null;
