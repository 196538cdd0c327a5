/**
 * From the PDF to the cut: sheets are printed by a renderer that is none of ours, laid turned, stretched and bowed into
 * simulated cutters, read by their sensors, and cut; where the tip went is set against what is printed there.
 */
import { beforeAll, describe, expect, test } from '@jest/globals';
import { writeHpgl } from '../../core/devicelang/writeHpgl';
import { lookAlong, readSeen } from '../../core/devicelang/answers';
import { toUnits } from '../../core/devicelang/axes';
import { nearestOn } from '../../core/geometry/nearestOnLine.testing';
import { append, largest } from '../../core/geometry/lists';
import { weld } from '../../core/geometry/region';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter } from '../../core/layout/cutter';
import { stepsOf } from '../../core/layout/cutter';
import { machineOf } from '../../core/plan/filmsToCut';
import { ontoStrip, sheetStrip } from '../../core/plan/sheetStrip';
import { evenEdges, USUAL_CUT_LINE, USUAL_MARKS } from '../../core/print/choices';
import { cutOnSheet, layOnSheets, printUnit } from '../../core/print/sheets';
import type { PrintSheet, PrintUnit } from '../../core/print/sheets';
import { gaussian, random } from '../../core/random';
import type { SheetReading } from '../../core/registration/readMarks';
import { readMarks } from '../../core/registration/readMarks';
import type { SheetVerdict } from '../../core/registration/verdict';
import { judgeSheet } from '../../core/registration/verdict';
import { kindRecipes } from '../../core/toolpath/kinds';
import { ontoSheet } from '../../core/toolpath/ontoSheet';
import { programByKind } from '../../core/toolpath/program';
import { createMachine } from '../../cutter-sim/machine';
import { DEMO_MACHINES } from '../../cutter-sim/machines';
import type { Lie, LoadedPrint, Print } from '../../cutter-sim/print';
import { lay, STRAIGHT } from '../../cutter-sim/print';
import { printPage } from '../../cutter-sim/printer';
import { onFilm } from '../../cutter-sim/spec';
import { CURLEW, DEMO_FILMS, PLOVER, SALTPAN } from '../../demo/shop';
import { printPdf } from './printPdf';
import { times } from '../../core/sample.testing';

const FILM = DEMO_FILMS.find(({ print }) => print)!;
const RECIPE = { force: 80, speed: 30, blade: '45°', bladeOffset: 0.25, overcut: 0.6 };
const LABEL = { code: 'JP #2048 1 A', text: '#2048 · sheet 1 of 1 · this side up' };

/** A badge with a notch and a round end. */
const ART = [
  {
    colour: '#2e6f7e',
    region: weld([
      Float64Array.from([0, 0, 40, 0, 40, 12, 34, 18, 40, 24, 40, 36, ...round(20, 36, 20, 12), 0, 36]),
    ]),
  },
];
function round(cx: number, cy: number, r: number, parts: number): number[] {
  return Array.from({ length: parts - 1 }, (_, i) => (Math.PI * (i + 1)) / parts).flatMap((t) => [
    cx + r * Math.cos(t),
    cy + r * 0.4 * Math.sin(t),
  ]);
}

/** A sheet that was designed, as it was printed, for one cutter. */
interface Job {
  readonly cutter: Cutter;
  readonly id: string;
  readonly unit: PrintUnit;
  readonly sheet: PrintSheet;
  readonly print: Print;
}
async function job(
  cutter: Cutter,
  kind: 'in' | 'out' | 'dots',
  [width, height]: readonly [number, number],
  copies: number,
  between = 400,
): Promise<Job> {
  const unit = printUnit(ART, ART, [{ ...USUAL_CUT_LINE, offset: 1.5 }], 1);
  const marks = { ...USUAL_MARKS, kind, between };
  const room = { width, height, edges: evenEdges(25.4) };
  const [sheet] = layOnSheets(unit, { room, copies, spacing: 4, turn: 'as-drawn', marks }).sheets;
  const print = await printPage(await printPdf(unit, sheet, LABEL, { marks, withLines: false }));
  return { cutter, id: cutter.id, unit, sheet, print };
}

let jobs: readonly Job[];
beforeAll(async () => {
  jobs = await Promise.all([
    job(PLOVER, 'in', [420, 297], 20, 150),
    job(CURLEW, 'dots', [600, 420], 30, 200),
    job(SALTPAN, 'out', [520, 400], 24, 180),
  ]);
}, 60_000);

