/** The ways in which a cutter is reached: what comes out at the other end is what was drawn, whichever it is. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eq } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import type { CutterState, LinkTest, LinkTo } from '../contracts/shop';
import type { Choices } from '../core/plan/choices';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts, cutters } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

const FOLDERS = mkdtempSync(join(tmpdir(), 'jam-pan-folders-'));
/** The machine, and what is said to take, run so much faster than a clock. */
const FASTER = 40;
let server: RunningServer;
let sim: RunningSim;
let lead: SignedIn;
let wire: { readonly port: string; readonly process: ChildProcess };

/** A serial line to the machine, by socat of Debian. */
async function wired(to: number): Promise<typeof wire> {
  const process = spawn('socat', ['-d', '-d', 'PTY,raw,echo=0', `TCP:127.0.0.1:${to}`]);
  const port = await new Promise<string>((done, fail) => {
    let said = '';
    process.stderr.on('data', (text: Buffer) => {
      said += text.toString();
      const found = /PTY is (\S+)/.exec(said);
      if (found && /starting data transfer/.test(said)) done(found[1]);
    });
    process.once('error', fail);
    process.once('exit', () => fail(new Error(said)));
  });
  return { port, process };
}

beforeAll(async () => {
  Object.assign(process.env, { CUTTER_DEVICES: '/dev/pts/*', CUT_FOLDERS: FOLDERS });
  [server, sim] = await Promise.all([
    openServer({ databaseUrl: await freshDatabase('jampan_links') }),
    serveSim({ spec: CURLEW_SPEC, timeFactor: FASTER, film: { name: 'roll', width: 610, length: 22_000, toughness: 60 } }), // prettier-ignore
  ]);
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: sim.port }, heron: nowhere });
  const { db } = server.services;
  const [{ data }] = await db.select().from(cutters).where(eq(cutters.id, 'curlew'));
  await db
    .update(cutters)
    .set({ data: { ...data, motion: { ...data.motion, pace: 1 / FASTER } } })
    .where(eq(cutters.id, 'curlew'));
  lead = await signIn(server);
  wire = await wired(sim.port);
}, 180_000);
afterAll(async () => {
  wire.process.removeAllListeners('exit');
  wire.process.kill();
  await server.close();
  await sim.close();
}, 30_000);

const api = () => lead.agent;
const reachBy = (link: object) => api().patch('/api/cutters/curlew/link').send(link);
const tested = async (): Promise<LinkTest> =>
  (await api().post('/api/cutters/curlew/test').expect(200)).body as LinkTest;
const getCut = async (id: number): Promise<Cut> =>
  (await api().get(`/api/cuts/${id}`).expect(200)).body as Cut;
async function inState(id: number, ...states: string[]): Promise<Cut> {
  for (const end = Date.now() + 120_000; ;) {
    const cut = await getCut(id);
    if (states.includes(cut.state)) return cut;
    if (Date.now() > end) throw new Error(`still ${cut.state}: ${cut.problem}`);
    await new Promise((done) => setTimeout(done, 40));
  }
}
async function queued(copies = 1): Promise<Cut> {
  await server.services.db.update(cuts).set({ state: 'cancelled' });
  const file = readFileSync('demo/art/marsh-wren.svg');
  const made = (await api().post('/api/orders').attach('file', file, 'wren.svg').expect(200)).body as Order;
  const usual = made.choices as Choices;
  const after = {
    ...usual,
    artwork: { ...usual.artwork, width: 500 },
    films: { ...usual.films, off: ['#2e6f7e', '#e2a21b'] },
    layout: { ...usual.layout, copies },
  };
  const change = { base: made.revision, edits: editsBetween(usual, after) };
  const { body } = await api().patch(`/api/orders/${made.id}/choices`).send(change).expect(200);
  const all = await api().post(`/api/orders/${made.id}/queue`).send({ revision: body.revision }).expect(200);
  return inState((all.body as Cut[])[0].id, 'wants-film');
}
/** What the knife did, as the machine has it. */
const strokes = async () =>
  ((await (await fetch(`${sim.panel}/record`)).json()) as { lines: { points: number[] }[] }).lines;
const statusOf = async () => (await (await fetch(`${sim.panel}/status`)).json()) as { busy: boolean };
async function atRest(): Promise<void> {
  while ((await statusOf()).busy) await new Promise((done) => setTimeout(done, 30));
}
const bytesOf = async (id: number): Promise<string> => {
  const { orderId, strip } = await getCut(id);
  const { body } = await api().get(`/api/orders/${orderId}/strips/${strip}.plt`).buffer(true).expect(200);
  return Buffer.from(body as Uint8Array).toString('latin1');
};

