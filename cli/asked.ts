/** Choices, and how files are read, as the command line asks for them. */
import { readFile } from 'node:fs/promises';
import { choicesSchema, withDefaults } from '../contracts/choices';
import { sharingSchema } from '../contracts/cuts';
import type { Piece } from '../core/artwork/choices';
import { DEFAULT_TRACE } from '../core/artwork/choices';
import { prepare } from '../core/artwork/prepare';
import { placeOn } from '../core/geometry/nesting';
import type { LayoutChoices } from '../core/layout/strip';
import { PACKS } from '../core/layout/strip';
import { BORDERS, LEAST_STEP, MOST_STEP } from '../core/layout/weedChoices';
import type { PanelChoices, PanelWay } from '../core/panels/choices';
import type { Choices } from '../core/plan/choices';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import type { Sharing } from '../core/plan/sharing';
import { NO_SHARING } from '../core/plan/sharing';
import type { PrintChoices } from '../core/print/choices';
import { ISO_SHEETS, USUAL_CUT_LINE } from '../core/print/choices';
import type { Artwork, DrawingUnit } from '../core/readers/artwork';
import { MARK_KINDS } from '../core/registration/readMarks';
import type { TraceChoices } from '../core/tracing/choices';
import { parseLength } from '../core/units/length';
import { own } from '../core/units/own';
import type { Reading } from '../server/files/readFile';
import { firstReading } from '../server/files/readFile';
import type { Values } from './options';
import { lengthOption, oneOf, roomOption, signedOption, UsageProblem } from './options';
/** How the file is read: as it comes, but for what was asked. */
export async function readingFrom(
  { trace, page, units, print }: Values,
  bytes: Uint8Array,
): Promise<Reading> {
  const first = await firstReading(bytes);
  if (page !== undefined && !(Number.isInteger(Number(page)) && Number(page) > 0)) {
    throw new UsageProblem('--page takes the number of a page, from 1.');
  }
  if (units !== undefined && !UNITS.includes(units as DrawingUnit)) {
    throw new UsageProblem(`--units takes one of ${UNITS.join(', ')}.`);
  }
  return {
    ...first,
    page: page === undefined ? null : Number(page),
    units: (units as DrawingUnit | undefined) ?? null,
    trace:
      trace === undefined
        ? first.trace && { ...first.trace, ...(print && AS_IT_IS) }
        : traceFrom(trace, first.trace),
  };
}

const UNITS: readonly DrawingUnit[] = ['mm', 'cm', 'm', 'in', 'ft', 'pt'];

/** A picture that goes to print is not traced. */
const AS_IT_IS = { by: 'print' } as const;

/** `brightness`, `alpha`, `print`, a limit such as `0.4`, or a number of colours from 2 to 12. */
function traceFrom(text: string, first: TraceChoices | null): TraceChoices {
  const base = first ?? DEFAULT_TRACE;
  if (text === 'brightness' || text === 'alpha' || text === 'print') return { ...base, by: text };
  const value = Number(text);
  if (Number.isInteger(value) && value >= 2 && value <= 12) return { ...base, by: 'colours', colours: value };
  if (value > 0 && value < 1)
    return { ...base, by: base.by === 'alpha' ? 'alpha' : 'brightness', threshold: value };
  throw new UsageProblem(
    '--trace takes brightness, alpha, print, a limit between 0 and 1, or 2 to 12 colours.',
  );
}

/** Choices as an order stores them, from a file. */
export async function storedChoices(path: string | undefined): Promise<Choices> {
  if (path === undefined) return DEFAULT_CHOICES;
  const text = await readFile(path, 'utf8').catch(() => {
    throw new UsageProblem(`There is no file ${path} that can be read.`);
  });
  const parsed = choicesSchema.safeParse(completed(fromJson(text, path)));
  if (parsed.success) return parsed.data;
  const [{ path: where, message }] = parsed.error.issues;
  throw new UsageProblem(`--choices: ${where.join('.') || path}: ${message}`);
}

const completed = (given: unknown): unknown =>
  typeof given === 'object' && given !== null ? withDefaults(given) : given;

function fromJson(text: string, path: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new UsageProblem(`${path} is no JSON.`);
  }
}

/** What an order shares with others, as the server tells it (`GET /api/orders/{id}/sharing`), from a file. */
export async function sharingFrom(path: string | undefined): Promise<Sharing> {
  if (path === undefined) return NO_SHARING;
  const text = await readFile(path, 'utf8').catch(() => {
    throw new UsageProblem(`There is no file ${path} that can be read.`);
  });
  const parsed = sharingSchema.safeParse(fromJson(text, path));
  if (parsed.success) return parsed.data as Sharing;
  const [{ path: where, message }] = parsed.error.issues;
  throw new UsageProblem(`--sharing: ${where.join('.') || path}: ${message}`);
}

/** @param pieces what is planned */
export function choicesFrom(values: Values, stored: Choices, pieces: readonly Piece[]): Choices {
  const { artwork, layout } = stored;
  const width = lengthOption('width', values.width) ?? artwork.width;
  const height = lengthOption('height', values.height) ?? artwork.height;
  const copies = values.copies === undefined ? layout.copies : Number(values.copies);
  if (!Number.isInteger(copies) || copies < 1 || copies > 1000) {
    throw new UsageProblem('--copies takes a whole number from 1 to 1000.');
  }
  // a side that is typed counts alone; the choices' own sides count together
  const typed = values.width !== undefined || values.height !== undefined;
  const size = typed
    ? {
        width: values.width === undefined ? null : width,
        height: values.height === undefined ? null : height,
        lockAspect: values.width === undefined || values.height === undefined,
      }
    : {};
  return {
    ...stored,
    panels: panelsFrom(values, stored.panels),
    artwork: { ...artwork, ...size, pieces },
    layout: {
      ...weedingFrom(values, packingFrom(values, layout)),
      copies,
      mirror: values.mirror ? 'mirrored' : layout.mirror,
    },
  };
}

