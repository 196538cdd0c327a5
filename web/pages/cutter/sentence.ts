import type { Cut } from '../../../contracts/cuts';
import type { CutSheet } from '../../../contracts/print';
import { duration } from '../../stores/units';
import type { useUnits } from '../../stores/units';

/** What a person beside the machine is told: what to do, or what it is doing. */
export interface Sentence {
  readonly big: string;
  readonly small: string;
}

/** What is put in: a roll, or a sheet or offcut with its size. */
function stockOf({ roll, rollWidth }: Cut, units: Pick<ReturnType<typeof useUnits>, 'length' | 'number'>) {
  if (roll?.sheets === undefined) return `on a ${units.length(rollWidth)} roll`;
  return `in ${roll.offcut ? `offcut ${roll.offcut},` : 'a sheet of'} ${units.number(rollWidth)} × ${units.length(roll.lengthLeft)}`;
}

const sheetWanted = (
  { film }: Cut,
  { number, of, width, height }: CutSheet,
  units: Pick<ReturnType<typeof useUnits>, 'length' | 'number'>,
): Sentence => ({
  big: of === 1 ? 'Load the printed sheet' : `Load sheet ${number} of ${of}`,
  small: `${film.name}, ${units.number(width)} × ${units.length(height)}, this side up, its writing to the near edge. Put the head over mark 1 if it lies aslant.`,
});

export function sentenceFor(
  cut: Cut | undefined,
  secondsDone: number,
  linesDone: number,
  units: Pick<ReturnType<typeof useUnits>, 'length' | 'number' | 'run'>,
  forceByHand = false,
): Sentence {
  if (!cut)
    return {
      big: 'Nothing to do here',
      small: 'Cuts that are queued for this machine show up by themselves.',
    };
  const { film } = cut;
  switch (cut.state) {
    case 'wants-film':
      if (cut.sheet) return sheetWanted(cut, cut.sheet, units);
      return {
        big: `Load ${film.name}`,
        small: [
          `${film.code} ${stockOf(cut, units)}, ${cut.mirrored ? 'backing up: it is cut mirrored' : 'face up'}.`,
          `It takes ${units.run(cut.length)}.`,
          ...(forceByHand && cut.recipe.force !== null ? [`Turn the force to ${cut.recipe.force} g.`] : []),
        ].join(' '),
      };
    case 'checking':
      return cut.sheet
        ? {
            big: 'Reading its marks',
            small: 'The sensor goes from mark to mark, twice. Do not touch the sheet.',
          }
        : { big: 'Asking the machine for its film', small: 'One moment.' };
    case 'cutting':
      return {
        big: `Cutting ${cut.isReckoned ? 'about ' : ''}line ${Math.min(linesDone + 1, cut.lines)} of ${cut.lines}`,
        small: `${duration(cut.seconds - secondsDone)} left on this ${cut.sheet ? 'sheet' : 'film'}${
          cut.isReckoned ? ', reckoned: this machine says nothing' : ''
        }. Nothing to do until then.`,
      };
    case 'stopping':
      return {
        big: 'Stopping after this line',
        small: 'The knife finishes the lines that are already in the machine.',
      };
    case 'stopped':
      if (cut.inDoubt)
        return {
          big: `Is line ${cut.inDoubt} cut?`,
          small: 'Look at the film where the head came to a stand.',
        };
      return {
        big: 'Stopped',
        small: 'Go on at the next line if the film has not moved; else start this film again.',
      };
    default:
      return { big: 'Waiting', small: 'Another cut has the machine.' };
  }
}
