/** Placing pieces on the sign: every function gives new choices and changes nothing. */
import type { ArtworkChoices, Piece } from './choices';
import type { PlacedPiece } from './prepare';
import type { Bounds } from '../geometry/bounds';
import { emptyBounds, heightOf, joinBounds, widthOf } from '../geometry/bounds';

/** Where the pieces lie now, as planned. */
export type Placed = readonly Pick<PlacedPiece, 'id' | 'box' | 'width' | 'height'>[];

/**
 * The same sign with the size of the whole taken over by its pieces, so that one of them can be placed by itself:
 * places are then mm of the finished sign.
 */
export function settle(choices: ArtworkChoices, placed: Placed): ArtworkChoices {
  const scaled = choices.width !== null || choices.height !== null;
  const pieces = choices.pieces.map((piece) => {
    const now = placed.find(({ id }) => id === piece.id);
    if (!now) return piece;
    const at = { x: now.box.minX, y: now.box.minY };
    return scaled ? { ...piece, ...at, width: now.width, height: now.height } : { ...piece, ...at };
  });
  return { ...choices, width: null, height: null, lockAspect: true, pieces };
}

/** One piece changed; its place and size are mm of the finished sign. */
export function changePiece(
  choices: ArtworkChoices,
  placed: Placed,
  id: string,
  change: Partial<Piece>,
): ArtworkChoices {
  const settled = settle(choices, placed);
  const pieces = settled.pieces.map((piece) => (piece.id === id ? { ...piece, ...change } : piece));
  return { ...settled, pieces };
}

/** Ids with all that are grouped with them. */
export function withGroups({ pieces }: Pick<ArtworkChoices, 'pieces'>, ids: readonly string[]): string[] {
  const groups = new Set(pieces.flatMap((p) => (ids.includes(p.id) && p.group !== null ? [p.group] : [])));
  return pieces
    .filter((p) => ids.includes(p.id) || (p.group !== null && groups.has(p.group)))
    .map((p) => p.id);
}

/** Pieces moved by dx, dy mm. */
export function movePieces(
  choices: ArtworkChoices,
  placed: Placed,
  ids: readonly string[],
  dx: number,
  dy: number,
): ArtworkChoices {
  const settled = settle(choices, placed);
  return {
    ...settled,
    pieces: settled.pieces.map((p) => (ids.includes(p.id) ? { ...p, x: p.x + dx, y: p.y + dy } : p)),
  };
}

export type Edge = 'left' | 'centre' | 'right' | 'top' | 'middle' | 'bottom';

/** Pieces lined up with the box around all of them; groups move as one. */
export function alignPieces(
  choices: ArtworkChoices,
  placed: Placed,
  ids: readonly string[],
  edge: Edge,
): ArtworkChoices {
  const units = unitsOf(choices, placed, ids);
  const all = units.reduce((box, unit) => joinBounds(box, unit.box), emptyBounds());
  return units.reduce(
    (now, { members, box }) => {
      const [dx, dy] = toEdge(box, all, edge);
      return shift(now, members, dx, dy);
    },
    settle(choices, placed),
  );
}

function toEdge(box: Bounds, all: Bounds, edge: Edge): readonly [number, number] {
  switch (edge) {
    case 'left':
      return [all.minX - box.minX, 0];
    case 'right':
      return [all.maxX - box.maxX, 0];
    case 'centre':
      return [(all.minX + all.maxX - box.minX - box.maxX) / 2, 0];
    case 'top':
      return [0, all.minY - box.minY];
    case 'bottom':
      return [0, all.maxY - box.maxY];
    default:
      return [0, (all.minY + all.maxY - box.minY - box.maxY) / 2];
  }
}

/** The same room between all of them, the outer two staying where they are. */
export function distributePieces(
  choices: ArtworkChoices,
  placed: Placed,
  ids: readonly string[],
  axis: 'across' | 'down',
): ArtworkChoices {
  const low = (b: Bounds): number => (axis === 'across' ? b.minX : b.minY);
  const size = (b: Bounds): number => (axis === 'across' ? widthOf(b) : heightOf(b));
  const units = unitsOf(choices, placed, ids).sort((a, b) => low(a.box) - low(b.box));
  if (units.length < 3) return choices;
  const last = units[units.length - 1].box;
  const span = low(last) + size(last) - low(units[0].box);
  const room = (span - units.reduce((sum, { box }) => sum + size(box), 0)) / (units.length - 1);
  let at = low(units[0].box);
  return units.reduce(
    (now, { members, box }) => {
      const by = at - low(box);
      at += size(box) + room;
      return axis === 'across' ? shift(now, members, by, 0) : shift(now, members, 0, by);
    },
    settle(choices, placed),
  );
}

interface Unit {
  readonly members: readonly string[];
  readonly box: Bounds;
}

/** Pieces that move as one: groups, and single pieces. */
function unitsOf({ pieces }: ArtworkChoices, placed: Placed, ids: readonly string[]): Unit[] {
  const units = new Map<string, { members: string[]; box: Bounds }>();
  for (const piece of pieces) {
    const box = placed.find(({ id }) => id === piece.id)?.box;
    if (!ids.includes(piece.id) || !box) continue;
    const key = piece.group === null ? `piece ${piece.id}` : `group ${piece.group}`;
    const unit = units.get(key) ?? { members: [], box: emptyBounds() };
    unit.members.push(piece.id);
    units.set(key, { members: unit.members, box: joinBounds(unit.box, box) });
  }
  return [...units.values()];
}

