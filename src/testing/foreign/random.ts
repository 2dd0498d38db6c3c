/** A stream of chances that a seed decides, the same on every machine (mulberry32). */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = seed >>> 0;
  }

  /** A number from 0 to before 1. */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) >>> 0;
    let t = this.state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 2 ** 32;
  }

  /** A whole number from one to another, both included. */
  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  /** Whether something happens that happens so often. */
  chance(share: number): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)];
  }

  /** Some of a list, in its order. */
  some<T>(list: readonly T[], share: number): T[] {
    return list.filter(() => this.chance(share));
  }
}
