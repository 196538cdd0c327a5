import type { Cut } from '../../../contracts/cuts';
import { isInLane } from '../../../contracts/floor';
import type { CutterState } from '../../../contracts/shop';
import { onShelf } from '../../parts/onShelf';
import { duration } from '../../stores/units';
import type { useUnits } from '../../stores/units';

type Units = Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>;

/** What a machine is doing, and whether a person is wanted there. */
export interface Asks {
  readonly says: string;
  readonly isAsking: boolean;
}

/** @param cuts those of this machine that are not done, oldest first */
export function asksOf(cuts: readonly Cut[]): Asks {
  const lane = cuts.filter(isInLane);
  const now = lane.find(({ state }) => state !== 'queued');
  if (!now) return { says: lane.length > 0 ? 'About to begin' : 'Nothing to do', isAsking: false };
  switch (now.state) {
    case 'wants-film':
      return { says: `Load ${now.film.name}`, isAsking: true };
    case 'stopped':
      return { says: `Stopped in ${now.film.name}: go on, or start again`, isAsking: true };
    case 'cutting':
      return {
        says: `Cutting ${now.film.name}, ${duration(now.seconds - now.secondsDone)} left`,
        isAsking: false,
      };
    default:
      return { says: now.state === 'stopping' ? 'Stopping' : 'Looking at its film', isAsking: false };
  }
}

/** What a machine answers of itself. */
export function answersOf({ state, film, problem }: CutterState, units: Units): string {
  if (state === 'at-work') return 'At work';
  if (state === 'away') return `Does not answer: ${problem}. Is it switched on, and its cable in?`;
  if (state === 'silent') return 'Takes what is sent, and answers nothing';
  if (!film) return 'Answers; no film is in it';
  return `Answers; film in it ${onShelf({ width: film.width, lengthLeft: film.length }, units)}`;
}
