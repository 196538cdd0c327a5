/** What a person has to hear about how films lie on their rolls. */
import type { Film, Roll } from '../films/film';
import { limitsOf } from '../films/film';
import type { Finding } from '../findings/finding';
import { joinBounds } from '../geometry/bounds';
import { largest } from '../geometry/lists';
import { formatLength } from '../units/length';
import type { Bed } from './cutter';
import type { LayoutChoices, Strip } from './strip';
import type { Laid } from './shelves';

export const noRoll = ({ name }: Film): Finding => ({
  code: 'no-roll',
  severity: 'stop',
  message: `No roll of ${name} is on the shelf.`,
  waysOut: ['Pick another film under Films', 'Add a roll under Materials'],
});

export function rollMisfit({ name, rolls }: Film, cutter: Bed): Finding {
  const widths = rolls.map(({ width }) => both(width)).join(', ');
  return {
    code: 'roll-misfit',
    severity: 'stop',
    message: `${name} is ${widths} wide; ${cutter.name} takes rolls of ${both(cutter.narrowestRoll)} to ${both(cutter.widestRoll)}.`,
    waysOut: ['Pick a film on another roll under Films'],
    measured: rolls[0].width,
    limit: cutter.widestRoll,
  };
}

const both = (mm: number): string => `${formatLength(mm, 'mm')} (${(mm / 25.4).toFixed(2)} in)`;

export function tooWide(
  { part, across: needs }: Laid,
  roll: Roll,
  usable: number,
  cutter: Bed,
  otherWay: boolean,
): Finding {
  const scale = Math.floor((usable / needs) * 1000) / 10;
  return {
    code: 'too-wide',
    severity: 'stop',
    message: `${part.film.name} needs ${both(needs)} across, but the knife reaches ${both(usable)} on this ${formatLength(roll.width, 'mm')} roll in ${cutter.name}.`,
    waysOut: [
      ...(otherWay ? ['Turn it by 90° under Layout: then it fits'] : []),
      `Make the sign smaller: ${scale} % of this size fits`,
      `Pick a film on a wider roll under Films`,
    ],
    where: part.bounds,
    measured: needs,
    limit: usable,
  };
}

/** What a film's strips want looked at. */
export function filmFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  return [
    ...toolFindings(film, strips, cutter),
    ...shortFindings(film, strips),
    ...trackFindings(film, strips, cutter),
  ];
}

function toolFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  const parts = new Set(strips.flatMap(({ placements }) => placements.map(({ part }) => part)));
  const lines = [...parts].flatMap((part) => part.lines);
  const second = lines.filter(({ kind }) => kind === 'pen' || kind === 'crease').length;
  if (second === 0 || (cutter.device.tools ?? 1) >= 2) return [];
  return [
    {
      code: 'no-second-tool',
      severity: 'check',
      message: `${second === 1 ? '1 line of' : `${second} lines of`} ${film.name} want a pen or a creasing tool; ${cutter.name} holds only a knife, so they are left out.`,
      waysOut: ['Give them another line kind under Artwork', 'Pick a cutter with two tools'],
      where: [...parts].map(({ bounds }) => bounds).reduce(joinBounds),
      key: `no-second-tool ${film.id}`,
    },
  ];
}

/** Rolls that end before what is to be cut from them does. */
function shortFindings(film: Film, strips: readonly Strip[]): Finding[] {
  const needed = new Map<Roll, number>();
  for (const { roll, length } of strips) needed.set(roll, (needed.get(roll) ?? 0) + length);
  return [...needed].flatMap(([{ lengthLeft }, length]): Finding[] => {
    if (length <= lengthLeft) return [];
    return [
      {
        code: 'film-short',
        severity: 'check',
        message: `${film.name} needs ${metres(length)} of film; ${metres(lengthLeft)} is left on the roll.`,
        waysOut: ['Cut fewer copies', 'Put a new roll in'],
        measured: length,
        limit: lengthLeft,
      },
    ];
  });
}

function trackFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  const ownTrack = limitsOf(film).track;
  const limit = Math.min(cutter.trackLength, ownTrack);
  const why =
    ownTrack < cutter.trackLength
      ? `it runs true for ${metres(ownTrack)}`
      : `${cutter.name} keeps film true for ${metres(cutter.trackLength)}`;
  const long = largest(
    strips.map(({ length }) => length),
    0,
  );
  if (long > limit) {
    return [
      {
        code: 'long-track',
        severity: 'check',
        message: `${film.name} runs ${metres(long)} in one go; ${why}.`,
        waysOut: ['Make the sign smaller, or turn it under Layout'],
        measured: long,
        limit,
      },
    ];
  }
  if (strips.length < 2) return [];
  const total = strips.reduce((sum, { length }) => sum + length, 0);
  const reason = total > limit ? why : 'no roll is long enough for all of it';
  return [
    {
      code: 'several-strips',
      severity: 'note',
      message: `${film.name} goes over ${strips.length} strips, ${metres(total)} in all: ${reason}.`,
    },
  ];
}

export function mirrorFindings(film: Film, { mirror }: LayoutChoices): Finding[] {
  if (mirror === 'by-film') {
    if (!film.cutFromBack) return [];
    const message = `${film.name} is cut from the back, so its cut is mirrored.`;
    return [{ code: 'mirrored-by-film', severity: 'note', message }];
  }
  if (film.cutFromBack === (mirror === 'mirrored')) return [];
  return [
    {
      code: 'mirror-unusual',
      severity: 'check',
      message: film.cutFromBack
        ? `${film.name} is cut from the back but is not mirrored: it will read backwards.`
        : `${film.name} is cut from the front but is mirrored: it will read backwards unless it goes behind glass.`,
      waysOut: ['Set Mirror to “as the film needs” under Layout'],
    },
  ];
}

const metres = (mm: number): string => `${(mm / 1000).toFixed(2)} m`;
