/** Where each panel goes on its surface: measured from a datum, with tape lines and the order in which they go on. */
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import { sharedBounds } from '../geometry/bounds';
import type { Axis } from './axis';
import { spanOf } from './axis';
import { applicationOrder } from './applied';
import { rounded } from '../units/rounded';
import type { PanelChoices, Surface, WallPicture } from './choices';
import { overlapAt } from './choices';
import type { PanelPart } from './panel';
import type { Panelling } from './seams';

export const DATUMS_ACROSS = ['left', 'right', 'centre'] as const;
export const DATUMS_DOWN = ['upper', 'lower'] as const;

/** Edges of the sign, or its centre line, that all is measured from. */
export interface Datum {
  readonly across: (typeof DATUMS_ACROSS)[number];
  readonly down: (typeof DATUMS_DOWN)[number];
}

/** mm on the map, and how far that is from the datum; left of a centre line is less than nought. */
export interface Measured {
  readonly at: number;
  readonly from: number;
  /** mm that the panels on both sides share; edges of the art: none. */
  readonly overlap?: number;
  /** Where a wandering seam runs, x0, y0, x1, y1 …; missing: straight. */
  readonly way?: readonly number[];
}

export interface MapPanel {
  readonly number: number;
  /** Its place among those that go on, from 1. */
  readonly turn: number;
  /** What is seen of it, mm on the map. */
  readonly seen: Bounds;
  /** What it takes up, its overlap beneath the neighbours with it. */
  readonly whole: Bounds;
  /** Of its upper left corner, as it is seen. */
  readonly across: number;
  readonly down: number;
  readonly films: readonly Pick<Film, 'name' | 'colour'>[];
  /** Cut whole, and not between seams. */
  readonly isPiece: boolean;
}

export interface FittingMap {
  /** Of the surface, or of the sign where none is given: what is measured from; mm. */
  readonly width: number;
  readonly height: number;
  readonly isOnSurface: boolean;
  /** Where the sign lies on it. */
  readonly sign: Bounds;
  readonly keepOuts: Surface['keepOuts'];
  /** A photograph of the surface. */
  readonly picture: WallPicture | null;
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
  choices: Pick<PanelChoices, 'onTop' | 'overlap' | 'overlaps' | 'surface'>,
  sign: { readonly width: number; readonly height: number },
  datum: Datum,
): FittingMap {
  const { surface, onTop, overlap } = choices;
  const { width, height } = surface ?? sign;
  const [ox, oy] = surface ? [surface.x, surface.y] : [0, 0];
  const cut = panels.filter(({ isCut }) => isCut);
  const across = (x: number): number => fromDatum(x, width, datum.across);
  const down = (y: number): number => (datum.down === 'upper' ? y : height - y);
  const first = new Map(cut.map((panel) => [panel.cell.number, panel]));
  const order = applicationOrder([...first.values()], onTop);
  const onMap = ({ minX, minY, maxX, maxY }: Bounds): Bounds => ({
    minX: minX + ox,
    minY: minY + oy,
    maxX: maxX + ox,
    maxY: maxY + oy,
  });
  const art = onMap(box);
  const tapeAlong = (axis: Axis): Measured[] => {
    const [begin, end] = spanOf(art, axis);
    const from = axis === 'upright' ? across : down;
    const by = axis === 'upright' ? ox : oy;
    return [
      { at: begin, from: from(begin) },
      ...seams[axis].map((seam, i): Measured => {
        const way = seams.ways?.[axis][i];
        return {
          at: seam + by,
          from: from(seam + by),
          overlap: overlapAt(choices, axis, i),
          ...(way && { way: Array.from(way, (v, k) => rounded(v + (k % 2 === 0 ? ox : oy))) }),
        };
      }),
      { at: end, from: from(end) },
    ];
  };
  return {
    width,
    height,
    isOnSurface: surface !== null,
    sign: onMap({ minX: 0, minY: 0, maxX: sign.width, maxY: sign.height }),
    keepOuts: surface?.keepOuts ?? [],
    picture: surface?.picture ?? null,
    datum,
    overlap,
    tape: { upright: tapeAlong('upright'), level: tapeAlong('level') },
    panels: order.map((number, i): MapPanel => {
      const { cell } = first.get(number)!;
      const isPiece = cell.row < 0;
      const place = (bounds: Bounds): Bounds => onMap(isPiece ? bounds : sharedBounds(bounds, box));
      const seen = place(cell.seen);
      const films = cut.filter((panel) => panel.cell.number === number).map(({ film }) => film);
      return {
        number,
        turn: i + 1,
        seen,
        whole: place(cell.cut),
        across: across(seen.minX),
        down: down(seen.minY),
        films: films.map(({ name, colour }) => ({ name, colour })),
        isPiece,
      };
    }),
  };
}

function fromDatum(x: number, width: number, datum: Datum['across']): number {
  if (datum === 'left') return x;
  return datum === 'right' ? width - x : x - width / 2;
}

type Edge = Datum['across'] | Datum['down'];
const SIGN_WORDS: Readonly<Record<Edge, string>> = {
  left: 'the left edge',
  right: 'the right edge',
  centre: 'the centre line',
  upper: 'the upper edge',
  lower: 'the lower edge',
};
const SURFACE_WORDS: Readonly<Record<Edge, string>> = {
  ...SIGN_WORDS,
  upper: 'the ceiling',
  lower: 'the floor',
};

/** What a datum is called, of a sign by itself and of a wall. */
export const datumWord = (edge: Edge, isOnSurface: boolean): string =>
  (isOnSurface ? SURFACE_WORDS : SIGN_WORDS)[edge];
