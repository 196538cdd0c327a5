/** What lies at places on a strip, as its order knows it. */
import { liesOn } from '../../core/geometry/nesting';
import { inverse, mapped } from '../../core/geometry/matrix';
import type { Spot } from '../../core/geometry/spot';
import type { Plan } from '../../core/plan/planned';

export interface OnStrip {
  readonly strip: string;
  /** mm it takes, and its lines: another one is laid out otherwise by now */
  readonly length: number;
  readonly lines: number;
  readonly at: readonly Spot[];
}

/** Shapes, each by a place on the sign; or, where they lie on panels, those panels. Undefined: the strip is another one by now. */
export interface OnSign {
  readonly shapes: readonly { readonly x: number; readonly y: number }[];
  readonly panels: readonly number[];
}

/** mm that a strip may be longer or shorter and still be the same */
const SAME = 0.01;

export function onSignIn({ cuts, panels }: Plan, { strip, length, lines, at }: OnStrip): OnSign | undefined {
  const cut = cuts.find((one) => one.strip.id === strip);
  if (!cut || Math.abs(cut.strip.length - length) > SAME || cut.program.lines.length !== lines)
    return undefined;
  const numbers = new Map(panels.map(({ id, film, cell }) => [`${film.id} ${id}`, cell.number]));
  const own = cut.strip.placements
    .filter(({ part }) => part.order === undefined)
    .map(({ part, matrix }) => ({ part, back: inverse(matrix) }));
  const found = at.flatMap((spot) => {
    for (const { part, back } of own) {
      const [x, y] = mapped(spot, back);
      if (liesOn(part.region, [x, y])) return [{ x, y, panel: numbers.get(`${part.film.id} ${part.id}`) }];
    }
    return [];
  });
  return {
    shapes: found.filter(({ panel }) => panel === undefined).map(({ x, y }) => ({ x, y })),
    panels: [...new Set(found.flatMap(({ panel }) => panel ?? []))].sort((a, b) => a - b),
  };
}
