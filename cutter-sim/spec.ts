/** What a simulated cutter is, and what lies in it. */
import type { LoadedPrint } from './print';

/** A place, mm on a machine's own axes. */
export interface Spot {
  readonly x: number;
  readonly y: number;
}

/** Which of its axes runs along the film, and which way round they count. */
export interface Axes {
  /** mm a unit */
  readonly step: number;
  readonly feedAxis: 'x' | 'y';
  /** Counts down from the film's beginning. */
  readonly feedReversed: boolean;
  /** Counts from the far edge instead of the near one. */
  readonly acrossReversed?: boolean;
}

/** What looks at printed sheets. */
export interface SensorSpec {
  /** mm on its own axes from the knife to what it sees. */
  readonly offset: readonly [x: number, y: number];
  /** mm: the spot that it sees at once is so wide */
  readonly spot: number;
  /** Standard deviation of one value, of a reflectance from 0 to 1. */
  readonly noise: number;
}

export interface MachineSpec {
  readonly name: string;
  /** Film it takes at most, mm; along: a flatbed's bed, endless under rollers. */
  readonly across: number;
  readonly along: number;
  /** What holds the film at its edges, where the head does not go, mm. */
  readonly edges: { readonly far: number; readonly near: number };
  readonly axes: Axes;
  readonly bufferBytes: number;
  /** mm/s² and cm/s */
  readonly acceleration: number;
  readonly travelSpeed: number;
  /** cm/s until it is told another, or for good. */
  readonly ownSpeed: number;
  readonly takesSpeed: boolean;
  /** g on the knob at its front; null: force is sent. */
  readonly forceKnob: number | null;
  /** First and second holder. */
  readonly tools: readonly Tool[];
  readonly sensor?: SensorSpec;
  /** Lengths that it moves over lengths it was told, along its film and across it. */
  readonly trueness?: readonly [along: number, across: number];
}

/** What is in a holder; of a knife, the blade that is really in: its offset, and how worn it is, 0 when new. */
export type Tool =
  | { readonly kind: 'knife'; readonly bladeOffset: number; readonly wear: number }
  | { readonly kind: 'pen' | 'wheel' };

/** How film moves under rollers that do not hold it: turned about where the head counts from, degrees, then moved, mm on its axes. */
export interface Slip {
  readonly turn: number;
  readonly x: number;
  readonly y: number;
}

export interface LoadedFilm {
  readonly name: string;
  readonly width: number;
  readonly length: number;
  /** mm along at which it ends before it should: what was wound onto the roll last time. */
  readonly ends?: number;
  /** g that a new blade needs to cut it cleanly */
  readonly toughness: number;
  /** Reflectance of what is not printed; missing: that of paper. */
  readonly white?: number;
  /** What is printed on it. */
  readonly print?: LoadedPrint;
}

/** What the head reaches of the film that is in, mm on the machine's own axes; nothing without film. */
export interface Reach {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
}

/** A place on the machine's own axes, mm, as a place of the film: along it from its beginning, across it from its far edge. */
export function onFilm(
  { across, edges, axes, trueness: [long, wide] = [1, 1] }: MachineSpec,
  { width }: LoadedFilm,
  x: number,
  y: number,
): readonly [along: number, across: number] {
  const [feed, side] = axes.feedAxis === 'x' ? [x, y] : [y, x];
  const far = axes.acrossReversed ? edges.far : Math.min(width, across) - edges.near;
  return [(axes.feedReversed ? -feed : feed) * long, far + (axes.acrossReversed ? side : -side) * wide];
}

/** The other way round. */
export function fromFilm(
  { across, edges, axes, trueness: [long, wide] = [1, 1] }: MachineSpec,
  width: number,
  along: number,
  down: number,
): readonly [x: number, y: number] {
  const far = axes.acrossReversed ? edges.far : Math.min(width, across) - edges.near;
  const feed = (axes.feedReversed ? -along : along) / long;
  const side = ((down - far) * (axes.acrossReversed ? 1 : -1)) / wide;
  return axes.feedAxis === 'x' ? [feed, side] : [side, feed];
}

export function reachOf({ across, along, edges, axes }: MachineSpec, film: LoadedFilm | undefined): Reach {
  const width = film ? Math.min(film.width, across) - edges.far - edges.near : 0;
  const length = film ? Math.min(film.length, along) : 0;
  const feed = axes.feedReversed ? ([-length, 0] as const) : ([0, length] as const);
  return axes.feedAxis === 'x' ? { x: feed, y: [0, width] } : { x: [0, width], y: feed };
}
