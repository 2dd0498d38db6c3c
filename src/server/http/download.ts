/** Headers that make the browser save an answer under a name; what a file name cannot hold is replaced. */
export function attachment(name: string): Record<string, string> {
  const safe = name.replace(/[\\/:*?"<>|\r\n]+/g, "-").trim() || "file";
  const ascii = safe.replace(/[^\x20-\x7e]/g, "_");
  return {
    "content-disposition": `attachment; filename="${ascii}"; filename*=UTF-8''${encodeURIComponent(safe).replace(/['()*]/g, (c) => `%${c.charCodeAt(0).toString(16).toUpperCase()}`)}`,
  };
}
