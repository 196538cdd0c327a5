/** What happens when the database or a server goes away in the middle of a cut. A cluster of its own: it is restarted. */
import { afterAll, beforeAll, beforeEach, describe, expect, test } from '@jest/globals';
import type { ChildProcess } from 'node:child_process';
import { spawn } from 'node:child_process';
import pg from 'pg';
import request from 'supertest';
import type { Cut, CutRecord, Drawing } from '../contracts/cuts';
import type { Order } from '../contracts/api';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { DEMO_PEOPLE } from '../demo/people';
import type { SignedIn } from './people/signIn.testing';
import { logInAt } from './people/signIn.testing';
import { startPostgres } from '../scripts/postgres.mjs';
import { lengthOf } from './timesCut.testing';

const ROLL = { name: 'roll', width: 610, length: 22_000, toughness: 60 };

let cluster: Awaited<ReturnType<typeof startPostgres>>;
let databaseUrl: string;
let sim: RunningSim;
/** A server process of its own, and its address. */
let child: ChildProcess | undefined;
const server = { url: '' };

beforeAll(async () => {
  cluster = await startPostgres('faults', { fast: true });
  databaseUrl = cluster.fresh('jampan_faults');
  sim = await serveSim({ spec: CURLEW_SPEC, timeFactor: 12, film: ROLL });
  server.url = await start();
  const { name, password } = DEMO_PEOPLE.find(({ role }) => role === 'lead')!;
  lead = await logInAt(server.url, name, password);
}, 90_000);

afterAll(async () => {
  await end('SIGTERM');
  await sim?.close();
  cluster?.stop();
}, 30_000);

