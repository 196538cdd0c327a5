/** What is wrong with seams, each with a way out. */
import type { Finding } from '../findings/finding';
import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { formatBoth, formatLength } from '../units/length';
import type { Axis } from './axis';
import type { PanelRoom } from './room';
import { fitsIn, keptRoom } from './room';

export const MOST_PANELS = 200;
/** Nearer than this to another or to the art's edge a seam makes no panel, mm. */
export const NEAREST = 1;

export const noPanel = (at: number, axis: Axis, isOutside: boolean): Finding => ({
  code: 'seam-without-panel',
  severity: 'check',
  message: `The ${axis} seam at ${formatLength(at, 'mm')} lies ${isOutside ? 'outside the art' : 'on another seam'} and is left out.`,
  waysOut: ['Move it, or take it away'],
  measured: at,
  key: `seam ${axis} ${at.toFixed(1)}`,
});

export function tooMany(panels: number): Finding[] {
  if (panels <= MOST_PANELS) return [];
  return [
    {
      code: 'too-many-panels',
      severity: 'stop',
      message: `That makes ${panels} panels; ${MOST_PANELS} is the most.`,
      waysOut: ['Use fewer rows and columns, or wider film', 'Look whether the size under Artwork is meant'],
      measured: panels,
      limit: MOST_PANELS,
    },
  ];
}

const MOST_PIECES = 2000;

export function tooManyPieces(pieces: number): Finding[] {
  if (pieces <= MOST_PIECES) return [];
  return [
    {
      code: 'too-many-pieces',
      severity: 'stop',
      message: `That makes ${pieces} pieces to place by hand; ${MOST_PIECES} is the most.`,
      waysOut: ['Take whole lines or words together', 'Place seams where they cut least'],
      measured: pieces,
      limit: MOST_PIECES,
    },
  ];
}

/**
 * Choices that no panel can follow.
 * @param overlap the widest of all seams, mm
 * @param taken what keys and staggered seams take of a panel, mm
 */
export function impossible(room: PanelRoom, overlap: number, taken: number): Finding | undefined {
  const kept = keptRoom(room);
  if (kept.across <= NEAREST)
    return {
      code: 'reserve-too-wide',
      severity: 'stop',
      message: `${formatBoth(room.reserve)} kept in hand leaves nothing of the ${formatBoth(room.across)} that the knife reaches.`,
      waysOut: ['Keep less in hand'],
      measured: room.reserve,
      limit: room.across,
    };
  const widest = Math.min(kept.across, kept.along);
  if (overlap >= widest - NEAREST)
    return {
      code: 'overlap-too-wide',
      severity: 'stop',
      message: `An overlap of ${formatBoth(overlap)} is as wide as a panel, which is ${formatBoth(widest)} at most.`,
      waysOut: ['Make the overlap narrower'],
      measured: overlap,
      limit: widest,
    };
  if (overlap + taken >= widest - NEAREST)
    return {
      code: 'panel-too-narrow',
      severity: 'stop',
      message: `Overlap, keys and the distance between films' seams take ${formatBoth(overlap + taken)} of a panel, which is ${formatBoth(widest)} at most.`,
      waysOut: ['Switch the keys off', 'Let the films’ seams lie nearer to one another'],
      measured: overlap + taken,
      limit: widest,
    };
  return undefined;
}

export const noWay = ({ across }: PanelRoom): Finding => ({
  code: 'no-panels',
  severity: 'stop',
  message: `No seams can be found that leave panels of at most ${formatBoth(across)}.`,
  waysOut: ['Let the parts be turned under Layout', 'Place the seams by hand'],
});

/** A panel that was made by hand or by number, and is larger than what fits. */
export function tooLarge(number: number, box: Bounds, film: string, room: PanelRoom): Finding | undefined {
  const [w, h] = [widthOf(box), heightOf(box)];
  if (fitsIn(w, h, room)) return undefined;
  return {
    code: 'panel-too-large',
    film,
    severity: 'stop',
    message: `Panel ${number} is ${formatLength(w, 'mm')} × ${formatLength(h, 'mm')}; at most ${formatBoth(room.across)} across fits, ${formatBoth(room.along)} along.`,
    waysOut: ['Add a seam, or move one', 'Let the seams be placed where they are needed'],
    // at its upper edge: its number stands in its middle
    where: { ...box, maxY: box.minY },
    measured: Math.min(w, h),
    limit: room.across,
  };
}

/** Shapes that were to be kept whole and are crossed all the same: each is named by where it lies. */
export function crossedAll(crossed: readonly Bounds[], room: PanelRoom, isFree: boolean): Finding[] {
  if (crossed.length === 0) return [];
  const [first] = crossed;
  const kept = keptRoom(room);
  const wider = crossed.filter((box) => !fitsIn(widthOf(box), heightOf(box), kept));
  const why =
    wider.length > 0
      ? ` ${wider.length === 1 ? 'One is' : `${wider.length} are`} larger than any panel (at most ${formatBoth(kept.across)} across and ${formatBoth(kept.along)} along).`
      : '';
  return [
    {
      code: 'kept-crossed',
      severity: 'check',
      message: `Seams cross ${crossed.length === 1 ? 'a shape' : `${crossed.length} shapes`} to be kept whole, the first ${formatLength(widthOf(first), 'mm')} × ${formatLength(heightOf(first), 'mm')} at ${formatLength(first.minX, 'mm')}, ${formatLength(first.minY, 'mm')}.${why}`,
      waysOut: [
        ...(isFree ? [] : ['Let the seams be placed where they cut least, or wander']),
        'Take wider film, or a wider cutter',
        'Keep less in hand, or fewer shapes whole',
      ],
      where: first,
      measured: crossed.length,
      limit: 0,
      key: 'kept-crossed',
    },
  ];
}
