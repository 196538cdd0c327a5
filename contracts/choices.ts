import { z } from 'zod';
import { NO_LINE_RULES, pieceOfFile, TOOL_KINDS } from '../core/artwork/choices';
import { PANEL_WAYS, TOGETHER } from '../core/panels/choices';
import { PACKS } from '../core/layout/strip';
import { CUT_LINE_KINDS, SHEET_PACKS, MOST_CUT_LINES, PATCHES } from '../core/print/choices';
import { MARK_KINDS } from '../core/registration/readMarks';
import { recipeParts } from './shop';
import { BORDERS, LEAST_STEP, MOST_LINES, MOST_STEP, WEED_LINE_WAYS } from '../core/layout/weedChoices';
import type { Choices } from '../core/plan/choices';
import { DEFAULT_CHOICES } from '../core/plan/choices';

const colour = z.string().regex(/^#[0-9a-f]{6}$/);
const size = z.number().positive().max(100_000).nullable();
const place = z.number().min(-100_000).max(100_000);
const name = z.string().max(200);
const filmId = z.string().max(60);
/** `filmId` for what is kiss cut, `filmId/kind` for other lines. */
const recipeId = z.string().max(80);
const cutterId = z.string().max(60);

const recipeChanges = z.strictObject({
  // null: left to the machine
  force: z.number().int().min(5).max(1000).nullable().optional(),
  speed: z.number().min(1).max(150).nullable().optional(),
  blade: z.string().min(1).max(40).optional(),
  ...recipeParts,
});

const traceSchema = z.strictObject({
  by: z.enum(['brightness', 'alpha', 'colours', 'print']),
  threshold: z.number().min(0).max(1),
  invert: z.boolean(),
  colours: z.number().int().min(2).max(12),
  dropGround: z.boolean(),
  despeckle: z.number().min(0).max(10_000),
  smooth: z.number().min(0).max(4),
  corner: z.number().min(0).max(180),
});

export const fileSource = z.strictObject({
  kind: z.literal('file'),
  hash: z.string().regex(/^[0-9a-f]{64}$/),
  name,
  page: z.number().int().min(1).max(10_000).nullable(),
  box: z.enum(['crop', 'media', 'trim', 'bleed', 'art']).nullable(),
  units: z.enum(['mm', 'cm', 'm', 'in', 'ft', 'pt']).nullable(),
  trace: traceSchema.nullable(),
  font: z.string().max(120).nullable(),
});

export const textSource = z.strictObject({
  kind: z.literal('text'),
  text: z.string().max(2000),
  font: z.string().max(120),
  weight: z.number().min(1).max(1000),
  capHeight: z.number().min(1).max(10_000),
  tracking: z.number().min(-500).max(5000),
  lineSpacing: z.number().min(0.2).max(10),
  align: z.enum(['left', 'middle', 'right']),
  arcRadius: z.number().min(-100_000).max(100_000),
  colour,
});

export const sourceSchema = z.discriminatedUnion('kind', [fileSource, textSource]);

const pieceSchema = z.strictObject({
  id: z.string().regex(/^\w{1,24}$/),
  name,
  source: sourceSchema,
  width: size,
  height: size,
  lockAspect: z.boolean(),
  x: place,
  y: place,
  turn: z.number().min(-3600).max(3600),
  mirror: z.boolean(),
  group: z.string().max(24).nullable(),
});

export const lineKindSchema = z.enum([...TOOL_KINDS, 'print']);

const artworkSchema = z.strictObject({
  width: size,
  height: size,
  lockAspect: z.boolean(),
  pieces: z.array(pieceSchema).max(500),
  lines: z.strictObject({
    colour: z.record(colour, lineKindSchema),
    layer: z.record(name, lineKindSchema),
    shape: z.record(z.string().max(60), lineKindSchema),
    stroke: z.record(z.string().max(60), z.enum(['line', 'outline'])),
  }),
  fixes: z
    .array(
      z.strictObject({
        kind: z.enum([
          'close',
          'weld',
          'double',
          'thicken',
          'simplify',
          'island',
          'outline',
          'flat',
          'print',
        ]),
        at: z.string().max(120),
      }),
    )
    .max(20_000),
  ignored: z.array(z.strictObject({ key: z.string().max(200), reason: z.string().max(300) })).max(5000),
});

const at = z.strictObject({ x: place, y: place });
/** Panels and pieces together, more than any order has. */
const MOST_NUMBERED = 3000;
const seamOverlaps = z.array(z.number().min(0).max(1000).nullable()).max(200);

export const keepOutSchema = z.strictObject({
  name: z.string().max(60),
  x: place,
  y: place,
  width: z.number().min(1).max(100_000),
  height: z.number().min(1).max(100_000),
});

export const wallPictureSchema = z.strictObject({
  file: z.string().regex(/^[0-9a-f]{64}$/),
  width: z.number().int().min(1).max(100_000),
  height: z.number().int().min(1).max(100_000),
  from: at,
  to: at,
  apart: z.number().min(1).max(100_000),
  at,
});

const cutLine = z.strictObject({
  kind: z.enum(CUT_LINE_KINDS),
  around: z.array(colour).max(1000).nullable(),
  layers: z.array(z.string().max(200)).max(200).optional(),
  shapes: z.array(z.string().max(200)).max(5000).optional(),
  offset: z.number().min(-500).max(500),
  corners: z.enum(['round', 'mitre']),
  mitreLimit: z.number().min(1).max(20),
  smallestRadius: z.number().min(0).max(200),
  dropHoles: z.number().min(0).max(1e6).nullable(),
  join: z.number().min(0).max(500),
  joinInside: z.number().min(0).max(500).optional(),
});
const sheetSide = z.number().min(50).max(10_000);
const printSchema = z.strictObject({
  lines: z.array(cutLine).max(MOST_CUT_LINES),
  bleed: z.number().min(0).max(50),
  film: filmId.nullable(),
  sheet: z.strictObject({ width: sheetSide, height: sheetSide }).nullable(),
  edge: z.number().min(0).max(500),
  spacing: z.number().min(0).max(1000),
  pack: z.enum(SHEET_PACKS),
  spare: z.number().int().min(0).max(1000),
  marks: z.strictObject({
    kind: z.enum(MARK_KINDS),
    arm: z.number().min(2).max(100),
    line: z.number().min(0.2).max(10),
    away: z.number().min(0).max(500),
    between: z.number().min(20).max(10_000),
    corners: z.union([z.literal(3), z.literal(4)]),
    at: z.strictObject({ minX: place, minY: place, maxX: place, maxY: place }).nullable(),
  }),
  patch: z.enum(PATCHES),
});

/** Orders that lie on one film with another. */
const MOST_GUESTS = 20;
const orderId = z.number().int().min(1).max(2_000_000_000);

const packedStrip = z.strictObject({
  roll: z.number().positive().max(5000),
  order: z.number().int().min(0).optional(),
  pieces: z
    .array(
      z.strictObject({
        part: z.string().max(200),
        copy: z.number().int().min(0).max(1000),
        x: z.number().min(-1e6).max(1e6),
        y: z.number().min(-1e6).max(1e6),
        turn: z.number().min(-1e6).max(1e6),
        pinned: z.boolean(),
      }),
    )
    .max(2000),
});

export const choicesSchema = z.strictObject({
  artwork: artworkSchema,
  films: z.strictObject({
    film: z.record(colour, z.string().max(60)),
    off: z.array(colour).max(10_000),
    print: z.array(colour).max(10_000),
    order: z.array(colour).max(10_000),
    fold: z.record(colour, colour),
    overlap: z.record(
      filmId,
      z.strictObject({ mode: z.enum(['full', 'trap', 'butt']), by: z.number().min(0).max(20) }),
    ),
    marks: z
      .strictObject({
        shape: z.enum(['triangle', 'square', 'cross', 'ring']),
        count: z.union([z.literal(2), z.literal(3), z.literal(4)]),
        size: z.number().min(2).max(100).nullable(),
        at: z.array(at).max(4).nullable(),
      })
      .nullable(),
    copies: z.record(filmId, z.number().int().min(1).max(1000)),
  }),
  panels: z.strictObject({
    way: z.enum(PANEL_WAYS),
    rows: z.number().int().min(1).max(200),
    columns: z.number().int().min(1).max(200),
    upright: z.array(place).max(200),
    level: z.array(place).max(200),
    overlap: z.number().min(0).max(1000),
    overlaps: z.strictObject({ upright: seamOverlaps, level: seamOverlaps }),
    onTop: z.enum(['next', 'before']),
    stagger: z.number().min(0).max(1000),
    reserve: z.number().min(0).max(5000).nullable(),
    skip: z.array(z.number().int().min(1).max(MOST_NUMBERED)).max(MOST_NUMBERED),
    keepLetters: z.boolean(),
    whole: z.array(at).max(500),
    together: z.enum(TOGETHER),
    groups: z.array(z.array(at).max(500)).max(200),
    alone: z.array(at).max(500),
    keys: z.boolean(),
    numbers: z.enum(['cut', 'pen', 'none']),
    surface: z
      .strictObject({
        width: z.number().min(1).max(100_000),
        height: z.number().min(1).max(100_000),
        x: place,
        y: place,
        keepOuts: z.array(keepOutSchema).max(100),
        picture: wallPictureSchema.nullable(),
      })
      .nullable(),
  }),
  layout: z.strictObject({
    copies: z.number().int().min(1).max(1000),
    spacing: z.number().min(0).max(1000),
    turn: z.enum(['as-drawn', 'turned', 'shorter']),
    mirror: z.enum(['by-film', 'mirrored', 'not-mirrored']),
    border: z.enum(BORDERS),
    borderDistance: z.number().min(0).max(200),
    place: z.enum(['edge', 'middle', 'at']),
    placeAt: z.strictObject({ x: z.number().min(0).max(100_000), y: z.number().min(0).max(5000) }),
    abreast: z.number().int().min(1).max(1000).nullable(),
    pack: z.enum(PACKS),
    packFilm: z.record(filmId, z.enum(PACKS)),
    turns: z.enum(['none', 'quarter', 'free']),
    between: z.number().min(0).max(200),
    packed: z.record(filmId, z.array(packedStrip).max(200)),
    guests: z.record(filmId, z.array(orderId).max(MOST_GUESTS)),
    rolls: z.record(
      filmId,
      z.union([
        z.number().positive().max(5000),
        z.string().min(1).max(12),
        z.strictObject({ width: z.number().min(20).max(5000), length: z.number().min(20).max(1e7) }),
      ]),
    ),
    weedLines: z.strictObject({
      way: z.enum(WEED_LINE_WAYS),
      step: z.number().min(LEAST_STEP).max(MOST_STEP),
      direction: z.enum(['across', 'along', 'both']),
      away: z.number().min(0.5).max(100),
      byHand: z.record(
        z.string().max(80),
        z.array(z.strictObject({ axis: z.enum(['upright', 'level']), at: place })).max(MOST_LINES),
      ),
    }),
  }),
  print: printSchema,
  cut: z.strictObject({ recipes: z.record(cutterId, z.record(recipeId, recipeChanges)) }),
  cutter: z.strictObject({ order: cutterId.nullable(), film: z.record(filmId, cutterId) }),
});

// the schema and core's plain type must stay one and the same
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : never) : never;
const CHOICES_MATCH_CORE: Same<Mutable<z.infer<typeof choicesSchema>>, Mutable<Choices>> = true;
void CHOICES_MATCH_CORE;
type Mutable<T> = T extends readonly [infer A, infer B]
  ? [A, B]
  : T extends (infer I)[] | readonly (infer I)[]
    ? Mutable<I>[]
    : T extends object
      ? { -readonly [K in keyof T]: Mutable<T[K]> }
      : T;

