/** What a person has to hear about how films lie on their rolls. */
import type { Film, Roll } from '../films/film';
import { limitsOf, thicknessOf } from '../films/film';
import type { Finding } from '../findings/finding';
import { heightOf, joinBounds, widthOf } from '../geometry/bounds';
import { formatBoth, formatLength, formatRun } from '../units/length';
import type { Part } from '../panels/part';
import type { Bed } from './cutter';
import type { LyingChoices, Strip } from './strip';
import { lengthOfStrips } from './strip';
import type { Laid } from './shelves';

export const noRoll = ({ name }: Film): Finding => ({
  code: 'no-roll',
  film: name,
  severity: 'stop',
  message: `No roll of ${name} is on the shelf.`,
  waysOut: ['Pick another film under Films', 'Add a roll under Materials'],
});

export function rollMisfit({ name, rolls }: Film, cutter: Bed): Finding {
  const widths = rolls.map(({ width }) => formatBoth(width)).join(', ');
  return {
    code: 'roll-misfit',
    film: name,
    severity: 'stop',
    message: `${name} is ${widths} wide; ${cutter.name} takes ${formatBoth(cutter.narrowest)} to ${formatBoth(cutter.widest)}.`,
    waysOut: ['Pick another cutter under Cutter', 'Pick a film of another width under Films'],
    measured: rolls[0].width,
    limit: cutter.widest,
  };
}

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
    film: part.film.name,
    severity: 'stop',
    message: `${part.film.name} needs ${formatBoth(needs)} across, but the knife reaches ${formatBoth(usable)} on this ${formatLength(roll.width, 'mm')} ${roll.sheets === undefined ? 'roll' : 'sheet'} in ${cutter.name}.`,
    waysOut: [
      ...(otherWay ? ['Turn it by 90° under Layout: then it fits'] : []),
      'Take it apart into panels under Panels',
      `Make the sign smaller: ${scale} % of this size fits`,
      `Pick a film on a wider roll under Films`,
    ],
    where: part.bounds,
    measured: needs,
    limit: usable,
  };
}

/** More copies were wanted side by side than the knife reaches. */
export const fewerAbreast = ({ name }: Film, fit: number, wanted: number): Finding => ({
  code: 'fewer-abreast',
  film: name,
  severity: 'note',
  message: `${fit} of ${wanted} copies of ${name} fit side by side; the others lie behind them.`,
  waysOut: ['Let fewer lie side by side under Layout', 'Pick a wider roll'],
  measured: fit,
  limit: wanted,
});

/** Nothing but offcuts is left, and somebody has to say which. */
export const onlyOffcuts = ({ name, rolls }: Film): Finding => ({
  code: 'only-offcuts',
  film: name,
  severity: 'stop',
  message: `Only offcuts of ${name} are on the rack: ${rolls.map(({ offcut }) => offcut).join(', ')}.`,
  waysOut: ['Pick the one it is cut from under Layout', 'Add a roll under Materials'],
});

/** An offcut that was picked has been used, or put away. */
export const offcutGone = ({ name }: Film, code: string): Finding => ({
  code: 'offcut-gone',
  film: name,
  severity: 'check',
  message: `The offcut ${code} of ${name} is not on the rack any more; a roll is taken instead.`,
  waysOut: ['Pick what it is cut from under Layout'],
});

/** A piece that lies in no cutter, whichever way it is turned. */
export function pieceTooLarge({ label, film, bounds }: Part, across: number, along: number): Finding {
  const size = `${formatLength(widthOf(bounds), 'mm')} × ${formatLength(heightOf(bounds), 'mm')}`;
  return {
    code: 'piece-too-large',
    film: film.name,
    severity: 'stop',
    message: `${label[0].toUpperCase()}${label.slice(1)} is ${size}; ${formatLength(across, 'mm')} across and ${formatLength(along, 'mm')} along is the most.`,
    waysOut: [
      'Lay the film as one under Layout: it is taken apart into panels then',
      'Make the sign smaller',
      'Pick a film on a wider roll under Films',
    ],
    where: bounds,
    limit: across,
  };
}

/** Layer marks line up films as wholes. */
export const marksLeftOut = ({ name }: Film): Finding => ({
  code: 'marks-left-out',
  film: name,
  severity: 'check',
  message: `${name} is cut in pieces, so it has no layer marks: its pieces are lined up by the application sheet.`,
  waysOut: ['Lay this film as one under Layout, by itself'],
});

/** More pieces than a search gets anywhere with. */
export const tooManyToPack = ({ name }: Film, pieces: number, most: number): Finding => ({
  code: 'too-many-to-pack',
  film: name,
  severity: 'stop',
  message: `${name} comes to ${pieces} pieces; ${most} are the most that are packed.`,
  waysOut: ['Pack it by word, or lay it as one, under Layout', 'Cut fewer copies at a time'],
  measured: pieces,
  limit: most,
});

/** What a film's strips want looked at. */
export function filmFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  return [
    ...toolFindings(film, strips, cutter),
    ...thicknessFindings(film, cutter),
    ...shortFindings(film, strips),
    ...trackFindings(film, strips, cutter),
  ];
}

/** Lines that the cutter has no tool for. */
export function toolFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  const parts = new Set(strips.flatMap(({ placements }) => placements.map(({ part }) => part)));
  const lines = [...parts].flatMap((part) => part.lines);
  const second = lines.filter(({ kind }) => kind === 'pen' || kind === 'crease').length;
  if (second === 0 || (cutter.device.tools ?? 1) >= 2) return [];
  return [
    {
      code: 'no-second-tool',
      film: film.name,
      severity: 'check',
      message: `${second === 1 ? '1 line of' : `${second} lines of`} ${film.name} want a pen or a creasing tool; ${cutter.name} holds only a knife, so they are left out.`,
      waysOut: ['Give them another line kind under Artwork', 'Pick a cutter with two tools'],
      where: [...parts].map(({ bounds }) => bounds).reduce(joinBounds),
      key: `no-second-tool ${film.id}`,
    },
  ];
}

