/** Calibrations and recipes on a real PostgreSQL: what is set up, broken off, kept, gone back to, and refused. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { eq, sql } from 'drizzle-orm';
import type { Calibration, Knife } from '../contracts/calibrations';
import type { Said } from '../contracts/cuts';
import type { RecipeHistory, ShopNow } from '../contracts/shop';
import { CURLEW_SPEC, DAMSON_ROLL } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { linksTo, serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { calibrations, cuts, orders } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let lead: SignedIn;
let server: RunningServer;
let sim: RunningSim;

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_calibrations');
  [server, sim] = await Promise.all([
    openServer({ databaseUrl, filesPerMinute: 1000 }),
    serveSim({ spec: CURLEW_SPEC, timeFactor: 60, film: DAMSON_ROLL }),
  ]);
  await seedShop(server.services, linksTo({ curlew: sim }));
  lead = await signIn(server);
}, 60_000);
afterAll(async () => {
  await server.close();
  await sim.close();
}, 30_000);

const app = () => lead.agent;
const setUp = async (setup: object): Promise<Calibration> =>
  (await app().post('/api/cutters/curlew/calibrations').send(setup).expect(200)).body as Calibration;
const list = async (): Promise<Calibration[]> =>
  (await app().get('/api/cutters/curlew/calibrations').expect(200)).body as Calibration[];
const step = (id: number, what: string) => app().post(`/api/calibrations/${id}/${what}`);
const shop = async (): Promise<ShopNow> => (await app().get('/api/shop').expect(200)).body as ShopNow;
async function until(id: number, states: readonly string[]): Promise<Calibration> {
  for (let i = 0; i < 600; i++) {
    const found = (await list()).find((one) => one.id === id)!;
    if (states.includes(found.state)) return found;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error('it came to nothing');
}
const GRID = {
  kind: 'force',
  film: 'damson',
  line: 'kiss',
  columns: 3,
  cells: [40, 60, 90, 40, 60, 90].map((force, i) => ({ force, speed: i < 3 ? 20 : 40 })),
};

describe('a run', () => {
  test('is cut, measured and kept in its order only; what it found is in the recipe, with why', async () => {
    const { id } = await setUp(GRID);
    expect((await step(id, 'keep').expect(409)).body.message).toMatch(/waiting to be cut/);
    await step(id, 'cut').expect(200);
    expect((await step(id, 'cut').expect(409)).body.code).toBe('not-now');
    await until(id, ['measuring']);
    expect((await step(id, 'keep').expect(409)).body.code).toBe('nothing-found');
    const looks = ['not-through', 'clean', 'clean', 'not-through', 'clean', 'clean'];
    const { body } = await app()
      .patch(`/api/calibrations/${id}`)
      .send({ was: {}, now: { looks } })
      .expect(200);
    const { says } = body as Calibration;
    if (says?.says !== 'found') throw new Error(JSON.stringify(says));
    const [change] = says.found.changes;
    expect(change.value).toBeGreaterThan(45);
    expect(change.value).toBeLessThan(75);
    await step(id, 'keep').expect(200);
    expect((await shop()).recipes['curlew/damson']).toMatchObject({
      force: Math.round(change.value),
      blade: '45°',
    });
    const history = (await app().get('/api/cutters/curlew/recipes/damson/kiss/history').expect(200))
      .body as RecipeHistory[];
    expect(history.map(({ why }) => why)).toEqual([`trial grid ${id}`, 'as all films']);
  }, 60_000);

  test('two people tap one grid at once: what either says is kept', async () => {
    const { id } = await setUp(GRID);
    await step(id, 'cut').expect(200);
    await until(id, ['measuring']);
    const said = GRID.cells.map(({ force }) => (force < 60 ? 'not-through' : 'clean'));
    await Promise.all(
      said.map((look, i) => {
        const looks = said.map((_, k) => (k === i ? look : null));
        return app().patch(`/api/calibrations/${id}`).send({ was: {}, now: { looks } }).expect(200);
      }),
    );
    const found = (await list()).find((one) => one.id === id)!;
    expect(found.measured.looks).toEqual(said);
    expect(found.says?.says).toBe('found');
    await step(id, 'drop').expect(200);
  }, 60_000);

  test('one that is set up anew drops the one before that was not decided on; the same quantity only', async () => {
    const [a, b, c] = [
      await setUp({ kind: 'blade-gap', blade: '45°' }),
      await setUp({ kind: 'length', axis: 'along', whole: 500 }),
      await setUp({ kind: 'blade-row', blade: '45°', values: [0.2, 0.25, 0.3] }),
    ];
    const states = new Map((await list()).map(({ id, state }) => [id, state]));
    expect([a, b, c].map(({ id }) => states.get(id))).toEqual(['dropped', 'ready', 'ready']);
  });

  test('without film it is not begun, and says so; two at once on one machine are refused', async () => {
    await fetch(`${sim.panel}/unload`, { method: 'POST' });
    const { id } = await setUp({ kind: 'length', axis: 'along', whole: 400 });
    await step(id, 'cut').expect(200);
    expect((await until(id, ['ready'])).problem).toMatch(/No film is in Curlew/);
    await fetch(`${sim.panel}/load`, { method: 'POST', body: JSON.stringify({ width: 610, length: 5000 }) });
    const other = await setUp({ kind: 'length', axis: 'across', whole: 300 });
    await step(id, 'cut').expect(200);
    expect((await step(other.id, 'cut').expect(409)).body.code).toBe('at-work');
    await until(id, ['measuring']);
  }, 60_000);

  test('a machine with a cut that can go on is left alone', async () => {
    const row = await cutRow({ state: 'stopped' });
    const { id } = await setUp({ kind: 'blade-gap', blade: '45°' });
    const { body } = await step(id, 'cut').expect(409);
    expect(body.message).toMatch(/stopped and can go on/);
    await server.services.db.delete(cuts).where(eq(cuts.id, row));
  });

  test('one whose server went away is broken off by whoever looks, and can be begun again', async () => {
    const { db } = server.services;
    const { id } = await setUp({ kind: 'blade-gap', blade: '45°' });
    await db
      .update(calibrations)
      .set({ state: 'working', movedAt: sql`now() - interval '5 minutes'` })
      .where(eq(calibrations.id, id));
    const broken = await until(id, ['broken']);
    expect(broken.problem).toMatch(/server .* went away/);
    await step(id, 'cut').expect(200);
    await until(id, ['measuring']);
    const gaps = { lengths: [0.6, 0.6, 0.62, 0.58] };
    await app().patch(`/api/calibrations/${id}`).send({ was: {}, now: gaps }).expect(200);
    await step(id, 'keep').expect(200);
    const { recipes } = await shop();
    expect(recipes['curlew/*'].bladeOffset).toBeCloseTo(0.3, 6);
    // another blade
    expect(recipes['curlew/flock-navy'].bladeOffset).toBe(0.5);
  }, 60_000);

  test('a length is not changed under cuts that wait, and is gone back to', async () => {
    const measured = async (mm: number): Promise<number> => {
      const { id } = await setUp({ kind: 'length', axis: 'along', whole: 400 });
      await step(id, 'cut').expect(200);
      await until(id, ['measuring']);
      await app()
        .patch(`/api/calibrations/${id}`)
        .send({ was: {}, now: { lengths: [null, null, mm] } })
        .expect(200);
      await step(id, 'keep').expect(200);
      return id;
    };
    const lengths = async () => (await shop()).cutters.find(({ id }) => id === 'curlew')!.device.lengths;
    const first = await measured(401.2);
    expect((await lengths())![0]).toBeCloseTo(1.003, 6);
    await measured(398);
    expect((await lengths())![0]).toBeCloseTo(1.003 * 0.995, 5);
    await step(first, 'keep').expect(200);
    expect(await lengths()).toEqual([1.003, 1]);
  }, 60_000);

  test('what makes no sense is refused with a sentence', async () => {
    const bad = (setup: object) => app().post('/api/cutters/curlew/calibrations').send(setup);
    await bad({ kind: 'length', axis: 'up', whole: 10 }).expect(400);
    expect(
      (await bad({ kind: 'sensor-print', film: 'print-white', width: 100, height: 100 }).expect(422)).body
        .code,
    ).toBe('small-sheet');
    await bad({ ...GRID, film: 'no-such-film' }).expect(404);
    await app().post('/api/cutters/nobody/calibrations').send(GRID).expect(404);
    await step(999_999, 'cut').expect(404);
  });
});

let nextNumber = 4000;

/** A row of a cut that went through Curlew, in some state. */
async function cutRow(more: Partial<typeof cuts.$inferInsert>): Promise<number> {
  const { db } = server.services;
  const [order] = await db
    .insert(orders)
    .values({
      number: nextNumber++,
      name: 'x',
      fileName: 'x',
      choices: {} as never,
    })
    .returning();
  const sizes = { copies: 1, rollWidth: 1, cuttable: 1, length: 1, cutLength: 1, seconds: 1, lines: 1 };
  const plain = {
    film: {},
    recipe: {},
    edges: {},
    program: Buffer.of(),
    drawing: Buffer.of(),
    writtenWith: {},
  } as never as object;
  const place = { orderId: order.id, revision: 0, cutterId: 'curlew', position: 1, of: 1, strip: 's' };
  const [row] = await db
    .insert(cuts)
    .values({
      ...place,
      ...sizes,
      ...plain,
      mirrored: false,
      state: 'done',
      ...more,
    } as typeof cuts.$inferInsert)
    .returning({ id: cuts.id });
  return row.id;
}

