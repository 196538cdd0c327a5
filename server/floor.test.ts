/** The floor: held, released, put in another order, moved to another cutter, paused and gone on with. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { eq, inArray } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut, CutActed } from '../contracts/cuts';
import type { FewestSwaps, FloorNow } from '../contracts/floor';
import { editsBetween } from '../contracts/edits';
import type { AtCurlew } from './atCurlew.testing';
import { atCurlew } from './atCurlew.testing';
import { cutByAnother } from './cutters/anothers.testing';
import { cuts, cutters } from './db/schema';

const WREN = readFileSync('demo/art/marsh-wren.svg');
let shop: AtCurlew;
let order: Order;

beforeAll(async () => {
  shop = await atCurlew('jampan_floor');
  const { body } = await api().post('/api/orders').attach('file', WREN, 'wren.svg').expect(200);
  order = body as Order;
}, 60_000);
afterAll(() => shop.close(), 30_000);

const api = () => shop.api();
const open = async (): Promise<Cut[]> => (await api().get('/api/cuts').expect(200)).body as Cut[];
const lane = async (cutter = 'curlew') =>
  (await open()).filter((cut) => cut.cutterId === cutter && cut.state !== 'held');
const queue = async (body: object = {}): Promise<Cut[]> => {
  const asked = { revision: order.revision, ...body };
  const all = (await api().post(`/api/orders/${order.id}/queue`).send(asked).expect(200)).body as Cut[];
  return all.filter(({ state }) => state !== 'cancelled' && state !== 'done');
};
const say: AtCurlew['say'] = (...asked) => shop.say(...asked);
const getCut = (id: number) => shop.getCut(id);
const states = (all: readonly Cut[]) => all.map(({ state }) => state);
async function until<T>(look: () => Promise<T>, good: (value: T) => boolean): Promise<T> {
  for (let i = 0; i < 600; i++) {
    const value = await look();
    if (good(value)) return value;
    await new Promise((done) => setTimeout(done, 50));
  }
  throw new Error('it came to nothing');
}
/** Another order like it, so that several wait at once. */
async function another(name: string, due: string | null = null): Promise<Order> {
  const { body } = await api().post('/api/orders').attach('file', WREN, `${name}.svg`).expect(200);
  await api()
    .patch(`/api/orders/${(body as Order).id}`)
    .send({ due })
    .expect(200);
  return body as Order;
}

beforeEach(async () => {
  await api().post('/api/floor/go-on').expect(200);
  await shop.server.services.db.update(cuts).set({ state: 'cancelled' });
});

describe('the shelf', () => {
  test('an order is queued onto it; nothing of it asks for film until it is sent; it is put back', async () => {
    const held = await queue({ hold: true });
    expect(states(held)).toEqual(['held', 'held', 'held']);
    expect(await lane()).toEqual([]);
    // as long as it is there, the order is not queued a second time
    await api().post(`/api/orders/${order.id}/queue`).send({ revision: order.revision }).expect(409);
    const [, second] = held;
    expect((await say(second.id, 'release').expect(200)).body.state).toBe('wants-film');
    await say(second.id, 'release').expect(409);
    expect((await say(second.id, 'hold').expect(200)).body.state).toBe('held');
    const acts = (await api().get(`/api/cuts/${second.id}/acts`)).body as CutActed[];
    expect(acts.map(({ act, who }) => `${act} ${who}`)).toEqual(['held lead', 'released lead', 'held lead']);
  });

  test('putting away what asks for film lets the next one ask', async () => {
    const [first, second] = await queue();
    expect(states(await lane())).toEqual(['wants-film', 'queued', 'queued']);
    await say(first.id, 'hold').expect(200);
    expect((await getCut(second.id)).state).toBe('wants-film');
  });
});

