/**
 * A text with more characters than this (16,383 in V8) is told from others in a map by nothing but its
 * length: maps with many long texts of one length would compare each with all of them.
 */
const LONG = 16_383;

/** FNV-1a over a text's UTF-16 code units, 32 bits (Fowler, Noll and Vo). */
function hashOf(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash;
}

/** A map from texts, of which many may be long. */
export class TextMap<V> {
  private readonly short = new Map<string, V>();
  /** By their hash: the texts that have it, with their values. */
  private readonly long = new Map<number, [string, V][]>();
  private longs = 0;

  get size(): number {
    return this.short.size + this.longs;
  }

  get(text: string): V | undefined {
    if (text.length <= LONG) return this.short.get(text);
    return this.long.get(hashOf(text))?.find(([known]) => known === text)?.[1];
  }

  set(text: string, value: V): void {
    if (text.length <= LONG) {
      this.short.set(text, value);
      return;
    }
    const hash = hashOf(text);
    const alike = this.long.get(hash) ?? [];
    const known = alike.find(([other]) => other === text);
    if (known) known[1] = value;
    else {
      alike.push([text, value]);
      this.long.set(hash, alike);
      this.longs++;
    }
  }

  /** All texts: the short ones as they came, then the long ones. */
  *keys(): Generator<string> {
    yield* this.short.keys();
    for (const alike of this.long.values()) for (const [text] of alike) yield text;
  }
}
