import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';

/** What of a film may lie in its cutter at once, mm: weed border taken off. */
export interface PanelRoom {
  readonly across: number;
  readonly along: number;
  /** Ways a part may lie: as drawn its width runs along the film, turned its height. */
  readonly turn: 'as-drawn' | 'turned' | 'shorter';
}

/** Rounding that does not count, mm. */
const SLACK = 1e-3;

/** Whether a part of that size lies in the room one of the ways that are allowed. */
export function fitsIn(width: number, height: number, { across, along, turn }: PanelRoom): boolean {
  const asDrawn = height <= across + SLACK && width <= along + SLACK;
  const turned = width <= across + SLACK && height <= along + SLACK;
  return (turn !== 'turned' && asDrawn) || (turn !== 'as-drawn' && turned);
}

export const boxFits = (box: Bounds, room: PanelRoom): boolean => fitsIn(widthOf(box), heightOf(box), room);

/** The room less what is kept in hand of its width, mm. */
export const keptRoom = (room: PanelRoom, reserve: number): PanelRoom => ({
  ...room,
  across: room.across - reserve,
});

/** The room that suits all. */
export const narrowest = (rooms: readonly PanelRoom[]): PanelRoom =>
  rooms.reduce((a, b) => ({
    across: Math.min(a.across, b.across),
    along: Math.min(a.along, b.along),
    turn: a.turn,
  }));
