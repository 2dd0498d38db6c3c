/** The place in a list of so many that a key leads to from another; null for keys that lead nowhere. */
export function steppedBy(key: string, at: number, count: number): number | null {
  if (count === 0) return null;
  switch (key) {
    case "ArrowRight":
    case "ArrowDown":
      return at + 1 < count ? at + 1 : 0;
    case "ArrowLeft":
    case "ArrowUp":
      return at > 0 ? at - 1 : count - 1;
    case "Home":
      return 0;
    case "End":
      return count - 1;
    default:
      return null;
  }
}
