import { isColour } from "../scene/colour";
import type { Dial, DialValue, Part } from "./kind";

/** The dials of a visual as its kind reads them: those set by hand where they are valid, the kind's defaults elsewhere. */
export class Style {
  private readonly dials = new Map<string, Dial>();

  constructor(
    parts: Part[],
    private readonly set: Record<string, DialValue>,
  ) {
    for (const part of parts) for (const dial of part.dials) this.dials.set(`${part.id}.${dial.id}`, dial);
  }

  private dial<T extends Dial["type"]>(key: string, type: T): Extract<Dial, { type: T }> {
    const dial = this.dials.get(key);
    if (dial?.type !== type) throw new Error(`${key} is no ${type} dial of this kind`);
    return dial as Extract<Dial, { type: T }>;
  }

  number(key: string): number {
    const dial = this.dial(key, "number");
    const value = this.set[key];
    return typeof value === "number" && Number.isFinite(value) ? Math.min(dial.max, Math.max(dial.min, value)) : dial.default;
  }

  choice(key: string): string {
    const dial = this.dial(key, "choice");
    const value = this.set[key];
    return dial.options.some((o) => o.value === value) ? (value as string) : dial.default;
  }

  toggle(key: string): boolean {
    const dial = this.dial(key, "toggle");
    const value = this.set[key];
    return typeof value === "boolean" ? value : dial.default;
  }

  template(key: string): string {
    const dial = this.dial(key, "template");
    const value = this.set[key];
    return typeof value === "string" ? value : dial.default;
  }

  /** The colour set by hand, or the automatic one. */
  colour(key: string, automatic: string): string {
    this.dial(key, "colour");
    const value = this.set[key];
    return typeof value === "string" && isColour(value) ? value : automatic;
  }
}
