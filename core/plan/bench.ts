/** What the bench is told of each film: weeding, how it lies, and its panels. */
import type { ApplyStep } from '../films/applying';
import { hintsOf } from '../films/applying';
import { panelHints } from '../panels/applied';
import type { Choices } from './choices';
import type { Plan } from './planned';

export const benchHints = ({ panels }: Plan, choices: Choices, step: ApplyStep): string[] => [
  ...hintsOf(step),
  ...panelHints(panels, step.film.id, choices.panels),
];
