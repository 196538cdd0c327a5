/** What the bench needs to know once film is cut: weeding, taping from the top film down, where marks meet. */
import { smallest } from '../geometry/lists';
import type { Bounds } from '../geometry/bounds';
import { joinBounds } from '../geometry/bounds';
import type { Region } from '../geometry/region';
import { componentsOf } from '../geometry/nesting';
import { regionArea } from '../geometry/region';
import type { Spot } from '../geometry/spot';
import type { Film } from './film';
import type { MarkShape } from './marks';
import type { OverlapMode } from './overlap';
import type { Separation } from './separate';

/** One film on its way to the surface. */
export interface ApplyStep {
  readonly film: Film;
  /** What is cut of it, mm on the sign. */
  readonly region: Region;
  /** Shapes that stay on the backing when it is weeded, and the smallest of them, mm². */
  readonly shapes: number;
  readonly smallest: number;
  /** Insides of letters and the like, to be picked out. */
  readonly counters: number;
  /** Lines that are followed along their middle. */
  readonly lines: number;
  readonly mode: OverlapMode;
  readonly place: 'top' | 'between' | 'base';
}

export interface ApplySheet {
  readonly width: number;
  readonly height: number;
  /** All films with their marks, mm on the sign. */
  readonly view: Bounds;
  /** In the order in which they are taped: top film first, base last. */
  readonly steps: readonly ApplyStep[];
  readonly marks: { readonly shape: MarkShape; readonly at: readonly Spot[] } | null;
}

/** How a sign is put on its surface. */
export function applySheet(
  { width, height }: { readonly width: number; readonly height: number },
  { films, markPlaces }: Separation,
  shape: MarkShape | undefined,
): ApplySheet {
  const whole = { minX: 0, minY: 0, maxX: width, maxY: height };
  const steps = [...films].reverse().map(({ film, region, own: art, lines, overlap }, i): ApplyStep => {
    const areas = componentsOf(art).map(regionArea);
    return {
      film,
      region,
      shapes: areas.length,
      smallest: areas.length > 0 ? smallest(areas) : 0,
      counters: art.filter((ring) => regionArea([ring]) < 0).length,
      lines: lines.length,
      mode: overlap.mode,
      place: i === films.length - 1 ? 'base' : i === 0 ? 'top' : 'between',
    };
  });
  return {
    width,
    height,
    view: films.reduce((sum, { bounds }) => joinBounds(sum, bounds), whole),
    steps,
    marks: shape && markPlaces.length > 0 ? { shape, at: markPlaces } : null,
  };
}

const LIES: Readonly<Record<OverlapMode, string>> = {
  full: 'lies whole beneath the film above',
  trap: 'its edge lies beneath the film above',
  butt: 'edge to edge with the film above',
};

const ENDS = { top: 'the top film: nothing lies over it', base: 'base: everything else lies on it' };

/** What is said of a film on paper and on the page: weeding first, then how it lies. */
export function hintsOf({ shapes, smallest, counters, lines, mode, place }: ApplyStep): string[] {
  return [
    `${shapes} ${shapes === 1 ? 'shape stays' : 'shapes stay'}, the smallest ${smallest.toFixed(smallest < 100 ? 1 : 0)} mm²`,
    counters === 0 ? 'no counters to pick' : `${counters} ${counters === 1 ? 'counter' : 'counters'} to pick`,
    ...(lines > 0 ? [`${lines} ${lines === 1 ? 'line' : 'lines'} cut or drawn along the middle`] : []),
    place === 'between' ? LIES[mode] : ENDS[place],
  ];
}

export const TAPING =
  'Tape the top film first and go down to the base. Squeegee from the middle outwards, tape side up.';

/** Where the marks of all films meet. */
export const markHint = ({ shape, at }: NonNullable<ApplySheet['marks']>): string =>
  `The ${shape} marks of all films meet at ${at.map(([x, y]) => `${x.toFixed(0)}, ${y.toFixed(0)}`).join(' · ')} mm from the sign's upper left corner.`;