describe('how it was', () => {
  const say = (id: number, was: string | null) => app().post(`/api/cuts/${id}/how`).send({ was });

  test('three cuts in a row that were not through ask for more force, once; what is under way is not spoken of', async () => {
    const film = (await shop()).films.find(({ id }) => id === 'samphire')!;
    const { recipes } = await shop();
    const recipe = { ...recipes['curlew/*'] };
    const made = [];
    for (let k = 0; k < 3; k++)
      made.push(await cutRow({ film, recipe, endedAt: new Date(Date.now() + 1000 * k) }));
    expect((await say(made[0], 'not-through').expect(200)).body.asks).toBeNull();
    expect((await say(made[1], 'not-through').expect(200)).body.asks).toBeNull();
    const { body } = await say(made[2], 'not-through').expect(200);
    expect((body as Said).cut.howItWas).toBe('not-through');
    expect((body as Said).asks).toEqual({ from: recipe.force, to: Math.round(recipe.force! * 1.08) });
    // taken back: nothing is asked any more
    expect((await say(made[2], null).expect(200)).body).toMatchObject({
      asks: null,
      cut: { howItWas: null },
    });
    const cutting = await cutRow({ film, recipe, state: 'cancelled' });
    expect((await say(cutting, 'clean').expect(409)).body.code).toBe('not-now');
    await say(made[0], 'fine').expect(400);
  });
});