/** Starts a server process. @returns its address */
function start(): Promise<string> {
  child = spawn(process.execPath, ['scripts/program.mjs', 'server/main.ts'], {
    env: {
      ...process.env,
      DATABASE_URL: databaseUrl,
      SIMULATORS: JSON.stringify({ curlew: { host: '127.0.0.1', port: sim.port, panel: sim.panel } }),
      PORT: '0',
      LOG_LEVEL: 'silent',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  return new Promise((done, fail) => {
    child!.stdout!.on('data', (chunk: Buffer) => {
      const ready = /^ready (.+)$/m.exec(chunk.toString());
      if (ready) done(ready[1]);
    });
    child!.on('exit', () => fail(new Error('the server ended before it was ready')));
  });
}

function end(how: 'SIGKILL' | 'SIGTERM'): Promise<void> {
  if (!child || child.exitCode !== null) return Promise.resolve();
  return new Promise((done) => {
    child!.removeAllListeners('exit');
    child!.once('exit', () => done());
    child!.kill(how);
  });
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
/** Whoever asks, at a server process: log-ins lie in the database and outlive it. */
let lead: SignedIn;
const as = (at: string) => request.agent(at).set('Origin', at).set('Cookie', lead.cookie);
const post = (path: string, body: object = {}, at = server.url) => as(at).post(path).send(body);
const cutAt = async (id: number, at = server.url): Promise<Cut> =>
  (await as(at).get(`/api/cuts/${id}`).expect(200)).body as Cut;

async function until(id: number, good: (cut: Cut) => boolean, at = server.url): Promise<Cut> {
  const end = Date.now() + 60_000;
  for (;;) {
    const cut = await cutAt(id, at).catch(() => undefined);
    if (cut && good(cut)) return cut;
    if (Date.now() > end) throw new Error(`still ${JSON.stringify(cut).slice(0, 300)}`);
    await pause(50);
  }
}

async function sql<Row extends pg.QueryResultRow>(text: string, values: unknown[] = []): Promise<Row[]> {
  const client = new pg.Client({ connectionString: databaseUrl });
  client.on('error', () => {});
  await client.connect();
  try {
    return (await client.query<Row>(text, values)).rows;
  } finally {
    await client.end();
  }
}

/** Some dozens of discs on one film, queued; whatever else waits is taken out of the way. */
async function queueDiscs(at = server.url): Promise<Cut> {
  for (const open of (await as(at).get('/api/cuts')).body as Cut[]) {
    await post(`/api/cuts/${open.id}/stop`, {}, at);
    await until(open.id, ({ state }) => !['cutting', 'stopping', 'checking'].includes(state), at);
    await post(`/api/cuts/${open.id}/cancel`, {}, at);
  }
  const discs = Array.from(
    { length: 40 },
    (_, i) => `<circle cx="${30 + 45 * (i % 10)}" cy="${30 + 45 * Math.floor(i / 10)}" r="${14 + (i % 5)}"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="500mm" height="200mm" viewBox="0 0 500 200">${discs.join('')}</svg>`;
  const order = (await as(at).post('/api/orders').attach('file', Buffer.from(svg), 'discs.svg').expect(200))
    .body as Order;
  return ((await post(`/api/orders/${order.id}/queue`, { revision: 0 }, at).expect(200)).body as Cut[])[0];
}

/** The knife's way on the film by the way it should go: 1 when every line is cut once. */
async function timesCut(id: number, at = server.url): Promise<number> {
  const drawing = (await as(at).get(`/api/cuts/${id}/drawing`).expect(200)).body as Drawing;
  const { lines } = (await (await fetch(`${sim.panel}/record`)).json()) as CutRecord;
  const way = lines.map(({ points }) => lengthOf(points)).reduce((a, b) => a + b, 0);
  const wanted = drawing.lines.map((points) => lengthOf(points)).reduce((a, b) => a + b, 0);
  return way / wanted;
}

beforeEach(async () => {
  await fetch(`${sim.panel}/load`, { method: 'POST', body: JSON.stringify(ROLL) });
});

describe('the database', () => {
  test('restarted in the middle of a cut: the server lives and every line is cut once', async () => {
    const cut = await queueDiscs();
    await post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await until(cut.id, ({ linesDone }) => linesDone >= 4);
    cluster.restart();
    const { state, linesDone } = await until(cut.id, (c) => c.state === 'done' || c.state === 'stopped');
    if (state === 'stopped') {
      expect(linesDone).toBeGreaterThanOrEqual(4);
      await post(`/api/cuts/${cut.id}/resume`, { from: 'next-line' }).expect(200);
    }
    const done = await until(cut.id, (c) => c.state === 'done');
    expect(done.linesDone).toBe(done.lines);
    const way = await timesCut(cut.id);
    expect(way).toBeGreaterThan(0.95);
    expect(way).toBeLessThan(1.05);
    expect(done.deviation).toBeLessThanOrEqual(0.05);
    expect(done.asCut).toMatchObject({ twice: [], missing: [] });
  }, 90_000);

  test('while it is away a press is answered with a sentence, and nothing is half done', async () => {
    const cut = await queueDiscs();
    await sql('select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid()');
    const answer = await post(`/api/cuts/${cut.id}/loaded`);
    expect([200, 503]).toContain(answer.status);
    if (answer.status === 503) {
      expect(answer.body.message).toMatch(/database cannot be reached/);
      await post(`/api/cuts/${cut.id}/loaded`).expect(200);
    }
    await until(cut.id, ({ state }) => state === 'done');
  }, 90_000);

  test('without LISTEN, Stop still stops; LISTEN comes back, once', async () => {
    const cut = await queueDiscs();
    await post(`/api/cuts/${cut.id}/loaded`).expect(200);
    await until(cut.id, ({ linesDone }) => linesDone >= 3);
    const cutOff = `select pg_terminate_backend(pid) from pg_stat_activity where query ilike 'listen jam_pan%'`;
    for (let i = 0; i < 3; i++) {
      await sql(cutOff);
      await pause(30);
    }
    await post(`/api/cuts/${cut.id}/stop`).expect(200);
    const stopped = await until(cut.id, ({ state }) => state === 'stopped');
    expect(stopped.linesDone).toBeLessThan(stopped.lines);
    const listening = async (): Promise<number> =>
      (
        await sql<{ n: number }>(
          `select count(*)::int as n from pg_stat_activity where query ilike 'listen jam_pan%'`,
        )
      )[0].n;
    // connections that were cut off take their time to go; what came back twice would stay
    for (const end = Date.now() + 15_000; (await listening()) !== 1 && Date.now() < end;) await pause(200);
    await pause(2000);
    expect(await listening()).toBe(1);
    await post(`/api/cuts/${cut.id}/cancel`).expect(200);
  }, 90_000);

  test('only one cut has a cutter, and a queue that a crash left standing goes on by itself', async () => {
    const first = await queueDiscs();
    const { body: queued } = await post(`/api/orders/${first.orderId}/queue`, { revision: 0 });
    expect(queued.code).toBe('already-queued');
    const copy = `insert into cuts (${COPIED}, state) select ${COPIED}, $2 from cuts where id = $1 returning id`;
    await expect(sql(copy, [first.id, 'checking'])).rejects.toThrow(/cuts_one_active/);
    const [next] = await sql<{ id: number }>(copy, [first.id, 'queued']);
    // a server died between “done” and the next cut
    await sql(`update cuts set state = 'done' where id = $1`, [first.id]);
    await until(next.id, ({ state }) => state === 'wants-film');
    await post(`/api/cuts/${next.id}/cancel`).expect(200);
  }, 60_000);
});

const COPIED =
  'order_id, revision, cutter_id, position, "of", strip, film, recipe, mirrored, copies, roll_width, cuttable, edges, length, cut_length, seconds, program, drawing, lines, written_with';

describe('two servers on one database', () => {
  test('what happens at one is heard at the other; one killed in the middle of a cut, the other goes on with it', async () => {
    const first = { child: child!, url: server.url };
    server.url = await start();
    const second = server.url;
    const cut = await queueDiscs(first.url);
    const heard: string[] = [];
    const listening = new AbortController();
    const stream = await fetch(`${second}/api/events`, {
      headers: { Cookie: lead.cookie },
      signal: listening.signal,
    });
    const reading = (async () => {
      const reader = stream.body!.getReader();
      for (let part = await reader.read(); !part.done; part = await reader.read())
        heard.push(Buffer.from(part.value).toString());
    })().catch(() => {});
    await post(`/api/cuts/${cut.id}/loaded`, {}, first.url).expect(200);
    await until(cut.id, ({ linesDone }) => linesDone >= 6, second);
    expect(heard.join('')).toMatch(new RegExp(`"kind":"heads",.*"cutId":${cut.id}\\b`));
    // whichever of the two feeds it: both are gone in turn, and one is always there
    const ends = async (which: ChildProcess): Promise<void> => {
      which.removeAllListeners('exit');
      const over = new Promise((done) => which.once('exit', done));
      which.kill('SIGKILL');
      await over;
    };
    await ends(first.child);
    const met = await until(cut.id, ({ state, linesDone }) => state === 'stopped' || linesDone >= 12, second);
    if (met.state === 'stopped')
      await post(`/api/cuts/${cut.id}/resume`, { from: 'next-line' }, second).expect(200);
    const done = await until(cut.id, ({ state }) => state === 'done', second);
    expect(done.linesDone).toBe(done.lines);
    const way = await timesCut(cut.id, second);
    expect(way).toBeGreaterThan(0.95);
    expect(way).toBeLessThan(1.05);
    listening.abort();
    await reading;
  }, 120_000);
});

describe('a server killed with -9', () => {
  test('three times in one cut: every line is on the film once', async () => {
    let at = server.url;
    const cut = await queueDiscs(at);
    await post(`/api/cuts/${cut.id}/loaded`, {}, at).expect(200);
    for (const lines of [5, 14, 23]) {
      await until(cut.id, ({ linesDone }) => linesDone >= lines, at);
      await end('SIGKILL');
      at = server.url = await start();
      const stopped = await until(cut.id, ({ state }) => state === 'stopped', at);
      expect(stopped.problem).toContain('went away');
      await post(`/api/cuts/${cut.id}/resume`, { from: 'next-line' }, at).expect(200);
    }
    const done = await until(cut.id, ({ state }) => state === 'done', at);
    expect(done.linesDone).toBe(done.lines);
    const way = await timesCut(cut.id, at);
    expect(way).toBeGreaterThan(0.95);
    expect(way).toBeLessThan(1.05);
  }, 180_000);
});