function shift(choices: ArtworkChoices, ids: readonly string[], dx: number, dy: number): ArtworkChoices {
  const pieces = choices.pieces.map((p) => (ids.includes(p.id) ? { ...p, x: p.x + dx, y: p.y + dy } : p));
  return { ...choices, pieces };
}

/** A name that no piece has yet. */
export function freshId({ pieces }: Pick<ArtworkChoices, 'pieces'>): string {
  const last = pieces.reduce((most, { id }) => Math.max(most, Number(/^p(\d+)$/.exec(id)?.[1] ?? 0)), 0);
  return `p${last + 1}`;
}

/** `count` more of the pieces, each a pitch further on; groups are groups again. */
export function duplicatePieces(
  choices: ArtworkChoices,
  placed: Placed,
  ids: readonly string[],
  count: number,
  dx: number,
  dy: number,
): { choices: ArtworkChoices; made: string[] } {
  let now = settle(choices, placed);
  const made: string[] = [];
  for (let n = 1; n <= count; n++) {
    const groups = new Map<string, string>();
    for (const original of now.pieces.filter(({ id }) => ids.includes(id))) {
      const id = freshId(now);
      const group = original.group === null ? null : (groups.get(original.group) ?? `g${id}`);
      if (original.group !== null && group !== null) groups.set(original.group, group);
      const piece = { ...original, id, group, x: original.x + dx * n, y: original.y + dy * n };
      now = { ...now, pieces: [...now.pieces, piece], lines: copyRules(now, original.id, id) };
      made.push(id);
    }
  }
  return { choices: now, made };
}

/** What was decided about single shapes of a piece counts for its copy too. */
function copyRules({ lines }: ArtworkChoices, from: string, to: string): ArtworkChoices['lines'] {
  const copied = <T>(rules: Readonly<Record<string, T>>): Record<string, T> => ({
    ...rules,
    ...Object.fromEntries(
      Object.entries(rules).flatMap(([ref, rule]) =>
        ref.startsWith(`${from}/`) ? [[`${to}/${ref.slice(from.length + 1)}`, rule]] : [],
      ),
    ),
  });
  return { ...lines, shape: copied(lines.shape), stroke: copied(lines.stroke) };
}

/** Pieces taken away, with all that was decided about them. */
export function removePieces(choices: ArtworkChoices, ids: readonly string[]): ArtworkChoices {
  return {
    ...choices,
    pieces: choices.pieces.filter(({ id }) => !ids.includes(id)),
    ...withoutRules(choices, ids),
  };
}

/** Rules and fixes without those for single shapes of some pieces. */
function withoutRules(
  { lines, fixes }: ArtworkChoices,
  ids: readonly string[],
): Pick<ArtworkChoices, 'lines' | 'fixes'> {
  const isOf = (ref: string): boolean => ids.some((id) => ref.startsWith(`${id}/`));
  const kept = <T>(rules: Readonly<Record<string, T>>): Record<string, T> =>
    Object.fromEntries(Object.entries(rules).filter(([ref]) => !isOf(ref)));
  return {
    lines: { ...lines, shape: kept(lines.shape), stroke: kept(lines.stroke) },
    fixes: fixes.filter(({ at }) => !isOf(at)),
  };
}

/**
 * Another source in a piece's place. Its size, place and turn stay, and so do rules for colours and layers; what was
 * decided about single shapes of the old one does not.
 */
export function replaceSource(
  choices: ArtworkChoices,
  id: string,
  source: Piece['source'],
  name: string,
): ArtworkChoices {
  return {
    ...choices,
    pieces: choices.pieces.map((piece) => (piece.id === id ? { ...piece, source, name } : piece)),
    ...withoutRules(choices, [id]),
  };
}

/** A line that a moved box has been drawn to. */
export interface Guide {
  readonly axis: 'across' | 'down';
  readonly at: number;
}

/**
 * How far a box that is being moved has to be drawn so that an edge or its middle meets an edge or the middle of
 * another box, when one is near.
 * @param reach mm
 */
export function snapBox(
  box: Bounds,
  others: readonly Bounds[],
  reach: number,
): { dx: number; dy: number; guides: readonly Guide[] } {
  const lines = (b: Bounds, axis: 'across' | 'down'): number[] =>
    axis === 'across' ? [b.minX, (b.minX + b.maxX) / 2, b.maxX] : [b.minY, (b.minY + b.maxY) / 2, b.maxY];
  const nearest = (axis: 'across' | 'down'): { by: number; guide: Guide } | undefined => {
    let best: { by: number; guide: Guide } | undefined;
    for (const target of others.flatMap((other) => lines(other, axis))) {
      for (const own of lines(box, axis)) {
        const by = target - own;
        if (Math.abs(by) <= reach && (!best || Math.abs(by) < Math.abs(best.by)))
          best = { by, guide: { axis, at: target } };
      }
    }
    return best;
  };
  const [across, down] = [nearest('across'), nearest('down')];
  const guides = [across, down].flatMap((hit) => (hit ? [hit.guide] : []));
  return { dx: across?.by ?? 0, dy: down?.by ?? 0, guides };
}