/** Choices with what is not said in them as it is to begin with; what is no choice stays, to be refused. */
export function withDefaults<T extends object>(given: T): T {
  const stored = withBorderKind(carriedOver(given));
  const sections = Object.entries(DEFAULT_CHOICES).map(([name, usual]) => {
    const own = (stored as Record<string, unknown>)[name];
    const mixes = typeof usual === 'object' && typeof own === 'object' && own !== null;
    return [name, mixes ? { ...usual, ...own } : own === undefined ? usual : own] as const;
  });
  return { ...stored, ...Object.fromEntries(sections) };
}

/** Choices from when an order had one cutter: what it changed in recipes was meant for that one. */
function carriedOver<T extends object>(stored: T): T {
  const { cutter, cut } = stored as { cutter?: unknown; cut?: { recipes?: unknown } };
  if (typeof cutter !== 'string' && cutter !== null) return stored;
  const recipes = cut?.recipes as object | undefined;
  const own = recipes && Object.keys(recipes).length > 0 ? { [cutter ?? '*']: recipes } : {};
  return { ...stored, cutter: { order: cutter, film: {} }, cut: { recipes: own } };
}

/** Choices from when a weed border was a box around each copy, or none. */
function withBorderKind<T extends object>(stored: T): T {
  const { layout } = stored as { layout?: { border?: unknown } };
  if (typeof layout?.border !== 'boolean') return stored;
  return { ...stored, layout: { ...layout, border: layout.border ? 'copy' : 'none' } };
}

/** Choices as earlier versions stored them: an order was one file, and less could be chosen. */
export function upgradeChoices(stored: Choices, file: { hash: string; name: string }): Choices {
  if (stored.artwork.pieces) return withDefaults(stored);
  const pieces = [pieceOfFile(file.hash, file.name)];
  return withDefaults({
    ...stored,
    artwork: { ...stored.artwork, pieces, lines: NO_LINE_RULES, fixes: [], ignored: [] },
  });
}
