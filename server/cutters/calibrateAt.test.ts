/** Calibrations on simulated machines that are off by amounts they do not tell. */
import { describe, expect, test } from '@jest/globals';
import { lay, STRAIGHT } from '../../cutter-sim/print';
import { CURLEW_SPEC, HERON_SPEC, PLOVER_SPEC } from '../../cutter-sim/machines';
import { printPage } from '../../cutter-sim/printer';
import type { LoadedFilm, MachineSpec } from '../../cutter-sim/spec';
import { onFilm } from '../../cutter-sim/spec';
import { CURLEW, HERON, PLOVER } from '../../demo/shop';
import type { Estimate } from '../../core/calibration/estimate';
import { forcesByHand, gridCells, perforatedCells } from '../../core/calibration/grid';
import type { Measured, RunFound, Seen, Setup } from '../../core/calibration/run';
import { judgeRun } from '../../core/calibration/run';
import { crossSheet } from '../../core/calibration/sheet';
import { rowValues } from '../../core/calibration/blade';
import { offOnAxes, offOnStrip, toStrip } from '../../core/devicelang/axes';
import type { Spot } from '../../core/geometry/spot';
import type { Cutter, Recipe } from '../../core/layout/cutter';
import { cuttableWidth } from '../../core/layout/cutter';
import { gaussian, random } from '../../core/random';
import { ontoStrip } from '../../core/plan/sheetStrip';
import { printPdf } from '../files/printPdf';
import { calibrateAt } from './calibrateAt';
import { LinkLost } from './links/link';
import { bySensor } from './readSheet';
import { simLink } from './simLink.testing';
import { times } from '../../core/sample.testing';

const FILM: LoadedFilm = { name: 'film', width: 610, length: 3000, toughness: 60 };
const RECIPE: Recipe = { force: 80, speed: 5, blade: '45°', bladeOffset: 0.25, overcut: 0.6 };
const PEN: Recipe = { ...RECIPE, force: 30, bladeOffset: 0, overcut: 0 };

const foundBy = (
  setup: Setup,
  seen: Seen | null,
  measured: Measured,
  before: readonly number[],
  step: number,
  earlier: readonly (readonly Estimate[])[] = [],
): RunFound => {
  const says = judgeRun(setup, seen, measured, { before, step, earlier });
  if (says.says !== 'found') throw new Error(JSON.stringify(says));
  return says.found;
};

const still = { isToStop: () => false, progress: () => {} };
const withOffset = (cutter: Cutter, offset: Spot): Cutter => ({
  ...cutter,
  sensor: { ...cutter.sensor!, offset },
});

/** A machine whose sensor sits elsewhere than its record says, by up to five millimetres either way. */
function aside(spec: MachineSpec, next: () => number): { readonly spec: MachineSpec; readonly truth: Spot } {
  const truth: Spot = [0, 1].map((k) => spec.sensor!.offset[k] + 10 * next() - 5) as unknown as Spot;
  return { spec: { ...spec, sensor: { ...spec.sensor!, offset: truth } }, truth };
}

/** One machine calibrated twice by some way. @returns whether the first interval held, and mm that the sensor is off at last */
async function closed(
  cutter: Cutter,
  truth: Spot,
  run: (
    cutter: Cutter,
  ) => Promise<{ readonly setup: Setup; readonly seen: Seen; readonly measured: Measured }>,
): Promise<{ readonly held: readonly boolean[]; readonly off: number }> {
  let record = cutter;
  const earlier: (readonly Estimate[])[] = [];
  const wanted = offOnStrip(cutter.device, truth);
  const held: boolean[] = [];
  for (let k = 0; k < 2; k++) {
    const { setup, seen, measured } = await run(record);
    const before = offOnStrip(record.device, record.sensor!.offset);
    const { own, changes } = foundBy(setup, seen, measured, before, record.device.step, earlier);
    held.push(...own.map(({ value, sure }, i) => Math.abs(value - wanted[i]) <= sure));
    earlier.unshift(own);
    const [along, down] = changes.map((one) => (one.left ? one.before : one.value));
    record = withOffset(record, offOnAxes(record.device, [along, down]));
  }
  const is = offOnStrip(record.device, record.sensor!.offset);
  return { held, off: Math.max(...is.map((value, i) => Math.abs(value - wanted[i]))) };
}