describe('a serial port', () => {
  test('is asked, feeds a cut to its end line by line, and says so when it goes away', async () => {
    const link: LinkTo = { by: 'serial', device: wire.port, baud: 115_200, flow: 'none' };
    expect((await reachBy(link).expect(200)).body).toEqual(link);
    const { answers, film } = await tested();
    expect([answers, film?.width]).toEqual([true, expect.closeTo(610, 0)]);
    const cut = await queued();
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    const done = await inState(cut.id, 'done', 'stopped', 'wants-film');
    expect([done.state, done.linesDone, done.isReckoned]).toEqual(['done', done.lines, false]);
    expect(await strokes()).toHaveLength(done.lines);
    await reachBy({ ...link, device: '/dev/pts/9999' }).expect(200);
    const gone = await tested();
    expect([gone.answers, gone.problem]).toEqual([false, 'there is no /dev/pts/9999']);
    expect(gone.tries.length).toBeGreaterThan(1);
  }, 180_000);

  test('is none of the machine’s own devices, and no file', async () => {
    const serial = { by: 'serial', baud: 9600, flow: 'none' };
    await reachBy({ ...serial, device: '/etc/passwd' }).expect(400);
    await reachBy({ ...serial, device: '/dev/../etc/passwd' }).expect(200);
    expect((await tested()).problem).toMatch(/^\/dev\/\.\.\/etc\/passwd is no port that cutters are at/);
    for (const device of ['/dev/null', '/dev/mem', '/dev/pts/../null'])
      for (const by of [serial, { by: 'device' }]) {
        const { baud, flow } = serial;
        await reachBy(by === serial ? { ...serial, device } : { by: 'device', device }).expect(200);
        expect([device, baud, flow, (await tested()).problem]).toEqual([device, 9600, 'none', expect.stringMatching(/no port that cutters are at/)]); // prettier-ignore
      }
  });
});

describe('a cutter that answers nothing', () => {
  test.each([
    ['over a device file', () => ({ by: 'device', device: wire.port })],
    ['over the network', () => ({ by: 'tcp', host: '127.0.0.1', port: sim.port, isSilent: true })],
  ])(
    '%s: cuts all of it, reckoned',
    async (_, link) => {
      await reachBy(link()).expect(200);
      expect(await tested()).toMatchObject({ takes: true, answers: false, problem: null });
      const [state] = (await api().get('/api/cutters').expect(200)).body as CutterState[];
      expect([state.id, state.state]).toEqual(['curlew', 'silent']);
      const cut = await queued();
      await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
      const done = await inState(cut.id, 'done', 'stopped', 'wants-film');
      expect([done.state, done.linesDone, done.isReckoned]).toEqual(['done', done.lines, true]);
      await atRest();
      expect(await strokes()).toHaveLength(done.lines);
    },
    180_000,
  );

  test('stopped, it goes on behind what it was given; or at a line that a person found', async () => {
    await reachBy({ by: 'tcp', host: '127.0.0.1', port: sim.port, isSilent: true }).expect(200);
    const cut = await queued(40);
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    while ((await getCut(cut.id)).linesDone < 5) await new Promise((done) => setTimeout(done, 30));
    await api().post(`/api/cuts/${cut.id}/stop`).expect(200);
    const stopped = await inState(cut.id, 'stopped');
    expect(stopped.linesDone).toBeLessThan(stopped.lines);
    await atRest();
    expect(await strokes()).toHaveLength(stopped.linesDone);
    await api()
      .post(`/api/cuts/${cut.id}/resume`)
      .send({ from: stopped.lines + 1 })
      .expect(422);
    // the two last ones were spoilt by a hand on the film
    await api()
      .post(`/api/cuts/${cut.id}/resume`)
      .send({ from: stopped.linesDone - 1 })
      .expect(200);
    await inState(cut.id, 'done');
    await atRest();
    // those two once more, and the blade was turned before them
    expect(await strokes()).toHaveLength(stopped.lines + 3);
  }, 180_000);
});

describe('a folder', () => {
  test('gets every cut as one file, whole; a stop takes it back while it is there', async () => {
    await reachBy({ by: 'folder', folder: '../elsewhere' }).expect(400);
    await reachBy({ by: 'folder', folder: 'curlew' }).expect(200);
    expect(await tested()).toMatchObject({ takes: true, problem: null });
    const cut = await queued();
    await api().post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await inState(cut.id, 'done');
    const name = `${cut.id}-${cut.strip}.plt`;
    expect(readdirSync(join(FOLDERS, 'curlew'))).toEqual([name]);
    expect(readFileSync(join(FOLDERS, 'curlew', name), 'latin1')).toBe(await bytesOf(cut.id));
    const other = await queued(40);
    await api().post(`/api/cuts/${other.id}/loaded`).expect(200);
    await inState(other.id, 'cutting');
    while (readdirSync(join(FOLDERS, 'curlew')).length < 2) await new Promise((done) => setTimeout(done, 20));
    await api().post(`/api/cuts/${other.id}/stop`).expect(200);
    expect((await inState(other.id, 'stopped')).linesDone).toBe(0);
    expect(readdirSync(join(FOLDERS, 'curlew'))).toEqual([name]);
  }, 180_000);
});
