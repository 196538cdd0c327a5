/** What a run is at, and what is said of its measurements. */
import type { Calibration } from '../../../../contracts/calibrations';
import type { RunFound } from '../../../../core/calibration/run';

type Measured = Calibration['measured'];

/** Neither kept nor dropped yet. */
export const isOpen = ({ state }: Pick<Calibration, 'state'>): boolean =>
  state !== 'kept' && state !== 'dropped';
export const isAtWork = ({ state }: Pick<Calibration, 'state'>): boolean =>
  state === 'working' || state === 'stopping';

export const foundIn = ({ says }: Pick<Calibration, 'says'>): RunFound | undefined =>
  says?.says === 'found' ? says.found : undefined;

/** The one whose values are what the machine is set to: kept last, which may be one that was gone back to. */
export const inUseOf = (runs: readonly Calibration[]): Calibration | undefined =>
  runs
    .filter(({ keptAt }) => keptAt)
    .reduce<Calibration | undefined>(
      (last, run) => (!last || run.keptAt! > last.keptAt! ? run : last),
      undefined,
    );

/** A list of measurements with one of them said anew. @param many how many there are */
export const saidAt = <T>(
  list: readonly (T | null)[] | undefined,
  many: number,
  at: number,
  value: T | null,
): (T | null)[] => Array.from({ length: many }, (_, i) => (i === at ? value : (list?.[i] ?? null)));

/** What was decided of a measurement counts no more once it is said anew. */
export const undecided = (measured: Measured, at: number): Measured => {
  const but = (list: readonly number[] | undefined) => list?.filter((i) => i !== at);
  return { ...measured, trusted: but(measured.trusted), leftOut: but(measured.leftOut) };
};