const share = (held: readonly boolean[]): number => held.filter(Boolean).length / held.length;

describe('where the sensor sits', () => {
  const RUNS = times(200, 24);
  // of few machines a share is a rough one
  const SLACK = times(0.03, 0.08);

  test('pen and read: after two runs within 0.05 mm in every machine, the interval holds the truth in 95 ± 3 of 100', async () => {
    const next = random(77);
    const results = [];
    for (let k = 0; k < RUNS; k++) {
      const [cutter, made] = k % 2 === 0 ? [CURLEW, CURLEW_SPEC] : [PLOVER, PLOVER_SPEC];
      const { spec, truth } = aside(made, next);
      const run = async (record: Cutter) => {
        const { machine, link } = simLink(
          { ...spec, tools: [{ kind: 'pen' }] },
          1 + Math.floor(1e6 * next()),
        );
        machine.load({ ...FILM, width: k % 2 === 0 ? 610 : 300 });
        const setup: Setup = { kind: 'sensor-pen' };
        const came = await calibrateAt({ setup, cutter: record, recipe: PEN, link, ...still });
        if (came.state !== 'measuring') throw new Error(JSON.stringify(came));
        return { setup, seen: came.seen!, measured: {} };
      };
      results.push(await closed(cutter, truth, run));
    }
    expect(Math.max(...results.map(({ off }) => off))).toBeLessThanOrEqual(0.05);
    expect(Math.abs(share(results.flatMap(({ held }) => held)) - 0.95)).toBeLessThanOrEqual(SLACK);
  }, 240_000);

  test('print and cut: the same, a person reading each cross to some hundredths', async () => {
    const [width, height] = [297, 210];
    const crosses = crossSheet(width, height, 'in')!;
    const pdf = await printPdf(
      crosses.unit,
      crosses.sheet,
      { code: 'JP', text: 'x' },
      { marks: crosses.marks, withLines: false },
    );
    const print = await printPage(pdf);
    const next = random(5);
    // a loupe divided in tenths is read to half of one, and a little wrong
    const wrong = gaussian(99, 0.02);
    const read = (mm: number): number => Math.round((mm + wrong()) * 20) / 20;
    const setup: Setup = { kind: 'sensor-print', film: 'print-white', width, height };
    const results = [];
    for (let k = 0; k < RUNS; k++) {
      const [cutter, made] =
        k % 2 === 0 ? [PLOVER, PLOVER_SPEC] : [{ ...CURLEW, narrowest: 100 }, CURLEW_SPEC];
      const { spec, truth } = aside(made, next);
      const run = async (record: Cutter) => {
        const { machine, link } = simLink(spec, 1 + Math.floor(1e6 * next()));
        const lie = { ...STRAIGHT, turn: (2 * next() - 1) / 3, shift: [next(), next()] as const };
        machine.load({ name: 'print', width: height, length: width, toughness: 60, print: lay(print, lie) });
        const came = await calibrateAt({ setup, cutter: record, recipe: RECIPE, link, ...still });
        if (came.state !== 'measuring') throw new Error(JSON.stringify(came));
        const { film } = machine.status();
        // what a person sees: the cut's middle against the cross's, as the sheet lies
        const cuts = machine
          .strokes()
          .slice(-10)
          .map(({ points }) => points);
        const off = crosses.places.map(([u, v], i): Spot => {
          const [flat, upright] = [cuts[2 * i], cuts[2 * i + 1]];
          const middle = (points: number[]): Spot => {
            const n = points.length;
            return [(points[0] + points[n - 2]) / 2, (points[1] + points[n - 1]) / 2];
          };
          const lies = film!.print!.onFilm(u, v);
          // of each line the way across it is seen
          const spots = [flat, upright].map((points) => onFilm(spec, film!, ...middle(points)));
          return [read(spots[1][0] - lies[0]), read(spots[0][1] - lies[1])];
        });
        return { setup, seen: came.seen!, measured: { off } };
      };
      results.push(await closed(cutter, truth, run));
    }
    expect(Math.max(...results.map(({ off }) => off))).toBeLessThanOrEqual(0.05);
    expect(Math.abs(share(results.flatMap(({ held }) => held)) - 0.95)).toBeLessThanOrEqual(SLACK);
  }, 240_000);
});

