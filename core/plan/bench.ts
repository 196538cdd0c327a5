/** What the bench is told of each film: weeding, how it lies, and its panels. */
import type { ApplyStep } from '../films/applying';
import { hintsOf } from '../films/applying';
import { panelHints } from '../panels/applied';
import type { Choices } from './choices';
import type { Placing } from './placing';
import type { Plan, PlannedCut } from './planned';

/** @param placing where its pieces sit on the sign, when it is taken apart into pieces */
export const benchHints = (
  { panels, cuts, findings }: Plan,
  choices: Choices,
  step: ApplyStep,
  placing: Placing | undefined,
): string[] => [
  ...hintsOf(step),
  ...findings
    .filter(({ code, film }) => code === 'cut-with' && film === step.film.name)
    .map(({ message }) => message),
  ...otherHints(cuts, step.film.id),
  ...pieceHints(placing),
  ...panelHints(panels, step.film.id, choices.panels),
];

/** Whose art lies on the same film. */
function otherHints(cuts: readonly PlannedCut[], film: string): string[] {
  const own = cuts.flatMap(({ strip }) => (strip.film.id === film ? strip.placements : []));
  const others = [...new Set(own.flatMap(({ part }) => part.order ?? []))];
  return others.length === 0
    ? []
    : [`On the same film, not of this order: ${others.map((order) => `#${order}`).join(', ')}`];
}

/** Pieces that were packed lie in no order: each is put where its number stands. */
const pieceHints = (placing: Placing | undefined): string[] =>
  placing
    ? [`${placing.sign.length} pieces, each cut by itself: put each where its number stands on the sign`]
    : [];
