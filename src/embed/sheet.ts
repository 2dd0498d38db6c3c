/** A style sheet for shadow roots, which no policy of a page keeps out; made once, when it is first asked for. */
export function sheetOf(text: string): () => CSSStyleSheet {
  let sheet: CSSStyleSheet | null = null;
  return () => {
    if (!sheet) {
      sheet = new CSSStyleSheet();
      sheet.replaceSync(text);
    }
    return sheet;
  };
}
