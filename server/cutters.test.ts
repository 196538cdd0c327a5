/** The demo shop's four cutters, each a machine of its own make: what is cut on them is what was drawn. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import request from 'supertest';
import type { Cut, CutRecord, CutterState, Order } from '../contracts/api';
import { editsBetween } from '../contracts/edits';
import type { Choices } from '../core/plan/plan';
import type { RunningSim } from '../cutter-sim/serve';
import { linksTo, serveShop } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';

let server: RunningServer;
let sims: Readonly<Record<string, RunningSim>>;

beforeAll(async () => {
  [server, sims] = await Promise.all([
    openServer({ databaseUrl: await freshDatabase('jampan_cutters') }),
    serveShop(60),
  ]);
  await seedShop(server.services, linksTo(sims));
}, 60_000);

afterAll(async () => {
  await server.close();
  await Promise.all(Object.values(sims).map((sim) => sim.close()));
  await new Promise((done) => setTimeout(done, 1200)); // the queue looks once more whether its hands are at rest
}, 30_000);

const api = () => request(server.url);
const panel = (id: string, path: string, body?: object) =>
  fetch(`${sims[id].panel}${path}`, { method: 'POST', body: body && JSON.stringify(body) });

/** An order from a file of the demo, queued; the first of its cuts. */
async function queued(file: string, choose: (usual: Choices) => Partial<Choices>): Promise<Cut> {
  const upload = api()
    .post('/api/orders')
    .attach('file', readFileSync(`demo/art/${file}`), file);
  const order = (await upload.expect(200)).body as Order;
  const after = { ...order.choices, ...choose(order.choices) };
  const change = { base: order.revision, edits: editsBetween(order.choices, after) };
  const { body } = await api().patch(`/api/orders/${order.id}/choices`).send(change).expect(200);
  const cuts = await api().post(`/api/orders/${order.id}/queue`).send({ revision: body.revision });
  expect({ status: cuts.status, says: cuts.body.message }).toEqual({ status: 200, says: undefined });
  return cuts.body[0] as Cut;
}

async function inState(id: number, ...states: string[]): Promise<Cut> {
  for (const end = Date.now() + 60_000; ;) {
    const cut = (await api().get(`/api/cuts/${id}`).expect(200)).body as Cut;
    if (states.includes(cut.state)) return cut;
    if (Date.now() > end) throw new Error(`still ${cut.state}: ${cut.problem}`);
    await new Promise((done) => setTimeout(done, 60));
  }
}

async function cutToItsEnd(cut: Cut): Promise<{ done: Cut; record: CutRecord }> {
  await inState(cut.id, 'wants-film');
  await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
  const done = await inState(cut.id, 'done', 'wants-film', 'stopped');
  expect([done.state, done.problem]).toEqual(['done', null]);
  return { done, record: (await api().get(`/api/cuts/${cut.id}/record`).expect(200)).body as CutRecord };
}

const boxOf = (record: CutRecord) => {
  const [xs, ys] = [0, 1].map((axis) =>
    record.lines.flatMap(({ points }) => points.filter((_, i) => i % 2 === axis)),
  );
  return { minX: Math.min(...xs), maxX: Math.max(...xs), minY: Math.min(...ys), maxY: Math.max(...ys) };
};

/** Only the hull's own colour of the demo's dinghy. */
const hull = ({ films, artwork }: Choices, width: number, film: Record<string, string> = {}) => ({
  artwork: { ...artwork, width },
  films: { ...films, film, off: ['#2e6f7e', '#e2a21b'] },
});

/** The tide dial: green lines are folds, the red one goes through the card. */
const dial = ({ artwork, films, layout }: Choices, copies: number): Partial<Choices> => ({
  artwork: { ...artwork, lines: { ...artwork.lines, colour: { '#1f5a3c': 'crease', '#b0202f': 'through' } } },
  films: { ...films, film: { '#ead9b4': 'dial-card' } },
  layout: { ...layout, border: false, copies },
  cutter: { order: 'saltpan', film: {} },
});

