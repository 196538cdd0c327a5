/** The demo shop's four cutters, each a machine of its own make: what is cut on them is what was drawn. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { inArray } from 'drizzle-orm';
import type { Cut, CutRecord } from '../contracts/cuts';
import type { CutterState, ShopNow } from '../contracts/shop';
import type { Order } from '../contracts/api';
import type { Roll } from '../core/films/film';
import { editsBetween } from '../contracts/edits';
import type { Drawing } from '../contracts/cuts';
import { sourceKey } from '../core/artwork/choices';
import type { Bounds } from '../core/geometry/bounds';
import type { Region } from '../core/geometry/region';
import { createSegmentGrid } from '../core/geometry/segmentGrid';
import type { Choices } from '../core/plan/choices';
import { createPlanner } from '../core/plan/plan';
import { DEMO_SHOP } from '../demo/shop';
import { linksTo, serveShop } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let lead: SignedIn;
let server: RunningServer;
let sims: Awaited<ReturnType<typeof serveShop>>;

beforeAll(async () => {
  [server, sims] = await Promise.all([
    openServer({ databaseUrl: await freshDatabase('jampan_cutters') }),
    serveShop(60),
  ]);
  await seedShop(server.services, linksTo(sims));
  lead = await signIn(server);
}, 60_000);

afterAll(async () => {
  await server.close();
  await Promise.all(Object.values(sims).map((sim) => sim.close()));
  await new Promise((done) => setTimeout(done, 1200)); // the queue looks once more whether its hands are at rest
}, 30_000);

const api = () => lead.agent;
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
  layout: { ...layout, border: 'none' as const, copies },
  cutter: { order: 'saltpan', film: {} },
});

describe('two cutters at once', () => {
  test('each is fed by itself: one is stopped, the other goes on, and both end with a record of their own', async () => {
    await panel('curlew', '/load', { width: 610, length: 9000 });
    await panel('heron', '/load', { width: 610, length: 9000 });
    const at = (order: string) => (usual: Choices) => ({
      ...hull(usual, 380),
      layout: { ...usual.layout, copies: 5 },
      cutter: { order, film: {} },
    });
    const [a, b] = [
      await queued('marsh-wren.svg', at('curlew')),
      await queued('marsh-wren.svg', at('heron')),
    ];
    for (const { id } of [a, b]) {
      await inState(id, 'wants-film');
      await api().post(`/api/cuts/${id}/loaded`).expect(200);
    }
    // both are under way before either is done
    await Promise.all([a, b].map(({ id }) => inState(id, 'cutting')));
    await api().post(`/api/cuts/${a.id}/stop`).expect(200);
    const stopped = await inState(a.id, 'stopped', 'done');
    expect(stopped.state).toBe('stopped');
    expect((await inState(b.id, 'done', 'stopped')).state).toBe('done');
    expect((await api().get(`/api/cuts/${a.id}`)).body.linesDone).toBe(stopped.linesDone);
    await api().post(`/api/cuts/${a.id}/resume`).send({ from: 'next-line' }).expect(200);
    const end = await inState(a.id, 'done', 'stopped', 'wants-film');
    expect([end.state, end.linesDone]).toEqual(['done', end.lines]);
    for (const { id } of [a, b]) {
      const cut = (await api().get(`/api/cuts/${id}`)).body as Cut;
      const record = (await api().get(`/api/cuts/${id}/record`).expect(200)).body as CutRecord;
      expect(record.lines).toHaveLength(cut.lines);
      expect(cut.deviation).toBeLessThan(0.03);
    }
    // how long it took is known of the one that ran without a stop
    const timed = await server.services.db
      .select({ id: cuts.id, took: cuts.took, reckoned: cuts.reckoned, seconds: cuts.seconds })
      .from(cuts)
      .where(inArray(cuts.id, [a.id, b.id]));
    const of = (id: number) => timed.find((row) => row.id === id)!;
    expect(of(a.id).took).toBeNull();
    expect(of(b.id).took).toBeGreaterThan(0);
    expect(of(b.id).reckoned).toBeCloseTo(of(b.id).seconds, 9);
  }, 120_000);
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

describe('film on the shelf', () => {
  const damson = async () => {
    const { films } = (await api().get('/api/shop').expect(200)).body as ShopNow;
    return films.find(({ id }) => id === 'damson')!.rolls;
  };
  const rollOf = (rolls: readonly Roll[]) => rolls.find(({ sheets }) => sheets === undefined)!;

  test('a cut takes its length off its roll; what is left beside it is an offcut, and is cut from', async () => {
    await panel('curlew', '/load', { width: 610, length: 22_000 });
    const before = await damson();
    const cut = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 700),
      cutter: { order: 'curlew', film: {} },
    }));
    expect(await damson()).toEqual(before);
    const { done } = await cutToItsEnd(cut);
    expect(rollOf(await damson()).lengthLeft).toBeCloseTo(rollOf(before).lengthLeft - cut.length, 6);
    expect(done.offcuts).toHaveLength(1);
    const [rest] = done.offcuts;
    expect(rest).toMatchObject({ lengthLeft: Math.floor(cut.length), sheets: 1 });
    expect(rest.offcut).toMatch(/^D-\d+$/);
    expect(await damson()).toContainEqual(rest);
    expect(before.map(({ offcut }) => offcut)).not.toContain(rest.offcut);

    // the same again, smaller, from what was left
    const next = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 380),
      layout: { ...usual.layout, rolls: { damson: rest.offcut! } },
      cutter: { order: 'curlew', film: {} },
    }));
    expect(next.rollWidth).toBe(rest.width);
    await panel('curlew', '/load', { width: rest.width, length: rest.lengthLeft });
    const { done: second } = await cutToItsEnd(next);
    const after = await damson();
    expect(after.map(({ offcut }) => offcut)).not.toContain(rest.offcut);
    for (const one of second.offcuts) expect(after).toContainEqual(one);
    expect(rollOf(after)).toEqual(rollOf(await damson()));
    await panel('curlew', '/load', { width: 610, length: 22_000 });
  }, 120_000);

  test('smaller rests than the shop keeps are waste; a cut that is taken back takes no film', async () => {
    const { body } = await api()
      .patch('/api/shop')
      .send({ leastOffcut: { width: 900, length: 900 } });
    expect(body.leastOffcut).toEqual({ width: 900, length: 900 });
    const before = await damson();
    const cut = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 380),
      cutter: { order: 'curlew', film: {} },
    }));
    await inState(cut.id, 'wants-film');
    await api().post(`/api/cuts/${cut.id}/cancel`).expect(200);
    expect(await damson()).toEqual(before);
    const again = await queued('marsh-wren.svg', (usual) => ({
      ...hull(usual, 380),
      cutter: { order: 'curlew', film: {} },
    }));
    const { done } = await cutToItsEnd(again);
    expect(done.offcuts).toEqual([]);
    expect(await damson()).toHaveLength(before.length);
    await api()
      .patch('/api/shop')
      .send({ leastOffcut: { width: 0, length: 300 } })
      .expect(400);
  }, 90_000);
});

describe('panels', () => {
  /** The rings of a region as closed lines, and how far a point lies from the nearest. */
  function offOutline(region: Region) {
    const grid = createSegmentGrid(region, 5);
    return (x: number, y: number): number => {
      const near = grid.nearest(x, y, 2.5);
      return near ? Math.hypot(near.x - x, near.y - y) : Infinity;
    };
  }

  test('two neighbours are cut; put together as they were planned, the cut is the design across the seam', async () => {
    await panel('curlew', '/load', { width: 610, length: 22_000 });
    const chosen = (usual: Choices) => ({
      ...hull(usual, 900),
      layout: { ...usual.layout, border: 'none' as const },
      panels: { ...usual.panels, way: 'by-hand' as const, upright: [60.5] },
      cutter: { order: 'curlew', film: {} },
    });
    const first = await queued('marsh-wren.svg', chosen);
    const cuts = (await api().get('/api/cuts').query({ order: first.orderId }).expect(200)).body as Cut[];
    // the same plan here, for where each panel lies on its strip
    const order = (await api().get(`/api/orders/${first.orderId}`).expect(200)).body as Order;
    const sources = await Promise.all(
      order.choices.artwork.pieces.map(async ({ source }) => {
        const { body } = await api()
          .get('/api/readings')
          .query({ source: JSON.stringify(source) });
        return [sourceKey(source), body] as const;
      }),
    );
    const plan = createPlanner().plan(new Map(sources), order.choices, DEMO_SHOP);
    expect(plan.panels.map(({ cell }) => cell.number)).toEqual([1, 2]);
    expect(cuts).toHaveLength(plan.cuts.length);

    const seam = 60.5;
    const onSeam: number[][] = [[], []];
    let compared = 0;
    for (const [n, cut] of cuts.entries()) {
      const { record } = await cutToItsEnd(cut);
      const drawing = (await api().get(`/api/cuts/${cut.id}/drawing`).expect(200)).body as Drawing;
      const { placements } = plan.cuts[n].strip;
      for (const [k, line] of record.lines.entries()) {
        if (drawing.parts[k] !== 'art') continue;
        const [x, y] = line.points;
        const placed = placements.find(({ box }) => inside(box, x, y));
        if (!placed) continue;
        const [a, b, c, d, e, f] = placed.matrix;
        const det = a * d - b * c;
        const off = offOutline(placed.part.region);
        const which = plan.panels.findIndex(({ id }) => id === placed.part.id);
        for (let p = 0; p < line.points.length; p += 2) {
          const [u, v] = [line.points[p] - e, line.points[p + 1] - f];
          const [sx, sy] = [(d * u - c * v) / det, (a * v - b * u) / det];
          expect(off(sx, sy)).toBeLessThan(0.1);
          compared++;
          if (Math.abs(sx - seam) < 0.1) onSeam[which].push(sy);
        }
      }
    }
    expect(compared).toBeGreaterThan(500);
    // where one panel's art meets the seam, the other's does
    const ends = onSeam.map((ys) => [Math.min(...ys), Math.max(...ys)]);
    expect(onSeam.every((ys) => ys.length > 0)).toBe(true);
    expect(Math.abs(ends[0][0] - ends[1][0])).toBeLessThan(0.1);
    expect(Math.abs(ends[0][1] - ends[1][1])).toBeLessThan(0.1);

    // panel 2 is spoilt: it alone is cut again, once
    const again = await api()
      .post(`/api/orders/${first.orderId}/queue`)
      .send({ revision: order.revision, panels: [2] })
      .expect(200);
    const fresh = (again.body as Cut[]).filter(({ id }) => !cuts.some((cut) => cut.id === id));
    expect(fresh).toHaveLength(1);
    await cutToItsEnd(fresh[0]);
    const drawn = (await api().get(`/api/cuts/${fresh[0].id}/drawing`).expect(200)).body as Drawing;
    expect(drawn.parts.filter((part) => part === 'art')).toHaveLength(plan.panels[1].region.length);
  }, 180_000);

  const inside = ({ minX, minY, maxX, maxY }: Bounds, x: number, y: number): boolean =>
    x >= minX - 1 && x <= maxX + 1 && y >= minY - 1 && y <= maxY + 1;
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
