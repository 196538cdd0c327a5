import { describe, expect, test } from '@jest/globals';
import { createMachine } from './machine';
import { CURLEW_SPEC, HERON_SPEC, SALTPAN_SPEC } from './machines';
import type { MachineSpec } from './spec';

const SPEC: MachineSpec = {
  ...CURLEW_SPEC,
  bufferBytes: 256,
  tools: [{ kind: 'knife', bladeOffset: 0.25, wear: 0 }],
};
const FILM = { name: 'film', width: 610, length: 5000, toughness: 60 };

function machine(spec = SPEC) {
  const answers: string[] = [];
  const own = createMachine(spec, (text) => answers.push(text));
  own.load(FILM);
  return { ...own, answers };
}

describe('answers', () => {
  test('OI, OH, OS, OA as the plotter manuals have them, each closed by a carriage return', () => {
    const m = machine();
    m.receive('IN;OI;OH;OS;PA400,800;OA;PD;OA;');
    m.advance(60);
    expect(m.answers).toEqual(['CURLEW\r', '0,0,200000,23384\r', '16\r', '400,800,0\r', '400,800,1\r']);
  });

  test('without film there is nothing to reach and it is not ready', () => {
    const m = machine();
    m.load(undefined);
    m.receive('OH;OS;');
    m.advance(1);
    expect(m.answers).toEqual(['0,0,0,0\r', '0\r']);
  });

  test('past the hard limits the head stops and the error shows', () => {
    const m = machine();
    m.receive('PA999999,-50;OA;OS;');
    m.advance(600);
    expect(m.answers).toEqual(['200000,0,0\r', '48\r']);
  });
});

describe('time', () => {
  /** Seconds until the answer comes, to a millisecond. */
  function secondsFor(text: string): number {
    const m = machine({ ...SPEC, bufferBytes: 100_000 });
    m.receive(text);
    for (let ms = 1; ms < 100_000; ms++) {
      m.advance(0.001);
      if (m.answers.length > 0) return ms / 1000;
    }
    throw new Error('no answer');
  }

  test('a move from rest to rest takes s/v + v/a; a short one 2·√(s/a)', () => {
    expect(secondsFor('PA40000,0;OA;')).toBeCloseTo(1000 / 600 + 600 / 8000, 2);
    expect(secondsFor('PA80,0;OA;')).toBeCloseTo(2 * Math.sqrt(2 / 8000), 2);
  });

  test('a line in many pieces takes no longer than in one', () => {
    const pieces = Array.from({ length: 100 }, (_, i) => `${(i + 1) * 400},0`).join();
    expect(secondsFor(`PA;${`PU${pieces}`};OA;`)).toBeCloseTo(secondsFor('PA40000,0;OA;'), 1);
  });
});

test('a full buffer makes the sender wait, and empties as the head moves', () => {
  const m = machine();
  let taken = true;
  for (let i = 0; i < 400 && taken; i++) taken = m.receive(`PD${i * 40},${(i % 2) * 4000};`);
  expect(taken).toBe(false);
  expect(m.status().buffered).toBeGreaterThanOrEqual(256);
  m.advance(400);
  expect(m.isFull()).toBe(false);
});

test('the tip trails the head, and depth follows force against the film', () => {
  const m = machine();
  m.receive('IN;FS80;VS30;PU400,400;PD4400,400;PU;');
  m.advance(20);
  const [stroke] = m.strokes();
  expect(stroke.depth).toBe('clean');
  expect(stroke.points.at(-2)).toBeCloseTo(110 - 0.25, 6);
  expect(stroke.points.at(-1)).toBeCloseTo(10, 6);
  for (const [force, depth] of [
    [40, 'not-through'],
    [130, 'into-backing'],
    [250, 'through'],
  ] as const) {
    m.receive(`IN;FS${force};PU0,0;PD400,0;PU;`);
    m.advance(20);
    expect(m.strokes()[0].depth).toBe(depth);
  }
});

