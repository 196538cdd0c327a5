/** What operators say of finished cuts, and what that asks of the recipe. */
import type { Range } from '../layout/cutter';
import type { Cell, CellLook } from './grid';
import { onOwnStep } from '../layout/ownSteps';
import { judgeGrid } from './grid';

export const HOW_IT_WAS = ['clean', 'bumps', 'into-backing', 'not-through'] as const;
/** Bumps: the knife is felt on the back of the backing. */
export type HowItWas = (typeof HOW_IT_WAS)[number];

/** A cut that was spoken of. */
export interface SpokenOf {
  readonly was: HowItWas;
  /** g and cm/s; null: left to the machine */
  readonly force: number | null;
  readonly speed: number | null;
}

/** Cuts in a row that ask for the same before anybody is asked. */
const IN_A_ROW = 3;
/** By how much a force is changed when no grid tells better, as a share (our own). */
const STEP = 0.08;

const LOOKS: Readonly<Record<HowItWas, CellLook>> = {
  clean: 'clean',
  bumps: 'into-backing',
  'into-backing': 'into-backing',
  'not-through': 'not-through',
};
const wayOf = (was: HowItWas): -1 | 0 | 1 => (was === 'clean' ? 0 : was === 'not-through' ? 1 : -1);

/**
 * The force that a recipe should have when the last three cuts with it all point one way.
 * @param spoken the newest first, at whatever force
 * @param now the recipe's force, g, and speed
 * @param cells of the last trial grid, as they looked; what was said of cuts counts as cells of their own
 * @returns undefined: nothing is asked
 */
export function forceAsked(
  spoken: readonly SpokenOf[],
  now: { readonly force: number; readonly speed: number },
  cells: readonly Cell[],
  range: Range,
): number | undefined {
  const last = spoken.slice(0, IN_A_ROW);
  const way = last.length === IN_A_ROW ? wayOf(last[0].was) : 0;
  if (way === 0 || !last.every(({ was, force }) => force === now.force && wayOf(was) === way))
    return undefined;
  const said = spoken.flatMap(({ was, force, speed }): Cell[] =>
    force === null ? [] : [{ force, speed: speed ?? now.speed, looks: LOOKS[was] }],
  );
  const found = judgeGrid([...said, ...cells], { speed: now.speed })?.proposed;
  const least = now.force * (1 + way * STEP);
  const to = found !== undefined && (found - least) * way > 0 ? found : least;
  return onOwnStep(range, to, 0);
}
