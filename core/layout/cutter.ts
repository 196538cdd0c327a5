/** What a cutter can reach and how it wants to be spoken to. Everything that differs between cutters is here. */
export interface Cutter {
  readonly id: string;
  readonly name: string;
  readonly kind: 'roll';
  /** Widest and narrowest roll it takes, mm. */
  readonly widestRoll: number;
  readonly narrowestRoll: number;
  /** Film under the rollers at each edge of the roll that the knife does not reach, mm. */
  readonly rollerMargin: number;
  /** Film left uncut at the start of a cut, mm. */
  readonly leadMargin: number;
  /** How long film runs true, mm. */
  readonly trackLength: number;
  readonly motion: Motion;
  readonly device: Device;
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
}

export interface Device {
  /** mm a plotter unit */
  readonly step: number;
  /** Which plotter axis runs along the roll, and whether it counts against our direction. */
  readonly feedAxis: 'x' | 'y';
  readonly feedReversed: boolean;
  readonly acrossReversed: boolean;
  readonly sendsForce: boolean;
  readonly sendsSpeed: boolean;
  /** Bytes the cutter holds before it makes the sender wait. */
  readonly bufferBytes: number;
  /** Tool holders; missing: one, with the knife. The second holds a pen or a creasing wheel. */
  readonly tools?: number;
}

/** What of a cutter matters to what lies in it. */
export interface Bed extends Pick<
  Cutter,
  'name' | 'widestRoll' | 'narrowestRoll' | 'rollerMargin' | 'leadMargin' | 'trackLength'
> {
  readonly device: Pick<Device, 'tools'>;
}

/** What of a cutter matters to the knife's way. */
export interface Machine extends Pick<Cutter, 'leadMargin' | 'motion'> {
  readonly device: Pick<Device, 'step' | 'tools'>;
}

/** How a film is cut on a cutter with a blade. Forces in grams, speeds in cm/s, as on the machine's own panel. */
export interface Recipe {
  readonly force: number;
  readonly speed: number;
  readonly blade: string;
  /** mm the tip trails behind the holder's axis */
  readonly bladeOffset: number;
  /** mm cut past the start point of a closed outline */
  readonly overcut: number;
}

/** Width the knife reaches on a roll of `rollWidth` in this cutter: the roll less what the rollers hold, mm. */
export function cuttableWidth(
  cutter: Pick<Cutter, 'widestRoll' | 'rollerMargin'>,
  rollWidth: number,
): number {
  return Math.min(rollWidth, cutter.widestRoll) - 2 * cutter.rollerMargin;
}
