/**
 * What matches a text typed to find it: every word of the text stands somewhere in the name, in any case;
 * names that begin with the text come first, else the order stays.
 */
export function matching<T>(items: T[], find: string, nameOf: (item: T) => string): T[] {
  const words = find.toLowerCase().split(/\s+/).filter(Boolean);
  if (words.length === 0) return items;
  const start = words.join(" ");
  const found = items.filter((item) => {
    const name = nameOf(item).toLowerCase();
    return words.every((word) => name.includes(word));
  });
  const begins = (item: T) => nameOf(item).toLowerCase().startsWith(start);
  return [...found.filter(begins), ...found.filter((item) => !begins(item))];
}