describe('recipes', () => {
  const change = (what: object, film = 'quince', kind = 'kiss') =>
    app().patch(`/api/cutters/curlew/recipes/${film}/${kind}`).send(what);

  test('a change is the film’s own from then on, within what the machine can do; all that it was can be gone back to', async () => {
    await change({ force: 95 }).expect(200);
    await change({ speed: 30, why: 'order #2041' }).expect(200);
    expect((await shop()).recipes['curlew/quince']).toMatchObject({ force: 95, speed: 30, blade: '45°' });
    const tooMuch = await change({ force: 900 }).expect(422);
    expect(tooMuch.body.message).toBe('Curlew cuts with a force of 5 to 600 g; 900 g is none of it.');
    const url = '/api/cutters/curlew/recipes/quince/kiss';
    const history = (await app().get(`${url}/history`).expect(200)).body as RecipeHistory[];
    expect(history.map(({ why }) => why)).toEqual(['order #2041', 'by hand', 'as all films']);
    await app().post(`/api/recipe-changes/${history[1].id}/back`).expect(200);
    expect((await shop()).recipes['curlew/quince'].speed).toBe(40);
    await app().post(`${url}/clear`).expect(200);
    expect((await shop()).recipes['curlew/quince']).toBeUndefined();
  });

  test('other kinds of line begin with what is known of the kiss cut; dashes are theirs', async () => {
    await change({ dashes: [2, 0.3] }, 'quince', 'perforated').expect(200);
    const made = (await shop()).recipes['curlew/quince/perforated'];
    expect(made.dashes).toEqual([2, 0.3]);
    expect(made.force).toBeGreaterThan(150);
    await app().post('/api/cutters/curlew/recipes/*/kiss/clear').expect(409);
  });

  test('two who change different things of one recipe at once both do', async () => {
    await Promise.all([
      change({ force: 88 }, 'tar').expect(200),
      change({ overcut: 0.9 }, 'tar').expect(200),
    ]);
    expect((await shop()).recipes['curlew/tar']).toMatchObject({ force: 88, overcut: 0.9 });
  });
});