/** How art is taken apart to take less film; for what is laid as one, the spacing is that between copies. */
function packingFrom({ pack, spacing, turns }: Values, stored: LayoutChoices): LayoutChoices {
  const kept = {
    ...stored,
    pack: oneOf('pack', pack, PACKS) ?? stored.pack,
    turns: oneOf('turns', turns, TURNS) ?? stored.turns,
  };
  const apart = roomOption('spacing', spacing);
  if (apart === undefined) return kept;
  return kept.pack === 'one' ? { ...kept, spacing: apart } : { ...kept, between: apart };
}

/** How the waste is taken apart: a border, and lines at a step across the film. */
function weedingFrom(values: Values, stored: LayoutChoices): LayoutChoices {
  const step = lengthOption('weed-lines', values['weed-lines']);
  const border = oneOf('border', values.border, BORDERS) ?? stored.border;
  if (step === undefined) return { ...stored, border };
  if (step < LEAST_STEP || step > MOST_STEP)
    throw new UsageProblem(`--weed-lines takes ${LEAST_STEP} mm to ${MOST_STEP} mm.`);
  return { ...stored, border, weedLines: { ...stored.weedLines, way: 'step', step } };
}

const TURNS = ['none', 'quarter', 'free'] as const;

/** Shapes by the ids that the file gives them or their layer, each as a place on it at its final size. @throws UsageProblem for an unknown id */
export function keepingWhole(
  ids: string | undefined,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
): Choices {
  if (ids === undefined) return choices;
  const { shapes } = prepare(artworks, choices.artwork);
  const [artwork] = artworks.values();
  const whole = ids.split(',').flatMap((wanted) => {
    const id = wanted.trim();
    const named = new Set(
      artwork.shapes.flatMap((shape, at) => (shape.id === id || shape.layer === id ? [at] : [])),
    );
    const own = shapes.filter(({ ref }) => named.has(Number(ref.split('/')[1])));
    if (own.length === 0) throw new UsageProblem(`--keep-whole: the file has nothing with the id ${id}.`);
    return own.map(({ region }) => placeOn(region));
  });
  return { ...choices, panels: { ...choices.panels, whole: [...choices.panels.whole, ...whole] } };
}

/** `straight` and `when-needed` are one: the least cut, where a film does not fit. */
function panelsFrom({ panels, overlap, reserve }: Values, stored: PanelChoices): PanelChoices {
  const kept = {
    ...stored,
    overlap: roomOption('overlap', overlap) ?? stored.overlap,
    reserve: roomOption('reserve', reserve) ?? stored.reserve,
  };
  if (panels === undefined) return kept;
  const grid = /^(\d{1,3})x(\d{1,3})$/.exec(panels);
  if (grid && Number(grid[1]) > 0 && Number(grid[2]) > 0)
    return { ...kept, way: 'grid', columns: Number(grid[1]), rows: Number(grid[2]) };
  const way = WAYS[panels];
  if (!way)
    throw new UsageProblem(
      '--panels takes when-needed, straight, wandering, pieces, equal, media, never, or columns x rows as 3x2.',
    );
  return { ...kept, way };
}

const WAYS: Readonly<Record<string, PanelWay | undefined>> = {
  'when-needed': 'when-needed',
  straight: 'when-needed',
  wandering: 'wandering',
  pieces: 'pieces',
  equal: 'equal',
  media: 'media',
  never: 'never',
};

/** What is printed, as it is stored, with what was asked; all colours go to print then. */
export function printFrom(values: Values, print: PrintChoices): PrintChoices {
  const offset = signedOption('contour', values.contour);
  const kind = oneOf('marks', values.marks, MARK_KINDS);
  const sheet = values.sheet === undefined && print.sheet ? print.sheet : sheetOption(values.sheet ?? 'A3');
  return {
    ...print,
    lines: offset === undefined ? print.lines : [{ ...USUAL_CUT_LINE, offset }],
    bleed: roomOption('bleed', values.bleed) ?? print.bleed,
    sheet,
    spacing: roomOption('spacing', values.spacing) ?? print.spacing,
    marks: kind === undefined ? print.marks : { ...print.marks, kind },
  };
}

const [LEAST_SHEET, MOST_SHEET] = [80, 5000];

/** A sheet by its name, its longer side along the way it is fed, or by its size. */
function sheetOption(text: string): { readonly width: number; readonly height: number } {
  const iso = own(ISO_SHEETS, text.toUpperCase());
  if (iso) return { width: iso[1], height: iso[0] };
  const sides = text.split('x').map((side) => parseLength(side, 'mm'));
  const [width, height] = sides.map((side) => (side.ok ? side.mm : 0));
  const isGood = (mm: number): boolean => mm >= LEAST_SHEET && mm <= MOST_SHEET;
  if (sides.length === 2 && isGood(width) && isGood(height)) return { width, height };
  throw new UsageProblem(
    `--sheet takes ${Object.keys(ISO_SHEETS).join(', ')}, or a size such as 420x297, ${LEAST_SHEET} to ${MOST_SHEET} mm.`,
  );
}
