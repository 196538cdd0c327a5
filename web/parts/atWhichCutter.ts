import type { RouteLocationRaw } from 'vue-router';
import type { Cut } from '../../contracts/cuts';

/** The page of the machine that open cuts go to; that of all machines when they go to several. */
export function atWhichCutter(cuts: readonly Cut[]): RouteLocationRaw {
  // what is held is sent from the floor
  if (cuts.some(({ state }) => state === 'held')) return { name: 'floor' };
  const machines = new Set(cuts.map(({ cutterId }) => cutterId));
  const [id] = machines;
  return machines.size === 1 ? { name: 'cutter', params: { id } } : { name: 'cutters' };
}