describe('the order of a lane', () => {
  test('a cut goes before another one; the first asks for its film, whoever asked before', async () => {
    const [a, b, c] = await queue();
    await say(c.id, 'move', { cutter: 'curlew', before: a.id }).expect(200);
    expect((await lane()).map(({ id, state }) => [id, state])).toEqual([
      [c.id, 'wants-film'],
      [a.id, 'queued'],
      [b.id, 'queued'],
    ]);
    await say(c.id, 'move', { cutter: 'curlew', before: null }).expect(200);
    expect((await lane()).map(({ id }) => id)).toEqual([a.id, b.id, c.id]);
    // what is queued later stands behind
    const late = await another('late');
    await api().post(`/api/orders/${late.id}/queue`).send({ revision: 0 }).expect(200);
    expect((await lane()).slice(0, 3).map(({ id }) => id)).toEqual([a.id, b.id, c.id]);
  });

  test('is set as a whole, unless something has changed meanwhile', async () => {
    const [a, b, c] = await queue();
    const put = (ids: number[]) => api().post('/api/cutters/curlew/lane').send({ ids });
    await put([b.id, c.id, a.id]).expect(200);
    expect((await lane()).map(({ id }) => id)).toEqual([b.id, c.id, a.id]);
    expect((await put([a.id, b.id]).expect(409)).body.code).toBe('lane-changed');
    await say(c.id, 'cancel').expect(200);
    await put([a.id, b.id, c.id]).expect(409);
  });

  test('two who move different cuts at once leave no cut out and none twice', async () => {
    const made = await queue();
    const moves = made.flatMap(({ id }) => [
      say(id, 'move', { cutter: 'curlew', before: made[0].id }),
      say(id, 'move', { cutter: 'curlew', before: null }),
    ]);
    const answers = await Promise.all(moves);
    expect(answers.map(({ status }) => status)).toEqual(moves.map(() => 200));
    const now = await lane();
    expect(now.map(({ id }) => id).sort()).toEqual(made.map(({ id }) => id).sort());
    expect(states(now)).toEqual(['wants-film', 'queued', 'queued']);
  }, 30_000);

  test('fewest swaps brings films together, and says what that saves', async () => {
    await queue();
    for (const name of ['one', 'two']) {
      const { id } = await another(name);
      await api().post(`/api/orders/${id}/queue`).send({ revision: 0 }).expect(200);
    }
    const [proposal] = (await api().get('/api/floor/fewest-swaps').expect(200)).body as FewestSwaps;
    expect(proposal).toMatchObject({ cutter: 'curlew', now: { changes: 9 }, then: { changes: 3, late: 0 } });
    await api().post('/api/cutters/curlew/lane').send({ ids: proposal.ids }).expect(200);
    const films = (await lane()).map(({ film }) => film.id);
    expect(films).toEqual([...films].sort((a, b) => films.indexOf(a) - films.indexOf(b)));
    expect((await api().get('/api/floor/fewest-swaps')).body).toEqual([]);
  }, 60_000);
});

describe('another cutter', () => {
  test('a film goes to it with all that was queued of it, made for that machine; back it has the same bytes', async () => {
    const [first] = await queue();
    const bytes = async () =>
      (
        await shop.server.services.db
          .select({ program: cuts.program })
          .from(cuts)
          .where(eq(cuts.id, first.id))
      )[0].program;
    const before = await bytes();
    const moved = (await say(first.id, 'move', { cutter: 'heron', before: null }).expect(200)).body as Cut;
    expect(moved).toMatchObject({ id: first.id, cutterId: 'heron', film: { id: first.film.id }, state: 'wants-film' }); // prettier-ignore
    expect((await bytes()).equals(before)).toBe(false);
    // the next one in the lane it left asks for its film
    expect(states(await lane())).toEqual(['wants-film', 'queued']);
    await say(first.id, 'move', { cutter: 'curlew', before: null }).expect(200);
    expect((await bytes()).equals(before)).toBe(true);
    expect(await lane('heron')).toEqual([]);
    expect((await lane()).map(({ position, of }) => `${position} of ${of}`).sort()).toEqual(['1 of 3', '2 of 3', '3 of 3']); // prettier-ignore
  }, 60_000);

  test('refuses what it cannot take, and says why; nothing has changed then', async () => {
    const [first] = await queue();
    const { body } = await say(first.id, 'move', { cutter: 'plover', before: null }).expect(422);
    expect(body).toMatchObject({ code: 'lane-refuses', message: expect.stringMatching(/Plover takes/) });
    await say(first.id, 'move', { cutter: 'nowhere', before: null }).expect(404);
    expect((await getCut(first.id)).cutterId).toBe('curlew');
  });

  test('of two who move a cut to different places at once both are heard, or told; it stands in one lane', async () => {
    const [first, second] = await queue();
    const answers = await Promise.all([
      say(first.id, 'move', { cutter: 'heron', before: null }),
      say(first.id, 'move', { cutter: 'curlew', before: second.id }),
      say(first.id, 'cancel'),
    ]);
    for (const { status } of answers) expect([200, 409]).toContain(status);
    const rows = await shop.server.services.db.select({ rank: cuts.rank }).from(cuts);
    expect(rows.filter(({ rank }) => !Number.isFinite(rank))).toEqual([]);
  }, 60_000);

  test('what was changed since, or begun, stays where it is', async () => {
    const mine = await another('changed');
    const [cut] = (await api().post(`/api/orders/${mine.id}/queue`).send({ revision: 0 }).expect(200)).body as Cut[]; // prettier-ignore
    const layout = { ...mine.choices.layout, copies: 2 };
    const edits = editsBetween(mine.choices, { ...mine.choices, layout });
    await api().patch(`/api/orders/${mine.id}/choices`).send({ base: 0, edits }).expect(200);
    expect((await say(cut.id, 'move', { cutter: 'heron', before: null }).expect(409)).body.code).toBe('changed'); // prettier-ignore
    const giveBack = await cutByAnother(shop.server.services.db, cut);
    expect((await say(cut.id, 'move', { cutter: 'curlew', before: null }).expect(409)).body.code).toBe('not-now'); // prettier-ignore
    await say(cut.id, 'hold').expect(409);
    await giveBack();
  });

  test('a retired cutter takes nothing', async () => {
    const [first] = await queue();
    const row = (await shop.server.services.db.select().from(cutters).where(eq(cutters.id, 'heron')))[0];
    await shop.server.services.db.update(cutters).set({ data: { ...row.data, isRetired: true } }).where(eq(cutters.id, 'heron')); // prettier-ignore
    expect((await say(first.id, 'move', { cutter: 'heron', before: null }).expect(422)).body.message).toBe('Heron is out of use.'); // prettier-ignore
    await shop.server.services.db.update(cutters).set({ data: row.data }).where(eq(cutters.id, 'heron'));
  });
});

