/** The whole plan without a screen. */
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
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
import { own } from '../core/units/own';
import { choicesFrom, keepingWhole, printFrom, sharingFrom, storedChoices } from './asked';
import type { Values } from './options';
import { count, lengthOption, parse, USAGE, UsageProblem } from './options';
import { artworksOf, givenFiles, piecesOf } from './pieces';
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
  if (positionals.length === 0 && values.choices === undefined) throw new UsageProblem(USAGE);
  const files = await givenFiles(positionals);
  const started = performance.now();
  const stored = await storedChoices(values.choices);
  const pieces = await piecesOf(stored.artwork.pieces, files, values);
  const sharing = await sharingFrom(values.sharing);
  const guests = sharing.guests.flatMap((guest) => guest.choices.artwork.pieces);
  const artworks = await artworksOf([...pieces, ...guests], files);
  const shop = { ...shopWith(lengthOption('roll', values.roll)), sharing };
  const asked = keepingWhole(values['keep-whole'], artworks, choicesFrom(values, stored, pieces));
  const out = values.out ?? '.';
  const planner = createPlanner();
  const choices = values.print
    ? toPrint(planner, artworks, { ...asked, print: printFrom(values, asked.print) }, shop)
    : packedCloser(planner, artworks, asked, shop, values);
  const order =
    values['order-number'] === undefined ? undefined : count('order-number', values['order-number'], 0);
  const made = planAndCheck(planner, artworks, choices, shop, { order });
  const seconds = (performance.now() - started) / 1000;
  await writeAll(out, made, {
    ...summarise(made),
    ...sheetsSummary(made),
    file: pieces[0].name,
    planSeconds: rounded(seconds),
  });
  for (const finding of made.findings) says.error(`${finding.severity}: ${finding.message}`);
  const sheets = await writeSheets(
    out,
    { name: pieces[0].name, files },
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

const shopWith = (roll: number | undefined): Shop =>
  roll === undefined
    ? DEMO_SHOP
    : {
        ...DEMO_SHOP,
        films: DEMO_SHOP.films.map((f) => ({ ...f, rolls: [{ width: roll, lengthLeft: ENDLESS }] })),
      };

/** mm: a roll asked for by its width alone never runs out. */
const ENDLESS = 1e7;

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
  const isAsked = values.rounds !== undefined || values.seed !== undefined;
  const packed = { ...choices.layout.packed };
  // what an order has stored is what it shows and cuts
  const stays = (film: string): boolean => !isAsked && own(choices.layout.packed, film) !== undefined;
  for (const step of planner.pack(artworks, choices, shop, { ...how, stays }))
    packed[step.film] = step.packed;
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
