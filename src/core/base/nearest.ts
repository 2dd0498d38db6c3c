/**
 * Edit distance that counts insertion, deletion, substitution and swapping of neighbours
 * (optimal string alignment).
 */
function editDistance(a: string, b: string): number {
  const rows = Array.from({ length: a.length + 1 }, (_, i) => [i, ...Array<number>(b.length).fill(0)]);
  for (let j = 1; j <= b.length; j++) rows[0][j] = j;
  for (let i = 1; i <= a.length; i++) {
    for (let j = 1; j <= b.length; j++) {
      const cost = a[i - 1] === b[j - 1] ? 0 : 1;
      rows[i][j] = Math.min(rows[i - 1][j] + 1, rows[i][j - 1] + 1, rows[i - 1][j - 1] + cost);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1])
        rows[i][j] = Math.min(rows[i][j], rows[i - 2][j - 2] + 1);
    }
  }
  return rows[a.length][b.length];
}

/** The known name most like `wanted`, or null when none is near (more than a third of its letters differ). */
export function nearestName(wanted: string, known: Iterable<string>): string | null {
  const target = wanted.toLowerCase();
  let best: string | null = null;
  let bestScore = Number.POSITIVE_INFINITY;
  for (const name of known) {
    const candidate = name.toLowerCase();
    const begins = target.length >= 3 && candidate.startsWith(target);
    if (!begins && Math.abs(candidate.length - target.length) > 6) continue;
    const score = begins ? 0.5 : editDistance(target, candidate);
    if (score < bestScore) [best, bestScore] = [name, score];
  }
  return bestScore <= Math.max(1, Math.floor(target.length / 3)) ? best : null;
}