/** A sheet in its machine, with what it takes to read and to cut it. */
function load({ cutter, id, unit, sheet, print }: Job, lie: Lie, nearby: Spot) {
  const { spec } = DEMO_MACHINES[id];
  const loaded: LoadedPrint = lay(print, lie);
  const film = { name: 'print', width: sheet.height, length: sheet.width, toughness: 60, print: loaded };
  const answers: string[] = [];
  const machine = createMachine({ ...spec, bufferBytes: 1e9 }, (text) => answers.push(text));
  machine.load(film);
  const bed = { widest: cutter.widest, margins: cutter.margins };
  const strip = sheetStrip(unit, sheet, FILM, bed);
  const units = toUnits(cutter.device, strip.cuttable);
  const { offset, reach, noise } = cutter.sensor!;
  const run = (text: string): void => {
    machine.receive(text);
    while (machine.status().busy) machine.advance(600);
  };
  const look = (from: Spot, to: Spot, values: number): Promise<readonly number[]> => {
    const seen = ([x, y]: Spot): Spot => {
      const [ux, uy] = units(x, y);
      return [
        ux - Math.round(offset[0] / cutter.device.step),
        uy - Math.round(offset[1] / cutter.device.step),
      ];
    };
    answers.length = 0;
    run(lookAlong(seen(from), seen(to), values));
    return Promise.resolve(readSeen(answers[0], values)!);
  };
  const onStrip = ontoStrip(bed);
  const marks = sheet.marks.map((mark) => ({ ...mark, at: onStrip(mark.at) }));
  const [u, v] = loaded.onFilm(...sheet.marks[0].at);
  const first = onStrip([u + nearby[0], v + nearby[1]]);
  const sees = { minX: -20, minY: -20, maxX: sheet.width + 20, maxY: strip.cuttable + 20 };
  return {
    machine,
    spec,
    film,
    loaded,
    strip,
    marks,
    first,
    run,
    sensor: { look, reach, line: 1, sees },
    noise,
    bed,
  };
}

type Loaded = ReturnType<typeof load>;

async function read(sheet: Loaded): Promise<{ reading: SheetReading; verdict: SheetVerdict | undefined }> {
  const reading = await readMarks(sheet.marks, sheet.first, sheet.sensor);
  if (!reading.isRead) return { reading, verdict: undefined };
  const designed = sheet.marks.map(({ at }) => at);
  return {
    reading,
    verdict: judgeSheet(
      designed,
      reading.marks.map(({ at }) => at),
      sheet.noise,
    ),
  };
}

/** How far the tip went beside what is printed, mm, at every place that it was recorded. */
function cutOff(job: Job, sheet: Loaded, { fit }: SheetVerdict): number[] {
  const { cutter } = job;
  const recipes = kindRecipes({ ...RECIPE, bladeOffset: cutter === PLOVER ? 0.3 : 0.25 }, {}, 600);
  const start = ontoStrip(sheet.bed)([job.sheet.art.minX, job.sheet.art.minY - 7]);
  const program = programByKind(sheet.strip, recipes, machineOf(cutter), start);
  const onto = ontoSheet(program, fit!.map, stepsOf(cutter.device));
  const { head, lines, tail } = writeHpgl(onto, cutter.device, sheet.strip.cuttable);
  const text = (bytes: Uint8Array): string => Buffer.from(bytes).toString('latin1');
  sheet.run(text(head));
  for (const line of lines) sheet.run(text(line));
  sheet.run(text(tail));
  const outlines = cutOnSheet(job.unit, job.sheet).flatMap((kind) => kind.lines.map(({ points }) => points));
  const near = nearestOn(outlines);
  // the first stroke turns the blade, and every one ends past its start
  return sheet.machine
    .strokes()
    .slice(1)
    .flatMap(({ points }) =>
      Array.from({ length: Math.floor(points.length / 12) }, (_, i) => {
        const place = onFilm(sheet.spec, sheet.film, points[12 * i], points[12 * i + 1]);
        return near(sheet.loaded.toPage(...place));
      }),
    );
}

const lieOf = (seed: number): Lie => {
  const next = random(seed * 7919);
  const within = (most: number): number => most * (2 * next() - 1);
  return {
    ...STRAIGHT,
    turn: within(3),
    shift: [within(3), within(3)],
    stretch: [1 + within(0.005), 1 + within(0.005)],
    bow: within(1),
  };
};

/** Codes of what is found, and whether it keeps the sheet from being cut. */
const said = (verdict: SheetVerdict) => ({
  codes: verdict.findings.map(({ code }) => code),
  isRefused: verdict.findings.some(({ severity }) => severity === 'stop'),
});

