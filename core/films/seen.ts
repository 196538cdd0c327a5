/**
 * Visible surfaces: what is seen of each colour when the artwork's shapes are painted bottom to top.
 */
import { append } from '../geometry/lists';
import RBush from 'rbush';
import type { PreparedLine, PreparedShape } from '../artwork/preparePiece';
import type { Bounds } from '../geometry/bounds';
import { outset } from '../geometry/bounds';
import type { Tell } from '../stages/progress';
import { untold } from '../stages/progress';
import type { Folds } from './fold';
import { folded } from './fold';
import type { Component } from '../geometry/nesting';
import { componentsOf } from '../geometry/nesting';
import type { Region, Ring } from '../geometry/region';
import {
  cutToBox,
  difference,
  dropSlivers,
  letOut,
  regionArea,
  ringArea,
  ringBounds,
  weld,
  weldDisjoint,
} from '../geometry/region';

/** What is seen of one colour. */
export interface SeenColour {
  /** `#rrggbb` */
  readonly colour: string;
  readonly region: Region;
  /** mm² */
  readonly area: number;
  /** Painted shapes of this colour in the file. */
  readonly shapes: number;
  /** All of it is pictures that are printed as they are. */
  readonly isPicture: boolean;
  /** Lines of this colour that a tool follows; they hide nothing and nothing hides them. */
  readonly lines: readonly PreparedLine[];
}

interface Cover extends Bounds {
  readonly rings: Component;
  readonly vertices: number;
}

/** What is seen of one colour so far. */
class Seen {
  private readonly rings: Ring[] = [];
  private readonly boxes = new RBush<Bounds>();
  /** Whether something that was added may meet what was there before. */
  private meets = false;

  /** @param isNear whether the region's box meets that of something added before */
  add(region: Region, isNear: boolean): void {
    this.meets ||= isNear;
    append(this.rings, region);
    this.boxes.load(region.filter((ring) => ringArea(ring) > 0).map(ringBounds));
  }

  isNear(box: Bounds): boolean {
    return this.boxes.collides(box);
  }

  /** All that was added, as one region: regions that lie apart are one already. */
  region(): Region {
    return dropSlivers(this.meets ? weldDisjoint(this.rings) : this.rings);
  }
}

/** Share of the work that is done when every shape has been looked at; the rest is welding. */
const PAINTED = 0.8;
/** Room kept around the part of a cover that is looked at, mm. */
const CLIP_MARGIN = 0.05;
/** More than any rounding can part two outlines that were one: keeps slits out of same-colour joins, mm. */
const ROUNDING = 0.002;

/**
 * What is seen of each colour in painter's order, welded, holes kept; bottom colour first.
 *
 * From the top of the pile down, each shape loses what lies above it. What lies above is kept as a silhouette:
 * covers are welded as they meet, so that hundreds of details on a disc hide what is below as one disc, and a
 * shape is compared only with covers whose boxes touch its own.
 */
export function seenColours(
  shapes: readonly PreparedShape[],
  lines: readonly PreparedLine[] = [],
  fold: Folds = {},
  tell: Tell = untold,
): SeenColour[] {
  if (Object.keys(fold).length > 0)
    return seenColours(shapes.map(repaint(fold)), lines.map(repaint(fold)), {}, tell);
  const silhouette = new RBush<Cover>();
  const seen = new Map<string, Seen>();
  for (const [i, shape] of shapes.toReversed().entries()) {
    tell((i / shapes.length) * PAINTED);
    const covers = silhouette.search(shape.bounds);
    const own = seen.get(shape.colour) ?? new Seen();
    const isNear = own.isNear(shape.bounds);
    // slivers thinner than the grid are rounding, not art, and they upset the booleans that follow
    const visible = covers.length === 0 ? shape.region : dropSlivers(hide(shape, covers, isNear));
    if (visible.length === 0) continue;
    seen.set(shape.colour, own);
    own.add(visible, isNear);
    extend(silhouette, shape, covers);
  }
  return collect(shapes, lines, seen);
}

/** The same thing in the colour it is folded into. */
const repaint =
  (fold: Folds) =>
  <T extends { readonly colour: string }>(thing: T): T => ({ ...thing, colour: folded(thing.colour, fold) });

function collect(
  shapes: readonly PreparedShape[],
  lines: readonly PreparedLine[],
  seen: ReadonlyMap<string, Seen>,
): SeenColour[] {
  const counts = new Map<string, number>();
  for (const { colour } of shapes) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  const linesOf = new Map<string, PreparedLine[]>();
  for (const line of lines) {
    const known = linesOf.get(line.colour);
    if (known) known.push(line);
    else linesOf.set(line.colour, [line]);
    if (!counts.has(line.colour)) counts.set(line.colour, 0);
  }
  const painted = new Set(shapes.flatMap(({ colour, picture }) => (picture ? [] : [colour])));
  const out: SeenColour[] = [];
  for (const [colour, count] of counts) {
    const region = seen.get(colour)?.region() ?? [];
    const own = linesOf.get(colour) ?? [];
    if (region.length > 0 || own.length > 0) {
      const drawn = count + new Set(own.map((line) => line.ref)).size;
      const isPicture = count > 0 && !painted.has(colour);
      out.push({ colour, region, area: regionArea(region), shapes: drawn, isPicture, lines: own });
    }
  }
  return out;
}

function coverOf(rings: Component): Cover {
  return { ...ringBounds(rings[0]), rings, vertices: rings.reduce((sum, ring) => sum + ring.length / 2, 0) };
}

/**
 * The shape less what covers it. Where its own colour lies above, rounding to the grid could part the two by a
 * slit for the knife to follow: there the rest is let out by a little more than rounding can do, and the weld
 * at the end closes it.
 */
function hide(shape: PreparedShape, covers: readonly Cover[], isByItsOwn: boolean): Region {
  const above = nearRings(covers, shape);
  if (above.length === 0) return shape.region;
  const visible = difference(shape.region, above);
  return isByItsOwn ? letOut(visible, ROUNDING) : visible;
}

/** The covers' rings near the shape; large covers are cut down to its box first. */
function nearRings(covers: readonly Cover[], shape: PreparedShape): Region {
  const size = shape.region.reduce((sum, ring) => sum + ring.length / 2, 0);
  const box = outset(shape.bounds, CLIP_MARGIN);
  return covers.flatMap((cover) =>
    cover.vertices > 2 * size + 50 ? cutToBox(cover.rings, box) : cover.rings,
  );
}

/**
 * Adds a shape to the silhouette. Up to a few, covers are cheaper laid beside each other than welded; one that meets
 * far larger outlines is always laid beside them.
 */
function extend(silhouette: RBush<Cover>, shape: PreparedShape, covers: readonly Cover[]): void {
  const size = shape.region.reduce((sum, ring) => sum + ring.length / 2, 0);
  if (covers.length < DEEP) {
    silhouette.insert({ ...shape.bounds, rings: shape.region, vertices: size });
    return;
  }
  const met = covers.filter((cover) => cover.vertices <= 8 * size + 1000);
  for (const cover of met) silhouette.remove(cover);
  silhouette.load(componentsOf(weld([...shape.region, ...met.flatMap((cover) => cover.rings)])).map(coverOf));
}

/** Covers at one place from which on they are welded. */
const DEEP = 12;
