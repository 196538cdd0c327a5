/** The whole plan without a screen. */
import { rounded } from '../core/units/rounded';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { createHash } from 'node:crypto';
import { parseArgs } from 'node:util';
import type { Artwork, DrawingUnit } from '../core/readers/artwork';
import type { TraceChoices } from '../core/tracing/choices';
import type { FileSource, Piece } from '../core/artwork/choices';
import { DEFAULT_TRACE, pieceOfFile, sourceKey } from '../core/artwork/choices';
import { prepare } from '../core/artwork/prepare';
import { placeOn } from '../core/geometry/nesting';
import { choicesSchema, withDefaults } from '../contracts/choices';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import type { PanelChoices, PanelWay } from '../core/panels/choices';
import type { Choices } from '../core/plan/choices';
import type { Plan } from '../core/plan/planned';
import type { LayoutChoices } from '../core/layout/strip';
import { PACKS } from '../core/layout/strip';
import { BORDERS, LEAST_STEP, MOST_STEP } from '../core/layout/weedChoices';
import type { Planner } from '../core/plan/plan';
import { createPlanner, planAndCheck } from '../core/plan/plan';
import type { Shop } from '../core/plan/shop';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import { stripSvg } from '../core/plan/stripSvg';
import { parseLength } from '../core/units/length';
import { DEMO_SHOP } from '../demo/shop';
import { FileProblem } from '../server/files/fileProblem';
import type { Reading } from '../server/files/readFile';
import { firstReading, readFile as readArtwork } from '../server/files/readFile';
import { own } from '../core/units/own';
import { ISO_SHEETS, MARK_KINDS, USUAL_CUT_LINE, USUAL_EDGE, USUAL_MARKS } from '../core/print/choices';
import type { PrintAsked } from './printSheets';
import { writeSheets } from './printSheets';
import { summarise } from './summary';

class UsageProblem extends Error {}

const USAGE =
  'Usage: npm run plan -- art.svg [--choices order.json] [--width 600] [--height 300] [--roll 610] [--mirror] [--copies 2] [--out DIR]\n' +
  '       [--panels when-needed|straight|wandering|pieces|equal|media|3x2|never] [--overlap 12] [--reserve 12.7]\n' +
  '       [--keep-whole id,id] for what is larger than the cutter\n' +
  '       [--pack one|word|piece] [--spacing 3] [--turns none|quarter|free] [--rounds 300] [--seed 1] to take less film\n' +
  '       [--weed-lines 120] [--border box|copy|follow|none] to take the waste apart\n' +
  '       [--print --sheet A3|420x297 --contour 2 (--contour=-1 inside) --bleed 2 --marks in|out|dots --copies 12 --spacing 4] to print and cut around\n' +
  '       [--cut-lines] cut lines in the PDF too, as spot colours\n' +
  '       [--page 2] for PDF, [--units mm|cm|m|in|ft|pt] for DXF, [--trace brightness|alpha|0.4|5] for pictures\n' +
  'Ends with 0 when there is something to cut, 1 when there is only what keeps it back, 2 when the file or the question cannot be read.';

const OPTIONS = {
  width: { type: 'string' },
  height: { type: 'string' },
  roll: { type: 'string' },
  mirror: { type: 'boolean' },
  copies: { type: 'string' },
  panels: { type: 'string' },
  overlap: { type: 'string' },
  reserve: { type: 'string' },
  'keep-whole': { type: 'string' },
  pack: { type: 'string' },
  spacing: { type: 'string' },
  turns: { type: 'string' },
  rounds: { type: 'string' },
  seed: { type: 'string' },
  'weed-lines': { type: 'string' },
  border: { type: 'string' },
  print: { type: 'boolean' },
  sheet: { type: 'string' },
  contour: { type: 'string' },
  bleed: { type: 'string' },
  marks: { type: 'string' },
  'cut-lines': { type: 'boolean' },
  choices: { type: 'string' },
  trace: { type: 'string' },
  page: { type: 'string' },
  units: { type: 'string' },
  out: { type: 'string' },
} as const;

/** Where sentences go. */
export interface Says {
  readonly log: (text: string) => void;
  readonly error: (text: string) => void;
}

/**
 * Plans a file as its arguments ask.
 * @returns 0 when it cut something, 1 when the plan has nothing but stops, 2 with a sentence for what cannot be read or asked
 */
export async function run(args: string[], says: Says): Promise<0 | 1 | 2> {
  try {
    return await plan(args, says);
  } catch (error) {
    if (!(error instanceof FileProblem) && !(error instanceof UsageProblem)) throw error;
    says.error(error.message);
    return 2;
  }
}