/** How far places of the design lie off where they are printed, were the head sent to where the fit says; mm. */
function mappedOff(
  { sheet: { art } }: Job,
  { loaded, bed, spec, film, strip }: Loaded,
  { fit }: SheetVerdict,
): number[] {
  const { cutter } = jobs.find(({ id }) => DEMO_MACHINES[id].spec === spec)!;
  const units = toUnits(cutter.device, strip.cuttable);
  const { step } = cutter.device;
  return Array.from({ length: 81 }, (_, i) => {
    const [u, v] = [art.minX + ((i % 9) / 8) * (art.maxX - art.minX), art.minY + (Math.floor(i / 9) / 8) * (art.maxY - art.minY)]; // prettier-ignore
    const [x, y] = units(...fit!.map(ontoStrip(bed)([u, v])));
    const [pu, pv] = loaded.toPage(...onFilm(spec, film, x * step, y * step));
    return Math.hypot(pu - u, pv - v);
  });
}

describe('print and cut, end to end', () => {
  test('sheets, turned, stretched and bowed, lie where their marks say; every fifth is cut: the tip goes within a tenth of a millimetre of its print', async () => {
    const all: number[] = [];
    const cut: number[] = [];
    for (let seed = 1; seed <= times(200, 30); seed++) {
      const own = jobs[seed % jobs.length];
      const off = gaussian(seed, 1.5);
      const sheet = load(own, lieOf(seed), [off(), off()]);
      const { reading, verdict } = await read(sheet);
      expect(reading).toMatchObject({ isRead: true });
      expect(said(verdict!).isRefused).toBe(false);
      append(all, mappedOff(own, sheet, verdict!));
      if (seed % 5 === 0) append(cut, cutOff(own, sheet, verdict!));
    }
    const median = (list: number[]): number => list.toSorted((a, b) => a - b)[list.length >> 1];
    expect(largest(all)).toBeLessThan(0.1);
    expect(median(all)).toBeLessThan(0.04);
    expect(largest(cut)).toBeLessThan(0.1);
    expect(median(cut)).toBeLessThan(0.04);
  }, 300_000);

  test('spoilt sheets: each is refused or mended with the right words, and none is cut wrong', async () => {
    for (let seed = 1; seed <= times(50, 10); seed++) {
      const own = jobs[seed % jobs.length];
      const lie = lieOf(seed);
      const way = seed % 5;
      const covered = Math.floor(random(seed)() * own.sheet.marks.length);
      const spoilt: Lie = [
        { ...lie, turn: lie.turn + 180 },
        { ...lie, mirrored: true },
        { ...lie, stretch: [0.972, 0.972] as const },
        { ...lie, covers: [[...own.sheet.marks[covered].at, 26]] as const },
        lie,
      ][way] as Lie;
      // another sheet of the same size, where it is one: its marks lie elsewhere
      const other = way === 4 ? await job(own.cutter, own.sheet.marks[0].kind, [own.sheet.width, own.sheet.height], 6) : own; // prettier-ignore
      const sheet = { ...load(other, spoilt, [0, 0]) };
      const expected = load(own, STRAIGHT, [0, 0]);
      // the head stands over the corner that is where the first mark should be
      const corner = way === 0 ? 2 : way === 1 ? 1 : 0;
      const [u, v] = sheet.loaded.onFilm(...other.sheet.marks[corner].at);
      const first = ontoStrip(sheet.bed)([u, v]);
      const { reading, verdict } = await read({ ...sheet, marks: expected.marks, first });
      const what = `${seed}: ${JSON.stringify(reading.isRead ? said(verdict!) : [reading.mark, reading.why])}`;
      if (way === 0) {
        expect(what).toContain('sheet-turned');
        expect(said(verdict!).isRefused).toBe(false);
        expect(largest(mappedOff(own, sheet, verdict!))).toBeLessThan(0.1);
      } else if (way === 1) expect(what).toContain('sheet-mirrored');
      else if (way === 2) expect(what).toMatch(/sheet-rescaled|"no-line"/);
      else if (way === 3) {
        expect(reading.isRead).toBe(false);
        expect(reading.isRead || reading.mark).toBe(covered);
      } else expect(what).toMatch(/another-sheet|"no-line"|mark-off|sheet-rescaled/);
      if (reading.isRead && way > 0) expect(said(verdict!).isRefused).toBe(true);
    }
  }, 300_000);

  test('ink too faint to be trusted, and a sheet that slips while it is read, are told', async () => {
    const [own] = jobs;
    const faint = await read(load(own, { ...STRAIGHT, ink: 0.14 }, [0, 0]));
    expect(faint.reading).toMatchObject({ isRead: false, why: 'low-contrast' });
    const [still, slipped] = [
      load(own, STRAIGHT, [0, 0]),
      load(own, { ...STRAIGHT, shift: [0.6, 0.4] }, [0, 0]),
    ];
    let looks = 0;
    const look: typeof still.sensor.look = (...line) =>
      (looks++ < own.sheet.marks.length * 6 ? still : slipped).sensor.look(...line);
    const moved = await read({ ...still, sensor: { ...still.sensor, look } });
    expect(moved.reading).toMatchObject({ isRead: false, why: 'moved' });
  }, 60_000);
});