/** A machine with film in it, after a run of some kind on it. */
async function ran(setup: Setup, spec: MachineSpec, cutter: Cutter, recipe = RECIPE) {
  const { machine, link } = simLink(spec);
  machine.load(FILM);
  const came = await calibrateAt({ setup, cutter, recipe, link, ...still });
  return { came, machine, link, strokes: machine.strokes().map(({ points }) => points) };
}
const WIDE: Cutter = { ...CURLEW, narrowest: 100 };
const ends = (points: readonly number[]): Spot => [points[points.length - 2], points[points.length - 1]];

describe('length', () => {
  test('ticks measured to a tenth, on machines off by up to 0.3 %: within 0.02 % after two runs, both ways', async () => {
    const next = random(8);
    const tape = gaussian(4, 0.1);
    let worst = 0;
    for (let k = 0; k < 24; k++) {
      const axis = k % 2 === 0 ? ('along' as const) : ('across' as const);
      const trueness = [1 + 0.006 * (next() - 0.5), 1 + 0.006 * (next() - 0.5)] as const;
      const spec = { ...CURLEW_SPEC, trueness };
      const setup: Setup = { kind: 'length', axis, whole: axis === 'along' ? 1500 : 1200 };
      let lengths: readonly [number, number] = [1, 1];
      const earlier: (readonly Estimate[])[] = [];
      for (let run = 0; run < 2; run++) {
        const cutter = { ...WIDE, device: { ...WIDE.device, lengths } };
        const { machine, link } = simLink(spec);
        const film = { ...FILM, width: 1300 };
        machine.load(film);
        await calibrateAt({ setup, cutter, recipe: RECIPE, link, ...still });
        const places = tickPlaces(
          machine.strokes().map(({ points }) => points),
          spec,
          film,
          axis,
        );
        const measured = places.slice(1).map((place) => Math.abs(place - places[0]) + tape());
        const at = axis === 'along' ? 0 : 1;
        const { own, changes } = foundBy(setup, null, { lengths: measured }, [lengths[at]], 0.025, earlier);
        earlier.unshift(own);
        const to = changes[0].left ? changes[0].before : changes[0].value;
        lengths = at === 0 ? [to, 1] : [1, to];
      }
      const at = axis === 'along' ? 0 : 1;
      worst = Math.max(worst, Math.abs(lengths[at] / trueness[at] - 1));
    }
    expect(worst).toBeLessThan(0.0002);
  }, 60_000);

  /** Where the long ticks lie along the way that is measured, on the film. */
  function tickPlaces(
    strokes: readonly (readonly number[])[],
    spec: MachineSpec,
    film: LoadedFilm,
    axis: 'along' | 'across',
  ): number[] {
    const way = axis === 'along' ? 0 : 1;
    return strokes.flatMap((points) => {
      const [a, b] = [points.slice(0, 2), ends(points)].map(([x, y]) => onFilm(spec, film, x, y));
      const [long, wide] = [Math.abs(a[way] - b[way]), Math.abs(a[1 - way] - b[1 - way])];
      return wide > 9 && long < 0.3 ? [(a[way] + b[way]) / 2] : [];
    });
  }
});

