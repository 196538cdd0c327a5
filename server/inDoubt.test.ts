/** Where the head stands says how far a cut came, but for places that a line passes more than once: there a person looks. */
import { afterAll, beforeAll, beforeEach, expect, test } from '@jest/globals';
import { eq } from 'drizzle-orm';
import type { Cut } from '../contracts/cuts';
import { opened } from '../core/devicelang/lineText';
import type { AtCurlew } from './atCurlew.testing';
import { atCurlew } from './atCurlew.testing';
import { cuts } from './db/schema';
import { unpack } from './services/pack';
import type { StoredProgram } from './work/makeCuts';

let shop: AtCurlew;
beforeAll(async () => (shop = await atCurlew('jampan_in_doubt')), 60_000);
afterAll(() => shop.close(), 30_000);
beforeEach(async () => {
  await shop.server.services.db.update(cuts).set({ state: 'cancelled' });
});

const panel = (path: string, body: object = {}) =>
  fetch(`${shop.sim.panel}${path}`, { method: 'POST', body: JSON.stringify(body) });
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const FASTER = 20;

async function begun(pace: number): Promise<Cut> {
  await panel('/load', { name: 'roll', width: 610, length: 22_000, toughness: 60 });
  await panel('/pace', { times: pace });
  return shop.begin(3);
}

/** Curlew's own steps, mm. */
const STEP = 0.025;
const keyOf = (x: number, y: number): string => `${Math.round(x)},${Math.round(y)}`;

/** Where one line alone comes more than once, by the first and the last of its points there. */
async function passedTwice(id: number): Promise<Map<string, { line: number; first: number; last: number }>> {
  const [row] = await shop.server.services.db.select().from(cuts).where(eq(cuts.id, id));
  const places = new Map<string, { line: number; first: number; last: number }>();
  unpack<StoredProgram>(row.program).lines.forEach((text, line) => {
    const { points } = opened(text);
    points.slice(0, -1).forEach(({ x, y }, at) => {
      const before = places.get(keyOf(x, y));
      places.set(keyOf(x, y), { line, first: before?.line === line ? before.first : at, last: at });
    });
  });
  return new Map([...places].filter(([, { first, last }]) => last > first));
}

const headKey = (): string => {
  const { x, y } = shop.sim.status();
  return keyOf(x / STEP, y / STEP);
};

/** Turns the machine's clock on until its knife is where it should be, and takes its power away. */
async function powerLost(id: number, seconds: number, isThere: () => boolean): Promise<Cut> {
  for (let k = 0; k < 6000; k++) {
    await panel('/advance', { seconds });
    if (shop.sim.status().down && isThere()) {
      await panel('/switch-off');
      return shop.inState(id, 'stopped');
    }
    // the feeder has to have time as well
    if (k % 20 === 0 || seconds > QUICKLY) await pause(2);
  }
  throw new Error('it never stood there');
}
const QUICKLY = 0.02;
const MUCH = 40;

test.each([
  ['cut up to there: the rest of it is cut', (cut: number) => cut > MUCH, () => 'head'],
  ['not cut: it is begun anew', (cut: number) => cut < MUCH / 4, (line: number) => line],
] as const)(
  'power lost where a line passes twice, and it is %s',
  async (_, when, answer) => {
    const { id } = await begun(0);
    const places = await passedTwice(id);
    const cutOfLine = (): number => shop.sim.strokes().at(-1)?.points.length ?? 0;
    await powerLost(id, 0.005, () => (places.get(headKey())?.line ?? 0) > 2 && when(cutOfLine()));
    const line = places.get(headKey())!.line + 1;
    await panel('/pace', { times: FASTER });
    await shop.say(id, 'resume', { from: 'next-line' }).expect(200);
    const asked = await shop.until(id, ({ inDoubt }) => inDoubt !== null);
    expect(asked).toMatchObject({ inDoubt: line, linesDone: line - 1 });
    // nobody said yet: it is asked again, not cut
    await shop.say(id, 'jog', { dx: 10, dy: -10 }).expect(200);
    await shop.say(id, 'resume', { from: 'next-line' }).expect(200);
    const still = await shop.inState(id, 'stopped');
    expect(still).toMatchObject({ inDoubt: line, linesDone: line - 1, problem: asked.problem });
    expect(still.problem).toContain(`line ${line} passes more than once`);

    await shop.say(id, 'resume', { from: answer(line) }).expect(200);
    const done = await shop.inState(id, 'done', 'stopped');
    expect(done).toMatchObject({ state: 'done', inDoubt: null, asCut: { missing: [], twice: [] } });
    expect(done.deviation).toBeLessThanOrEqual(0.05);
  },
  90_000,
);

test('where nothing is in doubt nobody says that it is cut up to the head', async () => {
  const { id } = await begun(FASTER);
  await shop.until(id, ({ linesDone }) => linesDone >= 2);
  await shop.say(id, 'stop').expect(200);
  await shop.inState(id, 'stopped');
  expect((await shop.say(id, 'resume', { from: 'head' }).expect(409)).body.code).toBe('not-asked');
  expect((await shop.getCut(id)).state).toBe('stopped');
}, 60_000);

test('power lost, its head moved by hand, and power lost once more: each line is cut once', async () => {
  const { id } = await begun(0);
  const places = await passedTwice(id);
  for (const least of [3, 8]) {
    const { linesDone, linesSent } = await powerLost(
      id,
      0.05,
      () => !places.has(headKey()) && shop.sim.strokes().length > least,
    );
    expect(linesSent).toBeGreaterThan(linesDone);
    await panel('/pace', { times: FASTER });
    if (least === 3) await shop.say(id, 'jog', { dx: -15, dy: 20 }).expect(200);
    await panel('/pace', { times: 0 });
    await shop.say(id, 'resume', { from: 'next-line' }).expect(200);
    await shop.until(id, ({ state }) => state !== 'checking');
  }
  await panel('/pace', { times: FASTER });
  const done = await shop.inState(id, 'done', 'stopped');
  expect(done).toMatchObject({ state: 'done', asCut: { missing: [], twice: [] } });
}, 90_000);