describe('all machines at once', () => {
  test('pausing stops what is cut and lets nothing begin; going on goes on with it, to its end', async () => {
    const [first] = await queue();
    await say(first.id, 'loaded').expect(200);
    await until(
      () => getCut(first.id),
      ({ state }) => state === 'cutting',
    );
    const { body } = await api().post('/api/floor/pause').expect(200);
    expect((body as FloorNow).paused).toBe(true);
    await until(
      () => getCut(first.id),
      ({ state }) => state === 'stopped',
    );
    expect((await say(first.id, 'resume', { from: 'next-line' }).expect(409)).body.code).toBe('paused');
    await api().post('/api/floor/go-on').expect(200);
    const done = await until(
      () => getCut(first.id),
      ({ state }) => state === 'done',
    );
    // each line once: by the machine's own record
    expect(done.deviation).toBeLessThan(0.1);
    const acts = (await api().get(`/api/cuts/${first.id}/acts`)).body as CutActed[];
    expect(acts.map(({ act }) => act)).toEqual(['queued', 'loaded', 'paused', 'resumed']);
    const { loaded } = (await api().get('/api/floor').expect(200)).body as FloorNow;
    expect(loaded).toMatchObject([{ cutter: 'curlew', film: first.film.id, width: first.rollWidth }]);
  }, 90_000);

  test('what is stopping still when all go on is gone on with once it has stopped', async () => {
    const [first] = await queue();
    await say(first.id, 'loaded').expect(200);
    await until(
      () => getCut(first.id),
      ({ state }) => state === 'cutting',
    );
    await api().post('/api/floor/pause').expect(200);
    await api().post('/api/floor/go-on').expect(200);
    const done = await until(
      () => getCut(first.id),
      ({ state }) => state === 'done',
    );
    expect(done.deviation).toBeLessThan(0.1);
  }, 60_000);

  test('a cut that a person stopped is not gone on with', async () => {
    const [first] = await queue();
    await say(first.id, 'loaded').expect(200);
    await until(
      () => getCut(first.id),
      ({ state }) => state === 'cutting',
    );
    await say(first.id, 'stop').expect(200);
    await until(
      () => getCut(first.id),
      ({ state }) => state === 'stopped',
    );
    await api().post('/api/floor/pause').expect(200);
    await api().post('/api/floor/go-on').expect(200);
    expect((await getCut(first.id)).state).toBe('stopped');
    const rows = await shop.server.services.db
      .select()
      .from(cuts)
      .where(inArray(cuts.id, [first.id]));
    expect(rows[0].paused).toBe(false);
  }, 60_000);
});
