/** The search for less film. */
import { createSearch } from '../packing/search';
import type { OnFilm } from './onFilm';
import { keptPiece } from './onFilm';
import { packedStrips } from './packedStrips';
import type { PackedStrip } from './strip';
import { lengthOfStrips } from './strip';

/** How far a search for less film is. */
export interface PackStep {
  readonly film: string;
  /** Rounds that are over, of all. */
  readonly share: number;
  /** Where pieces lie now. */
  readonly packed: readonly PackedStrip[];
  /** mm of film, and the share of it that stays on the sign. */
  readonly length: number;
  readonly used: number;
}

/**
 * Packs a film's pieces closer, round by round.
 * @param rounds for each strip; the same seed and rounds end in the same places
 */
export function* packCloser(
  on: OnFilm,
  { rounds, seed }: { readonly rounds: number; readonly seed: number },
): Generator<PackStep, void, void> {
  const { across, roll, film, packing } = on;
  const batches = [...on.batches];
  const step = (share: number): PackStep => {
    const strips = packedStrips({ ...on, batches });
    const length = lengthOfStrips(strips);
    const area = strips.reduce((sum, strip) => sum + strip.area, 0);
    const used = strips.reduce((sum, strip) => sum + strip.used * strip.area, 0) / area;
    const packed = batches.map(({ order, items, bodies, lying }) => ({
      roll: roll.width,
      ...(order !== undefined && { order }),
      pieces: lying.map((one, i) => keptPiece(items[i], bodies[i], one)),
    }));
    return { film: film.id, share, packed, length, used };
  };
  for (let b = 0; b < batches.length; b++) {
    const { bodies, lying } = batches[b];
    const search = createSearch(bodies, { across, spacing: packing.choices.between }, lying, seed + b);
    let now = step(b / batches.length);
    for (let round = 0; round < rounds;) {
      const did = search.step();
      if (did === 'done') break;
      if (did === 'round') round++;
      const { lying: best } = search.best();
      const share = (b + round / rounds) / batches.length;
      if (best === batches[b].lying) now = { ...now, share };
      else {
        batches[b] = { ...batches[b], lying: best };
        now = step(share);
      }
      yield now;
    }
    batches[b] = { ...batches[b], lying: search.best().lying };
  }
  yield step(1);
}
