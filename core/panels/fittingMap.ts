/** Where each panel goes on its surface: measured from a datum, with tape lines and the order in which they go on. */
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import { sharedBounds } from '../geometry/bounds';
import { applicationOrder } from './applied';
import type { PanelChoices } from './choices';
import type { Axis } from './ink';
import type { PanelPart } from './panel';
import type { Panelling } from './seams';

export const DATUMS_ACROSS = ['left', 'right', 'centre'] as const;
export const DATUMS_DOWN = ['upper', 'lower'] as const;

/** Edges of the sign, or its centre line, that all is measured from. */
export interface Datum {
  readonly across: (typeof DATUMS_ACROSS)[number];
  readonly down: (typeof DATUMS_DOWN)[number];
}

/** mm on the sign, and how far that is from the datum; left of a centre line is less than nought. */
export interface Measured {
  readonly at: number;
  readonly from: number;
}

export interface MapPanel {
  readonly number: number;
  /** Its place among those that go on, from 1. */
  readonly turn: number;
  /** What is seen of it, mm on the sign. */
  readonly seen: Bounds;
  /** What it takes up, its overlap beneath the neighbours with it. */
  readonly whole: Bounds;
  /** Of its upper left corner, as it is seen. */
  readonly across: number;
  readonly down: number;
  readonly films: readonly Pick<Film, 'name' | 'colour'>[];
}

export interface FittingMap {
  readonly width: number;
  readonly height: number;
  readonly datum: Datum;
  /** Where tape goes: a line for every seam, and the edges of the art that is in panels. */
  readonly tape: Readonly<Record<Axis, readonly Measured[]>>;
  /** In the order in which they go on: what lies beneath first. */
  readonly panels: readonly MapPanel[];
  /** mm beneath the neighbour on top */
  readonly overlap: number;
}

/**
 * The map of a sign in panels.
 * @param panels of all films; those that are not cut are left out
 * @param sign its whole size, mm
 */
export function fittingMap(
  { box, seams }: Pick<Panelling, 'box' | 'seams'>,
  panels: readonly PanelPart[],
  { onTop, overlap }: Pick<PanelChoices, 'onTop' | 'overlap'>,
  { width, height }: { readonly width: number; readonly height: number },
  datum: Datum,
): FittingMap {
  const cut = panels.filter(({ isCut }) => isCut);
  const across = (x: number): number => fromDatum(x, width, datum.across);
  const down = (y: number): number => (datum.down === 'upper' ? y : height - y);
  const first = new Map(cut.map((panel) => [panel.cell.number, panel]));
  const order = applicationOrder([...first.values()], onTop);
  return {
    width,
    height,
    datum,
    overlap,
    tape: {
      upright: [box.minX, ...seams.upright, box.maxX].map((at) => ({ at, from: across(at) })),
      level: [box.minY, ...seams.level, box.maxY].map((at) => ({ at, from: down(at) })),
    },
    panels: order.map((number, i): MapPanel => {
      const { cell } = first.get(number)!;
      const seen = sharedBounds(cell.seen, box);
      const films = cut.filter((panel) => panel.cell.number === number).map(({ film }) => film);
      return {
        number,
        turn: i + 1,
        seen,
        whole: sharedBounds(cell.cut, box),
        across: across(seen.minX),
        down: down(seen.minY),
        films: films.map(({ name, colour }) => ({ name, colour })),
      };
    }),
  };
}

function fromDatum(x: number, width: number, datum: Datum['across']): number {
  if (datum === 'left') return x;
  return datum === 'right' ? width - x : x - width / 2;
}

/** What a datum is called. */
export const DATUM_WORDS: Readonly<Record<Datum['across'] | Datum['down'], string>> = {
  left: 'the left edge',
  right: 'the right edge',
  centre: 'the centre line',
  upper: 'the upper edge',
  lower: 'the lower edge',
};