describe('knives', () => {
  const knives = async () => (await app().get('/api/knives').expect(200)).body as Knife[];
  const putIn = (which: object) => app().post('/api/cutters/curlew/knife').send(which);

  test('one is put in, the one before it lies in the drawer; what is cut is counted for the one that is in', async () => {
    await putIn({ blade: '45°' }).expect(200);
    const { id } = await setUp(GRID);
    await step(id, 'cut').expect(200);
    const cut = await until(id, ['measuring']);
    const [first] = await knives();
    expect(cut.knife).toEqual({ id: first.id, metres: 0 });
    // six squares of 32 mm with their diagonals, and figures
    expect(first.metres).toBeGreaterThan(6 * 0.043);
    expect(first.metres).toBeLessThan(6 * 0.07);
    await putIn({ blade: '60°' }).expect(200);
    const both = await knives();
    expect(both.map(({ cutter }) => cutter)).toEqual([null, 'curlew']);
    await putIn({ knife: first.id }).expect(200);
    expect((await knives()).map(({ cutter }) => cutter)).toEqual(['curlew', null]);
    await app().post(`/api/knives/${both[1].id}/throw`).expect(200);
    expect(await knives()).toHaveLength(1);
    await putIn({ knife: both[1].id }).expect(404);
  }, 60_000);

  test('a grid that wants more force raises what else is cut with that blade, and nothing else', async () => {
    const { id } = await setUp({ ...GRID, film: 'chalk' });
    await step(id, 'cut').expect(200);
    await until(id, ['measuring']);
    await app()
      .patch(`/api/calibrations/${id}`)
      .send({ was: {}, now: { picked: 2 } })
      .expect(200);
    await step(id, 'keep').expect(200);
    const before = (await shop()).recipes;
    // chalk was cut at 75 g: 90 g is a fifth more
    await app().post(`/api/calibrations/${id}/raise`).expect(200);
    const { recipes } = await shop();
    expect(recipes['curlew/chalk'].force).toBe(90);
    expect(recipes['curlew/*'].force).toBe(Math.round(before['curlew/*'].force! * 1.2));
    expect(recipes['curlew/flock-navy']).toEqual(before['curlew/flock-navy']);
    await app().post('/api/calibrations/1/raise').expect(409);
  }, 60_000);
});

test('what is not to be relied on any more is told with the shop: age, a machine that was moved, another knife', async () => {
  const { db } = server.services;
  const stale = async (): Promise<string[]> =>
    (await shop()).stale
      .filter(({ cutter }) => cutter === 'curlew')
      .map(({ quantity, why, days }) => `${quantity} ${why} ${days}`)
      .sort();
  const putIn = async (): Promise<number> => {
    const { body } = await app().post('/api/cutters/curlew/knife').send({ blade: '45°' }).expect(200);
    return (body as Knife[]).find(({ cutter }) => cutter === 'curlew')!.id;
  };
  const move = (movedAt: string | null) => app().patch('/api/cutters/curlew').send({ movedAt }).expect(200);
  const kept = (setup: Calibration['setup'], knife?: number) =>
    db.insert(calibrations).values({
      cutterId: 'curlew',
      setup,
      state: 'kept',
      before: [1],
      keptAt: sql`now() - interval '2 days'`,
      ...(knife !== undefined && { knife: { id: knife, metres: 0 } }),
    });
  await db.update(calibrations).set({ state: 'dropped' });
  await kept({ kind: 'length', axis: 'along', whole: 500 });
  await kept({ kind: 'blade-gap', blade: '45°' }, await putIn());
  expect(await stale()).toEqual([]);
  await move(new Date().toISOString());
  await putIn();
  expect(await stale()).toEqual(['blade knife 2', 'length moved 2']);
  await move(null);
  expect(await stale()).toEqual(['blade knife 2']);
  const { version } = await shop();
  await db
    .update(calibrations)
    .set({ keptAt: sql`now() - interval '40 days'` })
    .where(eq(calibrations.cutterId, 'curlew'));
  expect(await stale()).toEqual(['blade knife 40', 'length age 40']);
  // what grows old by itself makes no plan another one
  expect((await shop()).version).toBe(version);
  await app().patch('/api/cutters/curlew').send({ movedAt: 'yesterday' }).expect(400);
});

test('how long cuts take is found from those that ran without a stop, and kept with the machine', async () => {
  const pace = async (): Promise<unknown> => (await app().get('/api/cutters/curlew/pace').expect(200)).body;
  expect(await pace()).toBeNull();
  for (const [reckoned, took] of [
    [60, 66],
    [120, 132],
    [30, 33.3],
    [300, 3000],
    [90, null],
    [2, 9],
  ] as const)
    await cutRow({ reckoned, took });
  expect(await pace()).toEqual({ ratio: expect.closeTo(1.105, 2), within: expect.any(Number), cuts: 4 });
  const { motion } = (await shop()).cutters.find(({ id }) => id === 'curlew')!;
  const change = { motion: { ...motion, pace: 1.1, paceWithin: 0.01 } };
  await app().patch('/api/cutters/curlew').send(change).expect(200);
  expect((await shop()).cutters.find(({ id }) => id === 'curlew')!.motion.pace).toBe(1.1);
  await app()
    .patch('/api/cutters/curlew')
    .send({ motion: { ...motion, pace: 0 } })
    .expect(400);
  await app().patch('/api/cutters/curlew').send({ motion }).expect(200);
  expect((await shop()).cutters.find(({ id }) => id === 'curlew')!.motion.pace).toBeUndefined();
  await app().get('/api/cutters/nothing-such/pace').expect(404);
});
