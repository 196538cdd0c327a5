/** Beside a machine: force and speed changed in the running cut, and what is spoilt cut again. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import { eq } from 'drizzle-orm';
import type { Cut, CutActed, CutRecord, Drawing } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import type { RecipeHistory } from '../contracts/shop';
import { componentsOf, placeOn } from '../core/geometry/nesting';
import { regionArea } from '../core/geometry/region';
import type { AtCurlew } from './atCurlew.testing';
import { atCurlew } from './atCurlew.testing';
import { heldByAnother } from './cutters/anothers.testing';
import { cuts } from './db/schema';

let shop: AtCurlew;
beforeAll(async () => (shop = await atCurlew('jampan_at_cutter')), 60_000);
afterAll(() => shop.close(), 30_000);
beforeEach(async () => {
  await shop.server.services.db.update(cuts).set({ state: 'cancelled' });
});

const api = () => shop.api();
const say: AtCurlew['say'] = (...asked) => shop.say(...asked);
const getCut = (id: number) => shop.getCut(id);
const until: AtCurlew['until'] = (...asked) => shop.until(...asked);
const inState: AtCurlew['inState'] = (...asked) => shop.inState(...asked);
const order: AtCurlew['order'] = (...asked) => shop.order(...asked);
const queue: AtCurlew['queue'] = (...asked) => shop.queue(...asked);
const actsOf = (id: number) => shop.get<CutActed[]>(`/api/cuts/${id}/acts`);
const recordOf = async (id: number) =>
  (await api().get(`/api/cuts/${id}/record`).expect(200)).body as CutRecord;
const drawingOf = async (id: number) =>
  (await api().get(`/api/cuts/${id}/drawing`).expect(200)).body as Drawing;

describe('force and speed', () => {
  test('nudged while it cuts, they hold from a line on, after a stop too; who did it is known, and a lead keeps it', async () => {
    const cut = await shop.begin(10);
    await until(cut.id, ({ state, linesDone }) => state === 'cutting' && linesDone >= 3);
    // a force that does not cut through: what was cut with it is told from all before
    const { body } = await say(cut.id, 'nudge', { kind: 'kiss', force: 20, speed: 20 }).expect(200);
    expect(body.nudges).toEqual({ kiss: { force: 20, speed: 20 } });
    const at = (await getCut(cut.id)).linesDone;
    await until(cut.id, ({ linesDone, state }) => linesDone > at + 2 || state === 'done');
    await say(cut.id, 'stop').expect(200);
    await inState(cut.id, 'stopped');
    await say(cut.id, 'resume', { from: 'next-line' }).expect(200);
    const done = await inState(cut.id, 'done');
    const depths = (await recordOf(cut.id)).lines.map(({ depth }) => depth);
    const first = depths.indexOf('not-through');
    expect(depths).toHaveLength(done.lines);
    expect(first).toBeGreaterThanOrEqual(at - 1);
    expect(new Set(depths.slice(0, first))).toEqual(new Set(['clean']));
    expect(new Set(depths.slice(first))).toEqual(new Set(['not-through']));

    const nudged = (await actsOf(cut.id)).find(({ act }) => act === 'nudged');
    expect(nudged?.who).toBe('lead');
    expect(nudged?.what).toMatch(/^force 80 to 20 g, speed \d+ to 20 cm\/s, from line \d+$/);
    // what was cut slower than it was reckoned says nothing of how well that was
    const [row] = await shop.server.services.db
      .select({ took: cuts.took })
      .from(cuts)
      .where(eq(cuts.id, cut.id));
    expect(row.took).toBeNull();

    expect((await say(cut.id, 'nudges-kept', { keep: true }).expect(200)).body.nudgesKept).toBe(true);
    const path = `/api/cutters/curlew/recipes/${cut.film.id}/kiss/history`;
    const [newest] = (await api().get(path).expect(200)).body as RecipeHistory[];
    expect([newest.recipe?.force, newest.recipe?.speed, newest.who]).toEqual([20, 20, 'lead']);
    // asked once: said a second time it changes nothing
    await say(cut.id, 'nudges-kept', { keep: false }).expect(200);
    expect((await getCut(cut.id)).nudgesKept).toBe(true);
    await api()
      .patch(`/api/cutters/curlew/recipes/${cut.film.id}/kiss`)
      .send({ force: 80, speed: 30 })
      .expect(200);
  }, 60_000);

  test('what a machine cannot do, or is not told, is refused with why; what is as it was is no nudge', async () => {
    const [cut] = await queue(await order(1));
    await inState(cut.id, 'wants-film');
    const refused = async (body: object) =>
      (await say(cut.id, 'nudge', { kind: 'kiss', ...body }).expect(422)).body.code as string;
    expect(await refused({ force: 4900 })).toBe('out-of-range');
    expect(await refused({ kind: 'crease', force: 90 })).toBe('no-such-lines');
    await say(cut.id, 'nudge', { kind: 'kiss', force: 90 }).expect(200);
    const back = (await say(cut.id, 'nudge', { kind: 'kiss', force: null }).expect(200)).body as Cut;
    expect(back.nudges).toEqual({ kiss: {} });
    await say(cut.id, 'nudge', { kind: 'kiss', force: cut.recipe.force }).expect(200);
    expect((await getCut(cut.id)).nudges).toEqual({ kiss: {} });
    await say(cut.id, 'nudges-kept', { keep: true }).expect(409);
    await say(cut.id, 'cancel').expect(200);
    await say(cut.id, 'nudge', { kind: 'kiss', force: 90 }).expect(409);
  });
});

describe('cut again', () => {
  test('all of a cut is the same bytes, next at its machine, and not twice at once', async () => {
    const made = await order(1);
    const [cut] = await queue(made);
    await say(cut.id, 'again').expect(409);
    await inState(cut.id, 'wants-film');
    await say(cut.id, 'loaded').expect(200);
    await inState(cut.id, 'done');
    const [other] = await queue(await order(1));
    await inState(other.id, 'wants-film');
    const [again] = (await say(cut.id, 'again').expect(200)).body as Cut[];
    await say(cut.id, 'again').expect(409);
    const [old, anew] = await Promise.all([cut.id, again.id].map((id) => rowOf(id)));
    expect(anew.program.equals(old.program)).toBe(true);
    expect([anew.againOf, anew.linesDone, anew.record, anew.endedAt]).toEqual([cut.id, 0, null, null]);
    // its film is still in
    expect([(await inState(again.id, 'wants-film')).state, (await getCut(other.id)).state]).toEqual([
      'wants-film',
      'queued',
    ]);
    await say(again.id, 'loaded').expect(200);
    expect((await inState(again.id, 'done')).deviation).toBeLessThanOrEqual(0.1);
    // once it is done it may be spoilt too
    await say(cut.id, 'again').expect(200);
  }, 60_000);

  test('a shape that is tapped on its strip is cut by itself, whatever else of its order is in the queue', async () => {
    const made = await order(3, ({ films }) => ({ films }));
    const [cut, next] = await queue(made);
    await inState(cut.id, 'wants-film');
    await say(cut.id, 'loaded').expect(200);
    await inState(cut.id, 'done');
    const shapes = componentsOf((await drawingOf(cut.id)).design.map((ring) => Float64Array.from(ring)));
    const shape = shapes.reduce((a, b) => (regionArea(a) > regionArea(b) ? a : b));
    const at = [placeOn(shape)];
    const [again] = (await say(cut.id, 'again', { at }).expect(200)).body as Cut[];
    await say(cut.id, 'again', { at }).expect(409);
    expect([again.film.id, again.copies, (await getCut(next.id)).state]).toEqual([cut.film.id, 1, 'queued']);
    const anew = componentsOf((await drawingOf(again.id)).design.map((ring) => Float64Array.from(ring)));
    expect(anew).toHaveLength(1);
    expect(regionArea(anew[0])).toBeCloseTo(regionArea(shape), 2);
    const nothing = await say(cut.id, 'again', { at: [{ x: -50, y: -50 }] }).expect(422);
    expect(nothing.body.code).toBe('nothing-there');
  }, 60_000);

  test('a panel is cut again whole; an order that was changed since says where to look', async () => {
    const wide = await order(1, ({ panels, films }) => ({
      panels: { ...panels, way: 'grid', columns: 3, rows: 1, overlap: 10 },
      films: { ...films, off: ['#2e6f7e', '#e2a21b'] },
    }));
    const [cut] = await queue(wide);
    await inState(cut.id, 'wants-film');
    await say(cut.id, 'loaded').expect(200);
    await inState(cut.id, 'done', 'stopped');
    const drawing = await drawingOf(cut.id);
    const shapes = componentsOf(drawing.design.map((ring) => Float64Array.from(ring)));
    const at = [placeOn(shapes[0])];
    const [again] = (await say(cut.id, 'again', { at }).expect(200)).body as Cut[];
    expect((await rowOf(again.id)).asked).toMatchObject({
      panels: [expect.any(Number)],
      films: [cut.film.id],
    });
    expect(again.lines).toBeLessThan(cut.lines);
    const edits = editsBetween(wide.choices, {
      ...wide.choices,
      layout: { ...wide.choices.layout, copies: 2 },
    });
    await api().patch(`/api/orders/${wide.id}/choices`).send({ base: wide.revision, edits }).expect(200);
    expect((await say(cut.id, 'again', { at }).expect(409)).body.code).toBe('changed');
  }, 60_000);
});

async function rowOf(id: number): Promise<typeof cuts.$inferSelect> {
  const [row] = await shop.server.services.db.select().from(cuts).where(eq(cuts.id, id));
  return row;
}

test('what the run before brings to its end is not cut once more by the one that waits for the machine', async () => {
  const { db } = shop.server.services;
  const [cut] = await queue(await order(1));
  await inState(cut.id, 'wants-film');
  const runBeforeEnds = await heldByAnother(db, 'curlew');
  await say(cut.id, 'loaded').expect(200);
  const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
  const before = await (await fetch(`${shop.sim.panel}/record`)).text();
  // it is taken up, and waits
  await pause(2000);
  const end = { state: 'done', linesDone: cut.lines, linesSent: cut.lines, endedAt: new Date() };
  await db.update(cuts).set(end).where(eq(cuts.id, cut.id));
  await runBeforeEnds();
  await pause(2500);
  expect((await getCut(cut.id)).state).toBe('done');
  expect(await (await fetch(`${shop.sim.panel}/record`)).text()).toBe(before);
});
