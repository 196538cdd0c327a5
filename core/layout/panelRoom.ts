import { largest } from '../geometry/lists';
import type { Film } from '../films/film';
import type { PanelRoom } from '../panels/room';
import type { Bed } from './cutter';
import { rollsFor, roomOnRoll } from './roll';
import type { LyingChoices } from './strip';

/**
 * What of a film may lie in a cutter at once: on the widest of its rolls that the cutter takes (the one that was picked,
 * when one was), as long as film runs true there and is left. A rest that is shorter than it is wide does not count: nobody
 * takes a sign apart to lie on it, and the layout says that film is short. Undefined: no roll of it can be taken.
 * @param reserve mm of the width kept in hand; null: what the cutter keeps
 */
export function panelRoomOf(
  film: Film,
  choices: LyingChoices,
  cutter: Bed,
  reserve: number | null,
): PanelRoom | undefined {
  const rolls = rollsFor(film, choices, cutter);
  if (rolls.length === 0) return undefined;
  const width = largest(rolls.map((roll) => roll.width));
  const rooms = rolls
    .filter((roll) => roll.width === width)
    .map((roll) => roomOnRoll(film, roll, choices, cutter));
  return {
    across: rooms[0].across,
    along: largest(rooms.map(({ along }) => along)),
    reserve: reserve ?? cutter.reserve,
    turn: choices.turn,
  };
}
