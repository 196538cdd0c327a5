/** `npm run plan -- art.svg …`: the whole plan without a screen. Exit status 0 when it cut something, 1 when the plan
 * has nothing but stops, 2 with a sentence for what cannot be read or asked. */
import { rounded } from '../core/units/rounded';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { createHash } from 'node:crypto';
import { parseArgs } from 'node:util';
import type { DrawingUnit } from '../core/readers/artwork';
import type { TraceChoices } from '../core/tracing/choices';
import type { FileSource, Piece } from '../core/artwork/choices';
import { DEFAULT_TRACE, pieceOfFile, sourceKey } from '../core/artwork/choices';
import { choicesSchema, withDefaults } from '../contracts/choices';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import type { PanelChoices, PanelWay } from '../core/panels/choices';
import type { Choices } from '../core/plan/choices';
import type { Plan } from '../core/plan/planned';
import { createPlanner, planAndCheck } from '../core/plan/plan';
import { DEFAULT_CHOICES } from '../core/plan/choices';
import { stripSvg } from '../core/plan/stripSvg';
import { parseLength } from '../core/units/length';
import { DEMO_SHOP } from '../demo/shop';
import { FileProblem } from '../server/files/fileProblem';
import type { Reading } from '../server/files/readFile';
import { firstReading, readFile as readArtwork } from '../server/files/readFile';
import { summarise } from './summary';

class UsageProblem extends Error {}

const USAGE =
  'Usage: npm run plan -- art.svg [--choices order.json] [--width 600] [--height 300] [--roll 610] [--mirror] [--copies 2] [--out DIR]\n' +
  '       [--panels when-needed|equal|media|straight|3x2|never] [--overlap 12] [--reserve 12.7] for what is larger than the cutter\n' +
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
  choices: { type: 'string' },
  trace: { type: 'string' },
  page: { type: 'string' },
  units: { type: 'string' },
  out: { type: 'string' },
} as const;

async function main(args: string[]): Promise<void> {
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
  const plan = planAndCheck(
    createPlanner(),
    new Map([[sourceKey(piece.source), artwork]]),
    await choicesFrom(values, piece),
    shop,
  );
  const seconds = (performance.now() - started) / 1000;
  const out = values.out ?? '.';
  await writeAll(out, plan, {
    ...summarise(plan),
    file: name,
    planSeconds: rounded(seconds),
  });
  for (const finding of plan.findings) console.error(`${finding.severity}: ${finding.message}`);
  console.log(
    `${plan.cuts.length} ${plan.cuts.length === 1 ? 'film' : 'films'} written to ${out} in ${seconds.toFixed(2)} s`,
  );
  if (plan.cuts.length === 0) process.exitCode = 1;
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
    layout: { ...layout, copies, mirror: values.mirror ? 'mirrored' : layout.mirror },
  };
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
      '--panels takes when-needed, straight, equal, media, never, or columns x rows as 3x2.',
    );
  return { ...kept, way };
}

const WAYS: Readonly<Record<string, PanelWay | undefined>> = {
  'when-needed': 'when-needed',
  straight: 'when-needed',
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

main(process.argv.slice(2)).catch((error: unknown) => {
  if (!(error instanceof FileProblem) && !(error instanceof UsageProblem)) throw error;
  console.error(error.message);
  process.exit(2);
});
