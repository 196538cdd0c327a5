import type { Bounds } from '../geometry/bounds';
import { heightOf, widthOf } from '../geometry/bounds';
import { smallest } from '../geometry/lists';

/** What of a film may lie in its cutter at once, mm: weed border taken off. */
export interface PanelRoom {
  readonly across: number;
  readonly along: number;
  /** Of that width kept in hand where art is taken apart. */
  readonly reserve: number;
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

/** The room less what is kept in hand of its width. */
export const keptRoom = (room: PanelRoom): PanelRoom => ({
  ...room,
  across: room.across - room.reserve,
  reserve: 0,
});

/** The room that suits all. */
export function narrowest(rooms: readonly PanelRoom[]): PanelRoom {
  const across = smallest(rooms.map((room) => room.across));
  return {
    across,
    along: smallest(rooms.map((room) => room.along)),
    reserve: across - smallest(rooms.map((room) => room.across - room.reserve)),
    turn: rooms[0].turn,
  };
}