async function plan(args: string[], says: Says): Promise<0 | 1> {
  const { values, positionals } = parse(args);
  if (positionals.length !== 1) throw new UsageProblem(USAGE);
  const [file] = positionals;
  const bytes = await readFile(file).catch(() => {
    throw new UsageProblem(`There is no file ${file} that can be read.`);
  });
  const started = performance.now();
  const name = basename(file);
  const piece = pieceOfFile(hashOf(bytes), name, await readingFrom(values, bytes));
  const artwork = await readArtwork(bytes, piece.source as FileSource);
  const roll = lengthOption('roll', values.roll);
  const shop =
    roll === undefined
      ? DEMO_SHOP
      : {
          ...DEMO_SHOP,
          films: DEMO_SHOP.films.map((f) => ({ ...f, rolls: [{ width: roll, lengthLeft: ENDLESS }] })),
        };
  const artworks = new Map([[sourceKey(piece.source), artwork]]);
  const asked = keepingWhole(values['keep-whole'], artworks, await choicesFrom(values, piece));
  const out = values.out ?? '.';
  if (values.print) return printed(values, out, name, artworks, asked, shop, says);
  const planner = createPlanner();
  const choices = packedCloser(planner, artworks, asked, shop, values);
  const made = planAndCheck(planner, artworks, choices, shop);
  const seconds = (performance.now() - started) / 1000;
  await writeAll(out, made, {
    ...summarise(made),
    file: name,
    planSeconds: rounded(seconds),
  });
  for (const finding of made.findings) says.error(`${finding.severity}: ${finding.message}`);
  says.log(
    `${made.cuts.length} ${made.cuts.length === 1 ? 'film' : 'films'} written to ${out} in ${seconds.toFixed(2)} s`,
  );
  return made.cuts.length === 0 ? 1 : 0;
}

/** Sheets instead of films. */
async function printed(
  values: Values,
  out: string,
  file: string,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
  says: Says,
): Promise<0 | 1> {
  const asked = printFrom(values, choices.layout.copies);
  const name = file.replace(/\.[^.]*$/, '').slice(0, 40);
  const { summary, findings, sheets } = await writeSheets(out, name, artworks, choices, shop, asked);
  await mkdir(out, { recursive: true });
  await writeFile(join(out, 'plan.json'), `${JSON.stringify({ file, ...summary, findings }, null, 2)}\n`);
  for (const finding of findings) says.error(`${finding.severity}: ${finding.message}`);
  says.log(`${sheets} ${sheets === 1 ? 'sheet' : 'sheets'} written to ${out}`);
  return sheets === 0 || findings.some(({ severity }) => severity === 'stop') ? 1 : 0;
}

function printFrom(values: Values, copies: number): PrintAsked {
  const offset = signedOption('contour', values.contour) ?? USUAL_CUT_LINE.offset;
  const kind = oneOf('marks', values.marks, MARK_KINDS) ?? USUAL_MARKS.kind;
  const [width, height] = sheetOption(values.sheet ?? 'A3');
  return {
    cutLine: { ...USUAL_CUT_LINE, offset },
    bleed: roomOption('bleed', values.bleed) ?? 0,
    withLines: values['cut-lines'] === true,
    stock: { width, height, edge: USUAL_EDGE },
    copies,
    spacing: roomOption('spacing', values.spacing) ?? USUAL_SPACING,
    marks: { ...USUAL_MARKS, kind },
  };
}

/** mm between printed copies, unless otherwise said */
const USUAL_SPACING = 4;
const [LEAST_SHEET, MOST_SHEET] = [80, 5000];

/** A sheet by its name, its longer side along the way it is fed, or by its size. */
function sheetOption(text: string): readonly [number, number] {
  const iso = own(ISO_SHEETS, text.toUpperCase());
  if (iso) return [iso[1], iso[0]];
  const sides = text.split('x').map((side) => parseLength(side, 'mm'));
  const [width, height] = sides.map((side) => (side.ok ? side.mm : 0));
  const isGood = (mm: number): boolean => mm >= LEAST_SHEET && mm <= MOST_SHEET;
  if (sides.length === 2 && isGood(width) && isGood(height)) return [width, height];
  throw new UsageProblem(
    `--sheet takes ${Object.keys(ISO_SHEETS).join(', ')}, or a size such as 420x297, ${LEAST_SHEET} to ${MOST_SHEET} mm.`,
  );
}

/** A length that may lie inside too. */
function signedOption(name: string, text: string | undefined): number | undefined {
  const inside = text?.trim().startsWith('-');
  const mm = roomOption(name, inside ? text!.trim().slice(1) : text);
  return mm === undefined || !inside ? mm : -mm;
}

