import { own } from '../units/own';
import { largest } from '../geometry/lists';
import type { Film, Roll } from '../films/film';
import type { PanelRoom } from '../panels/room';
import type { Bed } from './cutter';
import { cuttableWidth } from './cutter';
import { isTaken, rimOf, SWING_ROOM } from './layOut';
import { endOfStrip } from './layoutFindings';
import type { LayoutChoices } from './strip';

/**
 * What of a film may lie in a cutter at once: on the widest of its rolls that the cutter takes (the one that was picked,
 * when one was), as long as film runs true there and is left. A rest that is shorter than it is wide does not count: nobody
 * takes a sign apart to lie on it, and the layout says that film is short. Undefined: no roll of it can be taken.
 */
export function panelRoomOf(film: Film, choices: LayoutChoices, cutter: Bed): PanelRoom | undefined {
  const fitting = film.rolls.filter((roll) => isTaken(roll, cutter));
  const picked = fitting.filter(({ width }) => width === own(choices.rolls, film.id));
  const rolls = picked.length > 0 ? picked : fitting;
  if (rolls.length === 0) return undefined;
  const width = largest(rolls.map((roll) => roll.width));
  const widest = rolls.filter((roll) => roll.width === width);
  const rim = 2 * rimOf(choices);
  const { lead, tail } = cutter.margins;
  const run = largest(widest.map((roll) => runOf(film, roll, cutter)));
  return {
    across: cuttableWidth(cutter, width) - 2 * SWING_ROOM - rim,
    along: run - lead - tail - rim,
    turn: choices.turn,
  };
}

/** mm of a roll that can lie in the cutter at once. */
function runOf(film: Film, roll: Roll, cutter: Bed): number {
  const { limit } = endOfStrip(film, roll, cutter);
  return roll.lengthLeft < roll.width ? limit : Math.min(limit, roll.lengthLeft);
}
