/** What the bench is told of each film: weeding, how it lies, and its panels. */
import type { ApplyStep } from '../films/applying';
import { hintsOf } from '../films/applying';
import { panelHints } from '../panels/applied';
import type { Choices } from './choices';
import type { Placing } from './placing';
import { placingOf } from './placing';
import type { Plan } from './planned';

export const benchHints = ({ panels, cuts }: Plan, choices: Choices, step: ApplyStep): string[] => [
  ...hintsOf(step),
  ...pieceHints(placingOf(cuts, step.film.id)),
  ...panelHints(panels, step.film.id, choices.panels),
];

/** Pieces that were packed lie in no order: each is put where its number stands. */
const pieceHints = (placing: Placing | undefined): string[] =>
  placing
    ? [`${placing.sign.length} pieces, each cut by itself: put each where its number stands on the sign`]
    : [];
