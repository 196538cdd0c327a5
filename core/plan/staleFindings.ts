/** Calibrations that an order's cuts rely on, and that are not to be relied on any more. */
import type { Quantity, StaleCalibration } from '../calibration/stale';
import { QUANTITY_NAMES } from '../calibration/stale';
import type { Finding } from '../findings/finding';
import type { PlannedCut } from './planned';
import type { Shop } from './shop';

const FOUND: Readonly<Record<Quantity, string>> = {
  sensor: 'where the sensor of {} sits was found',
  contrast: 'how {} tells marks from this stock was found',
  length: 'how far {} moves was found',
  blade: 'how far the blade of {} trails was found',
  overcut: 'how far {} cuts past a start was found',
};
/** What an order relies on: the sensor where sheets are read, true lengths where panels have to meet, the blade where it trails. */
export interface ReliedOn {
  readonly cuts: readonly PlannedCut[];
  readonly sheets: readonly PlannedCut[];
  readonly isPanelled: boolean;
}

/** Tells of each once, for every cutter. */
export function staleFindings(
  { cuts, sheets, isPanelled }: ReliedOn,
  { stale = [], cutters }: Shop,
): Finding[] {
  const all = [...cuts, ...sheets];
  const isUsed: Readonly<Record<Quantity, (cut: PlannedCut) => boolean>> = {
    sensor: (cut) => sheets.includes(cut),
    contrast: (cut) => sheets.includes(cut),
    length: () => isPanelled,
    blade: ({ recipe }) => recipe.bladeOffset > 0,
    overcut: ({ recipe }) => recipe.overcut > 0,
  };
  return stale
    .filter(({ cutter, quantity, film, why }) => {
      // a blade's age alone says little: it is another knife that trails otherwise
      if (why === 'age' && (quantity === 'blade' || quantity === 'overcut')) return false;
      return all.some(
        (cut) => cut.cutter.id === cutter && (!film || cut.strip.film.id === film) && isUsed[quantity](cut),
      );
    })
    .map((one) => findingOf(one, cutters.find(({ id }) => id === one.cutter)?.name ?? one.cutter));
}

function findingOf({ cutter, quantity, film, why, days }: StaleCalibration, name: string): Finding {
  const found = FOUND[quantity].replace('{}', name);
  const since = {
    age: `${days} days ago`,
    moved: 'before the machine was moved',
    knife: 'with another knife than is in it now',
  }[why];
  return {
    stage: 'cutter',
    code: 'stale-calibration',
    severity: why === 'age' ? 'note' : 'check',
    message: `${found[0].toUpperCase()}${found.slice(1)} ${since}.`,
    waysOut: [
      `Calibrate it again: Cutters, ${name}, ${QUANTITY_NAMES[quantity]}`,
      'Cut one and look how it lies',
    ],
    key: `stale ${cutter} ${quantity} ${film ? `${film} ` : ''}${why}`,
  };
}