describe('machines of other makes', () => {
  test('an axis that counts down, and one along y: the limits and the head say so', () => {
    const m = machine({ ...SPEC, axes: { ...SPEC.axes, feedAxis: 'y', feedReversed: true } });
    m.receive('OH;PA400,-4000;OA;PA0,10;OA;OS;');
    m.advance(60);
    // the film's end lies at -5000 mm; past its beginning there is nothing
    expect(m.answers).toEqual(['0,-200000,23384,0\r', '400,-4000,0\r', '0,0,0\r', '48\r']);
  });

  test('a flatbed reaches no further than its bed, whatever lies on it', () => {
    const m = machine(SALTPAN_SPEC);
    m.load({ ...FILM, width: 580, length: 2000 });
    m.receive('OH;');
    m.advance(1);
    expect(m.answers).toEqual(['0,-90000,57000,0\r']);
  });

  test('a force knob is turned by hand; what is sent does not count', () => {
    const m = machine(HERON_SPEC);
    const depth = (): string => {
      m.receive('IN;FS500;PU400,400;PD4000,400;PU;');
      m.advance(20);
      return m.strokes()[0].depth;
    };
    expect(depth()).toBe('clean');
    m.turnKnob(20);
    expect(depth()).toBe('not-through');
    expect(m.status()).toMatchObject({ force: 20, knob: true });
    const sent = machine();
    sent.turnKnob(20);
    expect(sent.status()).toMatchObject({ force: 80, knob: false });
  });

  test('the second tool creases where its holder goes; one that is not there is an error', () => {
    const m = machine(SALTPAN_SPEC);
    m.load(FILM);
    m.receive('IN;SP2;PU1000,-1000;PD5000,-1000;PU;SP1;PU1000,-2000;PD5000,-2000;PU;SP3;OS;');
    m.advance(20);
    const [crease, cut] = m.strokes();
    expect([crease.depth, cut.depth]).toEqual(['creased', 'clean']);
    expect(crease.points.slice(-2)).toEqual([50, -10]);
    expect(cut.points.at(-2)).toBeCloseTo(50 - 0.25, 6);
    expect(m.answers).toEqual(['48\r']);
  });
});

describe('what a person changes of a machine', () => {
  const see = (m: ReturnType<typeof machine>, x: number): number => {
    m.receive(`RS${x - 400},4000,${x + 400},4000,41;`);
    m.advance(60);
    const values = m.answers.pop()!.split(',').map(Number);
    return values.indexOf(Math.min(...values));
  };

  test('a pen draws what the sensor sees: as far aside as it sits from the pen', () => {
    const m = machine();
    m.setUp({ tools: [{ kind: 'pen' }] });
    m.receive('IN;PU4000,3600;PD4000,4400;PU;');
    m.advance(60);
    expect(m.strokes()[0].depth).toBe('drawn');
    // the sensor is 10 mm ahead: the line is under it when the head stands 400 units before
    expect(see(m, 3600)).toBeCloseTo(20, -0.5);
    m.setUp({ sensor: { ...SPEC.sensor!, offset: [12, 0.8], noise: 0 } });
    expect(see(m, 3520)).toBeCloseTo(20, -0.5);
    m.load(FILM);
    m.receive('RS3200,4000,4000,4000,9;');
    m.advance(60);
    expect(new Set(m.answers.pop()!.trim().split(','))).toEqual(new Set(['900']));
  });
});

test('another speed on the way does not stop it: 1 m at 40, then 1 m at 10 cm/s', () => {
  const { acceleration: a } = SPEC;
  const m = machine({ ...SPEC, bufferBytes: 100_000 });
  m.receive('VS40;PD0,0;OA;PD40000,0;VS10;PD80000,0;OA;');
  m.advance(1e-6);
  const [fast, slow] = [400, 100];
  // closed form: to 400, down to 100 just before the second metre, and to rest at its end
  const seconds =
    fast / a +
    (fast - slow) / a +
    (1000 - fast ** 2 / (2 * a) - (fast ** 2 - slow ** 2) / (2 * a)) / fast +
    slow / a +
    (1000 - slow ** 2 / (2 * a)) / slow;
  m.advance(0.04 + seconds - 0.01);
  expect(m.answers).toHaveLength(1);
  m.advance(0.02);
  expect(m.answers).toHaveLength(2);
});