/** Film that does not go under the knife. */
export function thicknessFindings(film: Film, { name, thickest }: Pick<Bed, 'name' | 'thickest'>): Finding[] {
  const thickness = thicknessOf(film);
  if (!isTooThick(film, { thickest })) return [];
  return [
    {
      code: 'too-thick',
      film: film.name,
      severity: 'stop',
      message: `${film.name} is ${formatLength(thickness, 'mm', true)} thick with its backing; ${name} takes ${formatLength(thickest!, 'mm', true)}.`,
      waysOut: [
        'Pick another cutter under Cutter',
        'Pick a thinner film',
        'Correct the thickness under Materials',
      ],
      measured: thickness,
      limit: thickest!,
    },
  ];
}

export const isTooThick = (
  film: Pick<Film, 'kind' | 'thickness'>,
  { thickest }: Pick<Bed, 'thickest'>,
): boolean => typeof thickest === 'number' && thicknessOf(film) > thickest;

/** Rolls that end before what is to be cut from them does. */
export function shortFindings(film: Film, strips: readonly Strip[]): Finding[] {
  const onRoll = new Map<Roll, number[]>();
  for (const { roll, length } of strips) onRoll.set(roll, [...(onRoll.get(roll) ?? []), length]);
  return [...onRoll].flatMap(([roll, lengths]): Finding[] => {
    const { lengthLeft, sheets } = roll;
    const [measured, limit] =
      sheets === undefined
        ? [lengths.reduce((sum, one) => sum + one, 0), lengthLeft]
        : [lengths.length, sheets];
    if (measured <= limit) return [];
    const short =
      sheets === undefined
        ? `${metres(measured)} of film; ${metres(limit)} is left on the roll`
        : `${measured} sheets; ${limit === 1 ? '1 lies' : `${limit} lie`} on the shelf`;
    return [
      {
        code: 'film-short',
        film: film.name,
        severity: 'check',
        message: `${film.name} needs ${short}.`,
        waysOut: ['Cut fewer copies', sheets === undefined ? 'Put a new roll in' : 'Get more sheets'],
        measured,
        limit,
      },
    ];
  });
}

/** What ends a strip; hard: the film or the machine is no longer than that. */
interface End {
  readonly limit: number;
  readonly why: string;
  readonly isHard: boolean;
}

/** What ends a strip of a film first: how long the film and the cutter run true, a flatbed, a sheet. */
export function endOfStrip(film: Film, roll: Roll, { kind, name, trackLength }: Bed): End {
  const ownTrack = limitsOf(film).track;
  const ends: End[] =
    kind === 'flatbed'
      ? [{ limit: trackLength, why: `${name}'s bed is ${metres(trackLength)} long`, isHard: true }]
      : [
          { limit: trackLength, why: `${name} keeps film true for ${metres(trackLength)}`, isHard: false },
          { limit: ownTrack, why: `it runs true for ${metres(ownTrack)}`, isHard: false },
        ];
  const sheet = {
    limit: roll.lengthLeft,
    why: `its sheets are ${metres(roll.lengthLeft)} long`,
    isHard: true,
  };
  if (roll.sheets !== undefined) ends.push(sheet);
  return ends.reduce((first, end) => (end.limit < first.limit ? end : first));
}

function trackFindings(film: Film, strips: readonly Strip[], cutter: Bed): Finding[] {
  const endOf = ({ roll }: Strip): End => endOfStrip(film, roll, cutter);
  const long = strips.find((strip) => strip.length > endOf(strip).limit);
  if (long) {
    const { limit, why, isHard } = endOf(long);
    const elsewhere = isHard ? ['Pick another cutter under Cutter, or a longer film under Films'] : [];
    return [
      {
        code: isHard ? 'too-long' : 'long-track',
        film: film.name,
        severity: isHard ? 'stop' : 'check',
        message: `${film.name} runs ${metres(long.length)} in one go; ${why}.`,
        waysOut: ['Make the sign smaller, or turn it under Layout', ...elsewhere],
        measured: long.length,
        limit,
      },
    ];
  }
  if (strips.length < 2) return [];
  const total = lengthOfStrips(strips);
  const { limit, why } = endOf(strips[0]);
  const reason = total > limit ? why : 'no roll is long enough for all of it';
  return [
    {
      code: 'several-strips',
      film: film.name,
      severity: 'note',
      message: `${film.name} goes over ${strips.length} strips, ${metres(total)} in all: ${reason}.`,
    },
  ];
}

export function mirrorFindings(film: Film, { mirror }: LyingChoices): Finding[] {
  if (mirror === 'by-film') {
    if (!film.cutFromBack) return [];
    const message = `${film.name} is cut from the back, so its cut is mirrored.`;
    return [{ code: 'mirrored-by-film', film: film.name, severity: 'note', message }];
  }
  if (film.cutFromBack === (mirror === 'mirrored')) return [];
  return [
    {
      code: 'mirror-unusual',
      film: film.name,
      severity: 'check',
      message: film.cutFromBack
        ? `${film.name} is cut from the back but is not mirrored: it will read backwards.`
        : `${film.name} is cut from the front but is mirrored: it will read backwards unless it goes behind glass.`,
      waysOut: ['Set Mirror to “as the film needs” under Layout'],
    },
  ];
}

const metres = (mm: number): string => formatRun(mm, 'mm');
