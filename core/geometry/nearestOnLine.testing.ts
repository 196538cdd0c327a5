/** Distances to outlines, for tests: by the plain formula, none of the app's geometry. */
export function nearestOn(outlines: readonly ArrayLike<number>[]): (at: readonly [number, number]) => number {
  const CELL = 4;
  const cells = new Map<string, number[]>();
  const segments: number[][] = [];
  for (const ring of outlines)
    for (let i = 0; i < ring.length; i += 2) {
      const j = (i + 2) % ring.length;
      const [ax, ay, bx, by] = [ring[i], ring[i + 1], ring[j], ring[j + 1]];
      const index = segments.push([ax, ay, bx, by]) - 1;
      const span = (a: number, b: number): number[] =>
        Array.from(
          { length: Math.floor((Math.max(a, b) + 1) / CELL) - Math.floor((Math.min(a, b) - 1) / CELL) + 1 },
          (_, k) => Math.floor((Math.min(a, b) - 1) / CELL) + k,
        );
      for (const x of span(ax, bx))
        for (const y of span(ay, by)) {
          const key = `${x} ${y}`;
          const own = cells.get(key);
          if (own) own.push(index);
          else cells.set(key, [index]);
        }
    }
  return ([x, y]) => {
    let best = Infinity;
    for (const index of cells.get(`${Math.floor(x / CELL)} ${Math.floor(y / CELL)}`) ?? []) {
      const [ax, ay, bx, by] = segments[index];
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy || 1)));
      best = Math.min(best, Math.hypot(ax + t * dx - x, ay + t * dy - y));
    }
    return best;
  };
}