describe('what was drawn is what is cut', () => {
  test('across along x, counted from the far edge, force on a knob: Heron', async () => {
    await panel('heron', '/load', { width: 610, length: 9000 });
    const cut = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 420),
      cutter: { order: 'heron', film: {} },
    }));
    expect(cut).toMatchObject({ cutterId: 'heron', edges: { far: 12.7, near: 9 } });
    const { done, record } = await cutToItsEnd(cut);
    expect(done.deviation).toBeLessThan(0.1);
    expect(new Set(record.lines.map(({ depth }) => depth))).toEqual(new Set(['clean']));
    const box = boxOf(record);
    expect(box.minX).toBeGreaterThanOrEqual(0);
    expect(box.maxX).toBeLessThanOrEqual(cut.length);
    expect(box.minY).toBeGreaterThanOrEqual(0);
    expect(box.maxY).toBeLessThanOrEqual(cut.cuttable);
  }, 90_000);

  test('counted down from the leading edge, in coarse steps: Plover', async () => {
    await panel('plover', '/load', { width: 300, length: 4000 });
    const cut = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 240, { '#4b1f4a': 'thrift' }),
      cutter: { order: 'plover', film: {} },
    }));
    expect(cut).toMatchObject({ cutterId: 'plover', rollWidth: 300, cuttable: 284 });
    const { done } = await cutToItsEnd(cut);
    // its steps are 0.05 mm
    expect(done.deviation).toBeLessThan(0.12);
  }, 90_000);

  test('a sheet on a flatbed, creased by its second tool and then cut: Saltpan', async () => {
    const cut = await queued('tide-dial.svg', (usual) => dial(usual, 3));
    expect(cut).toMatchObject({ film: { id: 'dial-card' }, rollWidth: 580, copies: 3 });
    const { done, record } = await cutToItsEnd(cut);
    expect(done.deviation).toBeLessThan(0.1);
    // behind the stroke that turns the blade: six folds a copy, then what is cut, the window through the card last
    const firstCopy = record.lines.slice(1, record.lines.length / 3).map(({ depth }) => depth);
    expect(firstCopy.slice(0, 6)).toEqual(Array(6).fill('creased'));
    expect(firstCopy.slice(6)).not.toContain('creased');
    expect(record.lines.filter(({ depth }) => depth === 'creased')).toHaveLength(18);
    expect(record.lines.filter(({ depth }) => depth === 'into-backing' || depth === 'through')).toHaveLength(
      3,
    );
  }, 90_000);

  test('a sheet that is too small for the cut is not cut on', async () => {
    await panel('saltpan', '/load', { width: 580, length: 200 });
    const cut = await queued('tide-dial.svg', (usual) => dial(usual, 1));
    await inState(cut.id, 'wants-film');
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const { problem } = await inState(cut.id, 'wants-film');
    expect(problem).toMatch(/There is 0\.20 m of film in Saltpan; .* Load a longer sheet/);
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
  }, 60_000);
});

describe('what a machine answers', () => {
  const states = async (): Promise<Record<string, CutterState>> => {
    await new Promise((done) => setTimeout(done, 1100)); // what was just seen is not asked again
    const { body } = await api().get('/api/cutters').expect(200);
    return Object.fromEntries((body as CutterState[]).map((state) => [state.id, state]));
  };

  test('the film in it by its own sensors, edges that the head does not reach counted in; or none', async () => {
    await panel('heron', '/load', { width: 500, length: 3000 });
    await panel('plover', '/unload');
    const { heron, plover, curlew } = await states();
    expect(heron).toMatchObject({ state: 'answers', panel: sims.heron.panel });
    expect(heron.film!.width).toBeCloseTo(500, 1);
    expect(heron.film!.length).toBeCloseTo(3000, 1);
    expect(plover).toMatchObject({ state: 'answers', film: null });
    expect(curlew).toMatchObject({ name: 'Curlew', state: 'answers' });
    const { body: one } = await api().get('/api/cutters').query({ only: 'heron' }).expect(200);
    expect((one as CutterState[]).map(({ id }) => id)).toEqual(['heron']);
  });

  test('while it cuts it is not asked, and its cut goes on; one that is asked a moment ago can begin', async () => {
    await panel('heron', '/load', { width: 610, length: 9000 });
    const cut = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 420),
      layout: { ...usual.layout, copies: 4 },
      cutter: { order: 'heron', film: {} },
    }));
    await inState(cut.id, 'wants-film');
    // both at once: the press waits until the look is over
    const [, pressed] = await Promise.all([states(), api().post(`/api/cuts/${cut.id}/loaded`)]);
    expect(pressed.status).toBe(200);
    await inState(cut.id, 'cutting');
    expect((await states()).heron).toMatchObject({ state: 'at-work', film: null });
    expect((await inState(cut.id, 'done', 'stopped', 'wants-film')).state).toBe('done');
  }, 90_000);

  test('one that is switched off is told as away, with the reason', async () => {
    await sims.plover.close();
    expect((await states()).plover).toMatchObject({
      state: 'away',
      film: null,
      problem: 'the port is closed',
    });
  });
});
