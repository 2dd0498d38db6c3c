/** Where the modules and their fonts are fetched from; a file that holds them itself puts others in place. */
export const places: { engine: () => string; patterns: () => string; font: (file: string) => string } = {
  engine: () => new URL("./cavlo-engine.js", import.meta.url).href,
  patterns: () => new URL("./cavlo-patterns.js", import.meta.url).href,
  font: (file: string) => new URL(`./fonts/${file}`, import.meta.url).href,
};