function parse(args: string[]) {
  try {
    return parseArgs({ args, options: OPTIONS, allowPositionals: true });
  } catch (error) {
    throw new UsageProblem(`${(error as Error).message}\n${USAGE}`);
  }
}

type Values = ReturnType<typeof parse>['values'];

/** mm: a roll asked for by its width alone never runs out. */
const ENDLESS = 1e7;

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** How the file is read: as it comes, but for what was asked. */
async function readingFrom({ trace, page, units }: Values, bytes: Uint8Array): Promise<Reading> {
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
    trace: trace === undefined ? first.trace : traceFrom(trace, first.trace),
  };
}

const UNITS: readonly DrawingUnit[] = ['mm', 'cm', 'm', 'in', 'ft', 'pt'];

/** `brightness`, `alpha`, a limit such as `0.4`, or a number of colours from 2 to 12. */
function traceFrom(text: string, first: TraceChoices | null): TraceChoices {
  const base = first ?? DEFAULT_TRACE;
  if (text === 'brightness' || text === 'alpha') return { ...base, by: text };
  const value = Number(text);
  if (Number.isInteger(value) && value >= 2 && value <= 12) return { ...base, by: 'colours', colours: value };
  if (value > 0 && value < 1)
    return { ...base, by: base.by === 'alpha' ? 'alpha' : 'brightness', threshold: value };
  throw new UsageProblem('--trace takes brightness, alpha, a limit between 0 and 1, or 2 to 12 colours.');
}

/** Choices as an order stores them, from a file; the art is the one given, whatever pieces they name. */
async function storedChoices(path: string | undefined): Promise<Choices> {
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
    throw new UsageProblem(`--choices: ${path} is no JSON.`);
  }
}

async function choicesFrom(values: Values, piece: Piece): Promise<Choices> {
  const stored = await storedChoices(values.choices);
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
    artwork: { ...artwork, ...size, pieces: [piece] },
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

function oneOf<T extends string>(
  name: string,
  text: string | undefined,
  values: readonly T[],
): T | undefined {
  if (text === undefined) return undefined;
  const found = values.find((value) => value === text);
  if (found === undefined) throw new UsageProblem(`--${name} takes one of ${values.join(', ')}.`);
  return found;
}

/** Rounds of the search for less film, where pieces are packed and nobody says otherwise. */
const ROUNDS = 300;

function packedCloser(
  planner: Planner,
  artworks: ReadonlyMap<string, Artwork>,
  choices: Choices,
  shop: Shop,
  values: Values,
): Choices {
  const how = { rounds: count('rounds', values.rounds, ROUNDS), seed: count('seed', values.seed, 1) };
  const packed = { ...choices.layout.packed };
  for (const step of planner.pack(artworks, choices, shop, how)) packed[step.film] = step.packed;
  return { ...choices, layout: { ...choices.layout, packed } };
}

function count(name: string, text: string | undefined, usual: number): number {
  const value = text === undefined ? usual : Number(text);
  if (!Number.isInteger(value) || value < 0 || value > 1e6)
    throw new UsageProblem(`--${name} takes a whole number from 0 to 1000000.`);
  return value;
}

/** Shapes by the ids that the file gives them or their layer, each as a place on it at its final size. @throws UsageProblem for an unknown id */
function keepingWhole(
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

/** A length that may be nought. */
function roomOption(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const parsed = parseLength(text, 'mm');
  if (!parsed.ok) throw new UsageProblem(`--${name}: ${parsed.message}`);
  if (parsed.mm < 0) throw new UsageProblem(`--${name} cannot be less than nought.`);
  return parsed.mm;
}

function lengthOption(name: string, text: string | undefined): number | undefined {
  if (text === undefined) return undefined;
  const parsed = parseLength(text, 'mm');
  if (!parsed.ok) throw new UsageProblem(`--${name}: ${parsed.message}`);
  if (parsed.mm <= 0) throw new UsageProblem(`--${name} has to be more than nought.`);
  return parsed.mm;
}

async function writeAll(out: string, plan: Plan, summary: object): Promise<void> {
  await mkdir(out, { recursive: true });
  await writeFile(join(out, 'plan.json'), `${JSON.stringify(summary, null, 2)}\n`);
  for (const { strip, cutter, program } of plan.cuts) {
    const chunks = writeHpgl(program, cutter.device, strip.cuttable);
    await writeFile(join(out, `${strip.id}.plt`), hpglBytes(chunks));
    await writeFile(join(out, `${strip.id}.svg`), stripSvg(strip));
  }
}