describe('blade offset', () => {
  const offsets = [0.18, 0.25, 0.31, 0.47, 0.6];
  const spec = (bladeOffset: number): MachineSpec => ({
    ...CURLEW_SPEC,
    tools: [{ kind: 'knife', bladeOffset, wear: 0 }],
  });

  test.each(offsets)('%f mm by gaps that a loupe reads: within 0.02', async (truth) => {
    const setup: Setup = { kind: 'blade-gap', blade: '45°' };
    const { strokes } = await ran(setup, spec(truth), WIDE);
    const loupe = gaussian(3, 0.02);
    const lengths = [0, 2, 4, 6].map(
      (i) => Math.abs(ends(strokes[i])[0] - ends(strokes[i + 1])[0]) + loupe(),
    );
    const [own] = foundBy(setup, null, { lengths }, [0.25], 0.025).own;
    expect(Math.abs(own.value - truth)).toBeLessThanOrEqual(0.02);
    expect(Math.abs(own.value - truth)).toBeLessThanOrEqual(own.sure);
  });

  test.each(offsets)(
    '%f mm by the best of a row, and of a finer one about it: within 0.02',
    async (truth) => {
      let about: Estimate | undefined;
      for (let run = 0; run < 2; run++) {
        const values = rowValues(about, [0.1, 0.8]);
        const setup: Setup = { kind: 'blade-row', blade: '45°', values };
        const { strokes } = await ran(setup, spec(truth), WIDE);
        const onStrip = toStrip(CURLEW.device, cuttableWidth(WIDE, FILM.width));
        const cuts = strokes.map((points) =>
          points.flatMap((_, k) =>
            k % 2 === 0 ? [...onStrip(points[k] / 0.025, points[k + 1] / 0.025)] : [],
          ),
        );
        // the squares are as long as they are wide; the closest to its own design in the mean looks best
        const off = cuts.flatMap((cut) => {
          const [xs, ys] = [0, 1].map((k) => cut.filter((_, m) => m % 2 === k));
          const [x, y] = [Math.min(...xs), Math.min(...ys)];
          const sides = [Math.max(...xs) - x, Math.max(...ys) - y];
          if (!sides.every((side) => side > 7.3 && side < 9.5)) return [];
          const [cx, cy] = [Math.round(x) + 4, Math.round(y) + 4];
          const aside = xs.map((u, m) => Math.abs(Math.max(Math.abs(u - cx), Math.abs(ys[m] - cy)) - 4));
          return [aside.reduce((sum, v) => sum + v, 0) / aside.length];
        });
        expect(off).toHaveLength(values.length);
        const picked = off.indexOf(Math.min(...off));
        [about] = foundBy(setup, null, { picked }, [0.25], 0.025).own;
      }
      expect(Math.abs(about!.value - truth)).toBeLessThanOrEqual(0.02);
    },
  );
});

describe('what can go wrong', () => {
  const setup: Setup = { kind: 'blade-gap', blade: '45°' };

  test('without film, on too little of it, or on too narrow film nothing is begun', async () => {
    const { machine, link } = simLink(CURLEW_SPEC);
    const at = { setup, cutter: WIDE, recipe: RECIPE, link, ...still };
    expect(await calibrateAt(at)).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/No film/),
    });
    machine.load({ ...FILM, length: 30 });
    expect(await calibrateAt(at)).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/takes .* of film/),
    });
    machine.load(FILM);
    const across: Setup = { kind: 'length', axis: 'across', whole: 900 };
    expect(await calibrateAt({ ...at, setup: across })).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/reaches/),
    });
    expect(machine.strokes()).toEqual([]);
  });

  test('film that is too narrow for what is to be drawn or cut is told before anything is', async () => {
    const narrow = { ...WIDE, margins: { ...WIDE.margins, far: 5, near: 5 } };
    const spec = { ...CURLEW_SPEC, edges: { far: 5, near: 5 } };
    const { machine, link } = simLink(spec);
    const at = { cutter: narrow, recipe: PEN, link, ...still };
    machine.load({ ...FILM, width: 80 });
    expect(await calibrateAt({ ...at, setup: { kind: 'sensor-pen' } })).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/too narrow/),
    });
    machine.load({ ...FILM, width: 38 });
    expect(await calibrateAt({ ...at, setup })).toMatchObject({ state: 'ready' });
    expect(machine.strokes()).toEqual([]);
  });

  test('stopped in the middle it is broken off, and says after which line', async () => {
    const { machine, link } = simLink(CURLEW_SPEC);
    machine.load(FILM);
    let lines = 0;
    const came = await calibrateAt({
      setup: { kind: 'blade-row', blade: '45°', values: rowValues(undefined, [0.1, 0.6]) },
      cutter: WIDE,
      recipe: RECIPE,
      link,
      isToStop: () => lines > 3,
      progress: (done) => (lines = done),
    });
    expect(came).toMatchObject({
      state: 'broken',
      problem: expect.stringMatching(/Stopped after line \d+ of \d+/),
    });
    expect(machine.status().down).toBe(false);
  });

  test('when its machine goes away in the middle, the film is used up all the same; before that it is not', async () => {
    for (const after of [-1, 4]) {
      const { machine, link } = simLink(CURLEW_SPEC);
      machine.load(FILM);
      let lines = -1;
      const away = async (): Promise<never> => {
        throw new LinkLost('the line is cut off');
      };
      const came = calibrateAt({
        setup: { kind: 'blade-row', blade: '45°', values: rowValues(undefined, [0.1, 0.6]) },
        cutter: WIDE,
        recipe: RECIPE,
        link: { ...link, send: (text) => (lines >= after ? away() : link.send(text)) },
        isToStop: () => false,
        progress: (done) => (lines = Math.max(lines, done)),
      });
      if (after < 0) await expect(came).rejects.toThrow(LinkLost);
      else
        expect(await came).toMatchObject({
          state: 'broken',
          problem: expect.stringMatching(/^Broken off: the line is cut off\./),
          film: { width: expect.closeTo(610, 6), length: expect.any(Number), isSheet: false },
        });
    }
  });

  test('where the pen is not in, the knife cuts and the sensor finds nothing: that is said', async () => {
    const { came } = await ran({ kind: 'sensor-pen' }, CURLEW_SPEC, WIDE, PEN);
    expect(came).toMatchObject({ state: 'broken', problem: expect.stringMatching(/pen/) });
  });

  test('a grid is cut at its own forces and speeds, as the machine tells them', async () => {
    const cells = [40, 60, 130, 200].map((force) => ({ force, speed: 20 }));
    const { machine } = await ran(
      { kind: 'force', film: 'x', line: 'kiss', columns: 4, cells },
      CURLEW_SPEC,
      WIDE,
    );
    const depths = machine
      .strokes()
      .filter(({ points }) => points.length > 300)
      .map(({ depth }) => depth);
    expect(depths).toEqual(['not-through', 'clean', 'into-backing', 'through']);
  });
});

