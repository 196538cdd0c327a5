/** Where one more line goes: the middle of the widest gap between those that are there, and the two ends. */
export function middleOfWidest(from: number, to: number, places: readonly number[]): number {
  const edges = [from, ...[...places].filter((x) => x > from && x < to).sort((a, b) => a - b), to];
  const widest = edges.slice(1).reduce((best, x, i) => {
    return x - edges[i] > edges[best + 1] - edges[best] ? i : best;
  }, 0);
  return (edges[widest] + edges[widest + 1]) / 2;
}
