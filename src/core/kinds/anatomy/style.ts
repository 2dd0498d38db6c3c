import { isColour } from "../../scene/colour";
import type { Dial, DialValue, Part } from "./dial";

const tables = new WeakMap<Part[], Map<string, Dial>>();

function tableOf(parts: Part[]): Map<string, Dial> {
  let table = tables.get(parts);
  if (!table) {
    table = new Map(
      parts.flatMap((part) => part.dials.map((dial) => [`${part.id}.${dial.id}`, dial] as const)),
    );
    tables.set(parts, table);
  }
  return table;
}

/** Whether a value is one that a dial can have. */
function fits(dial: Dial, value: DialValue | undefined): boolean {
  switch (dial.type) {
    case "number":
      return typeof value === "number" && Number.isFinite(value);
    case "choice":
      return dial.options.some((o) => o.value === value);
    case "toggle":
      return typeof value === "boolean";
    case "template":
    case "palette":
      return typeof value === "string";
    case "colour":
      return typeof value === "string" && isColour(value);
  }
}

/**
 * The dials of a visual as its kind reads them: those set by hand where they are valid, then those of the
 * finish, the kind's defaults elsewhere.
 */
export class Style {
  private readonly dials: Map<string, Dial>;
  private readonly layers: Record<string, DialValue>[];

  /** `layers` come in the order of their weight, the heaviest first. */
  constructor(parts: Part[], ...layers: Record<string, DialValue>[]) {
    this.dials = tableOf(parts);
    this.layers = layers;
  }

  /** What a dial stands at. */
  value(key: string): DialValue {
    const dial = this.dials.get(key);
    if (!dial) throw new Error(`${key} is no dial of this kind`);
    for (const layer of this.layers) if (fits(dial, layer[key])) return layer[key];
    return dial.default;
  }

  has(key: string): boolean {
    return this.dials.has(key);
  }

  private read<T extends Dial["type"]>(key: string, type: T): DialValue {
    if (this.dials.get(key)?.type !== type) throw new Error(`${key} is no ${type} dial of this kind`);
    return this.value(key);
  }

  number(key: string): number {
    const value = this.read(key, "number") as number;
    const { min, max } = this.dials.get(key) as Extract<Dial, { type: "number" }>;
    return Math.min(max, Math.max(min, value));
  }

  choice(key: string): string {
    return this.read(key, "choice") as string;
  }

  toggle(key: string): boolean {
    return this.read(key, "toggle") as boolean;
  }

  template(key: string): string {
    return this.read(key, "template") as string;
  }

  palette(key: string): string {
    return this.read(key, "palette") as string;
  }

  /** The colour set by hand or by the finish, or the automatic one. */
  colour(key: string, automatic: string): string {
    return (this.read(key, "colour") as string) || automatic;
  }
}