describe('a trial grid where force is set by hand', () => {
  test('one force after the other, each with what the knob says, and no cell twice', async () => {
    const { machine, link } = simLink(HERON_SPEC);
    machine.load({ ...FILM, toughness: 75 });
    const cells = gridCells({ force: [50, 140], speed: [10, 40], columns: 4, rows: 2 });
    const setup: Setup = { kind: 'force', film: 'damson', line: 'kiss', columns: 4, cells };
    const depths: string[][] = [];
    const boxes: string[] = [];
    for (const [part, force] of forcesByHand(cells).entries()) {
      machine.turnKnob(force);
      const came = await calibrateAt({ setup, cutter: HERON, recipe: RECIPE, part, link, ...still });
      expect(came.state).toBe(part === 3 ? 'measuring' : 'next');
      // the blade is turned into its way, then two cells of a line and a square, and their figures
      const strokes = machine.strokes();
      depths.push([...new Set(strokes.map(({ depth }) => depth))]);
      boxes.push(...strokes.slice(1).map(({ points }) => points.map((mm) => mm.toFixed(2)).join()));
    }
    expect([depths[0], depths[3]]).toEqual([['not-through'], ['clean']]);
    expect(new Set(boxes).size).toBe(boxes.length);
  });

  test('perforated cells are cut in dashes of their own', async () => {
    const cells = perforatedCells({
      force: [150, 200],
      columns: 2,
      on: [2, 4],
      off: [0.5, 0.5],
      each: [2, 1],
      speed: 20,
    });
    const setup: Setup = { kind: 'force', film: 'damson', line: 'perforated', columns: 2, cells };
    const { came, strokes } = await ran(setup, CURLEW_SPEC, WIDE);
    expect(came.state).toBe('measuring');
    // four sides of 20 mm, a gap at every corner: eight dashes of about 2 mm a side, or four of about 4 mm
    const long = (from: number, to: number): number =>
      strokes.filter((points) => {
        const [[x0, y0], [x1, y1]] = [points.slice(0, 2), ends(points)];
        const length = Math.hypot(x1 - x0, y1 - y0);
        return length > from && length < to;
      }).length;
    expect(long(3.5, 4.8)).toBeGreaterThanOrEqual(2 * 4 * 4);
    expect(long(1.75, 2.4)).toBeGreaterThanOrEqual(2 * 4 * 8);
  });
});

