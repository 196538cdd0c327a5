/** The whole plan without a screen. */
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { basename, join } from 'node:path';
import { createHash } from 'node:crypto';
import type { FileSource } from '../core/artwork/choices';
import { pieceOfFile, sourceKey } from '../core/artwork/choices';
import { hpglBytes, writeHpgl } from '../core/devicelang/writeHpgl';
import type { Choices } from '../core/plan/choices';
import type { Planner } from '../core/plan/plan';
import { createPlanner, planAndCheck } from '../core/plan/plan';
import type { Plan } from '../core/plan/planned';
import type { Shop } from '../core/plan/shop';
import { stripSvg } from '../core/plan/stripSvg';
import type { Artwork } from '../core/readers/artwork';
import { rounded } from '../core/units/rounded';
import { DEMO_SHOP } from '../demo/shop';
import { FileProblem } from '../server/files/fileProblem';
import { readFile as readArtwork } from '../server/files/readFile';
import { choicesFrom, keepingWhole, printFrom, readingFrom } from './asked';
import type { Values } from './options';
import { count, lengthOption, parse, USAGE, UsageProblem } from './options';
import { sheetsSummary, toPrint, writeSheets } from './printSheets';
import { summarise } from './summary';

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
  const hash = hashOf(bytes);
  const piece = pieceOfFile(hash, name, await readingFrom(values, bytes));
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
  const planner = createPlanner();
  const choices = values.print
    ? toPrint(planner, artworks, { ...asked, print: printFrom(values, asked.print) }, shop)
    : packedCloser(planner, artworks, asked, shop, values);
  const made = planAndCheck(planner, artworks, choices, shop);
  const seconds = (performance.now() - started) / 1000;
  await writeAll(out, made, {
    ...summarise(made),
    ...sheetsSummary(made),
    file: name,
    planSeconds: rounded(seconds),
  });
  for (const finding of made.findings) says.error(`${finding.severity}: ${finding.message}`);
  const sheets = await writeSheets(
    out,
    { name, hash, bytes },
    made,
    choices.print,
    values['cut-lines'] === true,
  );
  const wrote = [
    ...(made.cuts.length > 0 || sheets === 0 ? [many(made.cuts.length, 'film')] : []),
    ...(sheets > 0 ? [many(sheets, 'sheet')] : []),
  ];
  says.log(`${wrote.join(' and ')} written to ${out} in ${seconds.toFixed(2)} s`);
  const isKept = values.print && made.findings.some(({ severity }) => severity === 'stop');
  return isKept || made.cuts.length + sheets === 0 ? 1 : 0;
}

const many = (n: number, one: string): string => `${n} ${n === 1 ? one : `${one}s`}`;

/** mm: a roll asked for by its width alone never runs out. */
const ENDLESS = 1e7;

const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

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

const writeSummary = (out: string, summary: object): Promise<void> =>
  writeFile(join(out, 'plan.json'), `${JSON.stringify(summary, null, 2)}\n`);

async function writeAll(out: string, plan: Plan, summary: object): Promise<void> {
  await mkdir(out, { recursive: true });
  await writeSummary(out, summary);
  for (const { strip, cutter, program } of plan.cuts) {
    const chunks = writeHpgl(program, cutter.device, strip.cuttable);
    await writeFile(join(out, `${strip.id}.plt`), hpglBytes(chunks));
    await writeFile(join(out, `${strip.id}.svg`), stripSvg(strip));
  }
}
