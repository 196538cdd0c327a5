/** The pattern of each kind of run. */
import type { Recipe } from '../layout/cutter';
import { formatLength } from '../units/length';
import type { Pattern, PatternRoom } from './patterns';
import {
  GAP_ROOM,
  gapPattern,
  gridPattern,
  gridRoom,
  lengthPattern,
  PEN_ROOM,
  penMarks,
  penPattern,
  rowPattern,
} from './patterns';
import type { PrintedSetup, Setup } from './run';

/** What is drawn or cut for a run. @returns a sentence when it does not fit on what is in the cutter */
export function patternFor(
  setup: Exclude<Setup, PrintedSetup>,
  room: PatternRoom,
  recipe: Recipe,
): Pattern | string {
  const { cuttable } = room;
  switch (setup.kind) {
    case 'length':
      if (setup.axis === 'across' && setup.whole > cuttable - 2)
        return `The knife reaches ${formatLength(cuttable, 'mm')} across this film. Measure less, or load wider film.`;
      return lengthPattern(setup.axis, setup.whole, room, recipe);
    case 'sensor-pen':
      return cuttable < PEN_ROOM ? TOO_NARROW : penPattern(penMarks(room), recipe);
    case 'blade-gap':
      return cuttable < GAP_ROOM ? TOO_NARROW : gapPattern(room, recipe);
    case 'blade-row':
      return rowPattern('bladeOffset', setup.values, room, recipe);
    case 'overcut-row':
      return rowPattern('overcut', setup.values, room, recipe);
    case 'force':
      if (setup.columns > roomOf(setup, cuttable).columns)
        return `${roomOf(setup, cuttable).columns} forces fit beside one another on this film. Take fewer, or load wider film.`;
      return gridPattern(setup.cells, setup.columns, room, recipe);
  }
}
const roomOf = ({ cells }: Extract<Setup, { kind: 'force' }>, cuttable: number) =>
  gridRoom(cuttable, 0, cells[0].dashes !== undefined);
const TOO_NARROW = 'This film is too narrow. Load a wider piece and press again.';