describe('contrast of a stock', () => {
  const [width, height] = [297, 210];
  const setup: Setup = { kind: 'contrast', film: 'lilac', width, height };
  const crosses = crossSheet(width, height, PLOVER.sensor!.kinds[0])!;
  const printed = printPdf(
    crosses.unit,
    crosses.sheet,
    { code: 'JP', text: 'x' },
    { marks: crosses.marks, withLines: false },
  ).then(printPage);
  const on = async (ground: number, grain = 0, ink = 1, turn = 0.4) => {
    const { machine, link } = simLink(PLOVER_SPEC);
    const print = lay(await printed, { ...STRAIGHT, turn, ground, grain, ink });
    machine.load({ name: 'print', width: height, length: width, toughness: 60, print });
    return link;
  };
  const levelsOn = async (ground: number, grain = 0, turn?: number): Promise<Seen> => {
    const link = await on(ground, grain, 1, turn);
    const came = await calibrateAt({ setup, cutter: PLOVER, recipe: RECIPE, link, ...still });
    if (came.state !== 'measuring') throw new Error(JSON.stringify(came));
    return came.seen!;
  };
  const USUAL = [1, 0.15] as const;

  test.each([0.9, 0.5, 0.22])(
    'what counts as a mark lies half way, on a stock that reflects %p',
    async (ground) => {
      const { own } = foundBy(setup, await levelsOn(ground), {}, USUAL, 0.01);
      // what lies on the page half way down an arm
      const [{ at, arms }] = crosses.sheet.marks;
      const there = lay(await printed, { ...STRAIGHT, ground }).reflectance(at[0] + arms[0] / 2, at[1]);
      expect(Math.abs(own[0].value - (ground + there) / 2)).toBeLessThan(0.015);
      expect(own[1].value).toBeLessThan(0.08);
    },
  );

  test('a sheet that lies the other way round is looked at beside its marks too', async () => {
    const { levels } = await levelsOn(0.5, 0, 180.3);
    for (const { bare, dip } of levels!) {
      expect(Math.abs(bare - 0.5)).toBeLessThan(0.01);
      expect(dip).toBeLessThan(0.06);
    }
  });

  test('grain asks for more contrast; where it is as dark as marks, they are not found', async () => {
    const even = foundBy(setup, await levelsOn(0.5), {}, USUAL, 0.01).own[1].value;
    const rough = foundBy(setup, await levelsOn(0.5, 0.15), {}, USUAL, 0.01).own[1].value;
    expect(rough).toBeGreaterThan(2 * even);
    const link = await on(0.5, 0.3);
    expect(await calibrateAt({ setup, cutter: PLOVER, recipe: RECIPE, link, ...still })).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/not found/),
    });
  });

  test('marks that are usually too faint are read on a stock that was looked at, and on no other', async () => {
    const { own } = foundBy(setup, await levelsOn(0.22), {}, USUAL, 0.01);
    const stocks = { lilac: { threshold: own[0].value, least: own[1].value } };
    const known = { ...PLOVER, sensor: { ...PLOVER.sensor!, stocks } };
    const onto = ontoStrip(PLOVER);
    const marks = crosses.sheet.marks.map((mark) => ({ ...mark, at: onto(mark.at) }));
    const lying = { marks, line: crosses.marks.line, width, cuttable: cuttableWidth(PLOVER, height) };
    const read = async (cutter: Cutter, stock: string, ink = 1) =>
      bySensor({ ...lying, stock }, cutter, await on(0.22, 0, ink), () => false);
    expect(await read(PLOVER, 'lilac')).toMatch(/too faint|not found/);
    expect(await read(known, 'sea')).toMatch(/too faint|not found/);
    expect(await read(known, 'lilac')).toHaveLength(marks.length);
    // printed with too little ink they are not as dark as marks are there
    expect(await read(known, 'lilac', 0.4)).toMatch(/too faint|not found/);
  });

  test('a sheet that is not in, or lies over its marks, is said before anything is found', async () => {
    const { machine, link } = simLink(PLOVER_SPEC);
    machine.load({ ...FILM, width: 400 });
    expect(await calibrateAt({ setup, cutter: PLOVER, recipe: RECIPE, link, ...still })).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/Load the printed sheet/),
    });
    machine.load({ ...FILM, width: height, length: width });
    expect(await calibrateAt({ setup, cutter: PLOVER, recipe: RECIPE, link, ...still })).toMatchObject({
      state: 'ready',
      problem: expect.stringMatching(/no mark of this sheet|not found/),
    });
  });
});
