import type { MarkKind, StockContrast } from '../registration/readMarks';
import type { FitLimits } from '../registration/verdict';

/** What a cutter can reach and how it wants to be spoken to. Everything that differs between cutters is here. */
export interface Cutter {
  readonly id: string;
  readonly name: string;
  /** A flatbed's film lies still; the others pull it to and fro under rollers. */
  readonly kind: 'roll' | 'desk' | 'flatbed';
  /** Widest and narrowest film it takes, mm. */
  readonly widest: number;
  readonly narrowest: number;
  /** mm of film and backing that go under its knife, at the most; missing: whatever is cut. */
  readonly thickest?: number | null;
  readonly margins: Margins;
  /** How long film runs true, mm; of a flatbed, how long its bed is. */
  readonly trackLength: number;
  /** mm of the cuttable width that the shop keeps in hand when art is taken apart. */
  readonly reserve: number;
  readonly force: Range;
  readonly speed: Range;
  /** cm/s that it runs at when it is left to the machine. */
  readonly ownSpeed: number;
  readonly motion: Motion;
  readonly device: Device;
  /** What it reads of printed sheets by itself; missing: marks are taken by hand. */
  readonly sensor?: MarkSensor | null;
  /** What it bears of printed sheets; missing: {@link USUAL_LIMITS}. */
  readonly fitLimits?: FitLimits;
  /** When it was last moved to another place, ISO 8601; missing: never. */
  readonly movedAt?: string | null;
  /** Not used any more: nothing is planned for it, and what was cut keeps its name. */
  readonly isRetired?: boolean;
}

/** A sensor that reads print marks. */
export interface MarkSensor {
  readonly kinds: readonly MarkKind[];
  /** How many marks it reads at the most. */
  readonly most: number;
  /** mm from its first mark to its last, at the most */
  readonly farthest: number;
  /** mm: standard deviation of one reading, in x or in y */
  readonly noise: number;
  /** mm around where a mark should be in which it is looked for */
  readonly reach: number;
  /** mm on the cutter's own axes from the knife to what it sees */
  readonly offset: readonly [x: number, y: number];
  /** How marks are told from stocks that were looked at, by film id. */
  readonly stocks?: Readonly<Record<string, StockContrast>>;
}

/** Half an inch kept in hand (common practice, no source). */
export const USUAL_RESERVE = 12.7;

/** Film at each edge that is not cut, mm: across, what the rollers hold at the far and the near edge; along, its ends. */
export interface Margins {
  readonly far: number;
  readonly near: number;
  readonly lead: number;
  readonly tail: number;
}

/** g or cm/s, as on the machine's own panel. */
export interface Range {
  readonly least: number;
  readonly most: number;
  /** Steps that its panel counts from the one to the other; missing: it counts none. */
  readonly steps?: number;
}

/** How a cutter moves; fitted from what cuts really took. */
export interface Motion {
  /** mm/s² */
  readonly acceleration: number;
  /** cm/s with the knife up */
  readonly travelSpeed: number;
  /** mm by which a corner may be rounded off in time terms: sets the speed kept through corners. */
  readonly cornerTolerance: number;
  /** s to lower and to raise the knife */
  readonly down: number;
  readonly up: number;
  /** Times as long as by all this that a cut really takes; missing: as long. */
  readonly pace?: number;
  /** Half of all cuts lie within this share of that; missing: nobody knows. */
  readonly paceWithin?: number;
}

/** A cutter's own axes: which of them runs along the film, and which way round they count. */
export interface Axes {
  /** mm a plotter unit */
  readonly step: number;
  /** mm that it moves for each mm it is told, along the film and across it; missing: true to both. */
  readonly lengths?: readonly [along: number, across: number];
  readonly feedAxis: 'x' | 'y';
  /** Counts down from the leading edge instead of up. */
  readonly feedReversed: boolean;
  /** Counts from the far edge instead of the near one. */
  readonly acrossReversed: boolean;
}

export interface Device extends Axes {
  /** Missing: force is set by hand at the machine. */
  readonly sendsForce: boolean;
  readonly sendsSpeed: boolean;
  /** Most points it takes behind one PD. */
  readonly pointsInDown: number;
  /** Bytes the cutter holds before it makes the sender wait. */
  readonly bufferBytes: number;
  /** Tool holders; missing: one, with the knife. The second holds a pen or a creasing wheel. */
  readonly tools?: number;
}

/** What of a cutter matters to what lies in it. */
export interface Bed extends Pick<
  Cutter,
  'name' | 'kind' | 'widest' | 'narrowest' | 'thickest' | 'margins' | 'trackLength' | 'reserve'
> {
  readonly device: Pick<Device, 'tools'>;
}

/** What of a cutter matters to the knife's way. */
export interface Machine extends Pick<Cutter, 'motion' | 'ownSpeed'> {
  /** mm of film before the cut: where the blade is turned. */
  readonly lead: number;
  /** cm/s that it is told at the least; null: it is told none. */
  readonly slowest: number | null;
  readonly device: Pick<Device, 'step' | 'lengths' | 'tools' | 'acrossReversed'>;
}

/** Where the head is before it is told anything: where the cutter counts from, mm on a strip. */
export const headAtFirst = (
  { acrossReversed }: Pick<Axes, 'acrossReversed'>,
  cuttable: number,
): readonly [x: number, y: number] => [0, acrossReversed ? 0 : cuttable];

/** mm that a unit really is, along the film and across it. */
export const stepsOf = ({
  step,
  lengths: [along, across] = [1, 1],
}: Pick<Axes, 'step' | 'lengths'>): Steps => [step * along, step * across];
export type Steps = readonly [along: number, across: number];

/** How a film is cut on a cutter with a blade. Forces in grams, speeds in cm/s, as on the machine's own panel. */
export interface Recipe {
  /** null: what is set at the machine */
  readonly force: number | null;
  readonly speed: number | null;
  readonly blade: string;
  /** mm the tip trails behind the holder's axis */
  readonly bladeOffset: number;
  /** mm cut past the start point of a closed outline */
  readonly overcut: number;
  /** Times that every line is gone over; missing: once. */
  readonly passes?: number;
  /** mm cut and mm left in turn, of perforated lines; missing: the usual. */
  readonly dashes?: readonly [number, number];
  /** mm: curves that are tighter are cut slower; missing: none are. */
  readonly slowRadius?: number;
  /** Degrees: a turn by more is a corner, at which the blade swings; missing: the usual. */
  readonly cornerAngle?: number;
}

/** Times that a line is gone over, at the most: what needs more needs another blade. */
export const MOST_PASSES = 9;

/** mm cut and mm left at the least: a head does no shorter ones (our own). */
export const LEAST_DASHES = [0.2, 0.05] as const;
/** mm: wider curves are no tight ones on any machine (our own). */
export const MOST_SLOW_RADIUS = 100;
/** Degrees that a corner may begin at: flatter ones are curves, sharper ones must be swung round (our own). */
export const CORNER_ANGLES = [5, 60] as const;

/** Width the knife reaches on film of `width` in this cutter: the film less what the rollers hold, mm. */
export function cuttableWidth(
  { widest, margins }: Pick<Cutter, 'widest' | 'margins'>,
  width: number,
): number {
  return Math.min(width, widest) - margins.far - margins.near;
}
