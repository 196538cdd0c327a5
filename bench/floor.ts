/**
 * Fifty machines fed at once by one server, with fifty people beside them and two hundred pages that listen: whether a
 * machine waits for what it is to do next, how soon people are answered and pages hear, what the server takes of memory, and
 * what too many questions at once are answered. `bench/floor.ts 600` looks for ten minutes.
 */
import { readFileSync } from 'node:fs';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { eq } from 'drizzle-orm';
import pino from 'pino';
import type { Order } from '../contracts/api';
import type { Cut } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import { serveSim } from '../cutter-sim/serve';
import { CURLEW } from '../demo/shop';
import { logIn } from '../e2e/shop';
import { startUntilReady } from '../scripts/run.mjs';
import { connect } from '../server/db/connect';
import { cuts, cutShares, cutters } from '../server/db/schema';
import { row } from './row';
import { ofSize } from './size';

const [MACHINES, CLIENTS, LISTENERS] = [ofSize(50, 2), ofSize(50, 2), ofSize(200, 3)];
/** s of measuring, between two questions of one person, and within which all machines have begun. */
const [SECONDS, THINK_S, BEGIN_S] = [Number(process.argv[2] ?? ofSize(40, 4)), 1, 90];
/** Questions at the same moment. */
const RUSH = ofSize(2000, 30);
const ROLL = { name: 'roll', width: 610, length: 200_000, toughness: 60 };

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const percentile = (all: readonly number[], p: number): number =>
  all.toSorted((a, b) => a - b)[Math.min(all.length - 1, Math.floor(all.length * p))] ?? NaN;

const databaseUrl = process.env.DATABASE_URL!;
const sims = await Promise.all(
  Array.from({ length: MACHINES }, () => serveSim({ spec: CURLEW_SPEC, timeFactor: 1, film: ROLL })),
);
const { said: url, child } = await startUntilReady(
  process.execPath,
  ['scripts/program.mjs', 'server/main.ts'],
  {
    DATABASE_URL: databaseUrl,
    CUTTERS: JSON.stringify({ curlew: { host: '127.0.0.1', port: sims[0].port } }),
    LOG_LEVEL: 'error',
  },
);
child.removeAllListeners('exit');
process.on('exit', () => child.kill('SIGKILL'));
const { db, close } = await connect(databaseUrl, pino({ level: 'error' }));
const nameOf = (i: number): string => `bench-${i}`;

const headers = { Origin: url, 'Content-Type': 'application/json', Cookie: await logIn(url, 'lead') };
async function asked<T>(path: string, how: RequestInit = {}): Promise<T> {
  const answer = await fetch(`${url}${path}`, { headers, ...how });
  if (!answer.ok) throw new Error(`${path}: ${answer.status} ${await answer.text()}`);
  return (await answer.json()) as T;
}
const post = <T>(path: string, body: object = {}): Promise<T> =>
  asked<T>(path, { method: 'POST', body: JSON.stringify(body) });

/** Small shapes over some metres: minutes of cutting. */
const drawing = (): string => {
  const shapes = Array.from({ length: 900 }, (_, i) => {
    const [x, y] = [12 + 22 * (i % 90), 12 + 22 * Math.floor(i / 90)];
    return `<circle fill="#4b1f4a" cx="${x}" cy="${y}" r="${6 + (i % 4)}"/>`;
  });
  return `<svg xmlns="http://www.w3.org/2000/svg" width="2000mm" height="240mm" viewBox="0 0 2000 240">${shapes.join('')}</svg>`;
};

async function newOrder(): Promise<Order> {
  const form = new FormData();
  form.append('file', new Blob([drawing()]), 'discs.svg');
  const { Origin, Cookie } = headers;
  return asked<Order>('/api/orders', { method: 'POST', headers: { Origin, Cookie }, body: form });
}

/** The cut of the order for every machine, as the same once more: nobody asks whether it would be another by now. */
async function cutsFor(order: Order): Promise<{ readonly ids: readonly number[]; readonly strip: string }> {
  const [first] = await post<Cut[]>(`/api/orders/${order.id}/queue`, { revision: 1, hold: true });
  await db.insert(cutters).values(
    sims.map(({ port }, i) => ({
      id: nameOf(i),
      data: { ...CURLEW, id: nameOf(i), name: `Bench ${i}` },
      link: { host: '127.0.0.1', port },
    })),
  );
  const [{ id: _id, queuedAt: _queued, movedAt: _moved, ...base }] = await db
    .select()
    .from(cuts)
    .where(eq(cuts.id, first.id));
  const made = await db
    .insert(cuts)
    .values(sims.map((_, i) => ({ ...base, cutterId: nameOf(i), state: 'wants-film', againOf: first.id })))
    .returning({ id: cuts.id });
  const ids = made.map(({ id }) => id);
  await db
    .insert(cutShares)
    .values(ids.map((cutId) => ({ cutId, orderId: order.id, revision: 1, copies: 1, share: 1 })));
  return { ids, strip: base.strip };
}

const order = await newOrder();
// machines that come into the shop later are not planned for
const edits = editsBetween(order.choices, {
  ...order.choices,
  cutter: { ...order.choices.cutter, order: 'curlew' },
});
await asked(`/api/orders/${order.id}/choices`, { method: 'PATCH', body: JSON.stringify({ base: 0, edits }) });
const { ids, strip } = await cutsFor(order);

const memory = (): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) / 1024;

/** Pages that listen, and when each last heard of one cut. */
const heard = new Map<number, number>();
const listening = new AbortController();
let waitsFor = '';
for (let k = 0; k < LISTENERS; k++) {
  const stream = await fetch(`${url}/api/events`, { headers, signal: listening.signal });
  void (async () => {
    const reader = stream.body!.getReader();
    const text = new TextDecoder();
    for (let part = await reader.read(); !part.done; part = await reader.read())
      if (waitsFor && text.decode(part.value).includes(waitsFor)) heard.set(k, performance.now());
  })().catch(() => {});
}

const open = async (): Promise<Cut[]> =>
  (await asked<Cut[]>('/api/cuts')).filter(({ id }) => ids.includes(id));
for (const id of ids) await post(`/api/cuts/${id}/loaded`);
const latest = performance.now() + 1000 * BEGIN_S;
for (let all = await open(); all.some(({ linesDone }) => linesDone < 3); all = await open()) {
  if (performance.now() > latest) {
    const late = all.filter(({ linesDone }) => linesDone < 3);
    throw new Error(`${late.length} did not begin: ${late[0].state}, ${late[0].problem}`);
  }
  await pause(300);
}

const [before, until] = [memory(), performance.now() + 1000 * SECONDS];
let [looks, dry] = [0, 0];
const watching = setInterval(() => {
  for (const { status } of sims) {
    looks++;
    if (!status().busy) dry++;
  }
}, 20);
// what is measured here waits at times for machines and pages in this same process
const own = monitorEventLoopDelay({ resolution: 5 });
own.enable();

const took = { list: [] as number[], order: [] as number[], film: [] as number[] };
let refused = 0;
async function client(k: number): Promise<void> {
  const asks = [
    ['list', '/api/orders'],
    ['order', `/api/orders/${order.id}`],
    ['film', `/api/orders/${order.id}/strips/${strip}.plt`],
  ] as const;
  await pause((1000 * THINK_S * k) / CLIENTS);
  for (let i = k; performance.now() < until; i++) {
    const [what, path] = asks[i % asks.length];
    const begun = performance.now();
    const answer = await fetch(`${url}${path}`, { headers });
    await answer.arrayBuffer();
    if (answer.ok) took[what].push(performance.now() - begun);
    else refused++;
    await pause(1000 * THINK_S);
  }
}
const delays: number[] = [];
async function nudging(): Promise<void> {
  for (let i = 0; performance.now() < until - 3000; i++) {
    const id = ids[i % ids.length];
    heard.clear();
    waitsFor = `"kind":"cut","cutId":${id},`;
    const begun = performance.now();
    await post(`/api/cuts/${id}/nudge`, { kind: 'kiss', force: 80 + (i % 5) });
    await pause(1200);
    for (let k = 0; k < LISTENERS; k++) delays.push((heard.get(k) ?? Infinity) - begun);
  }
}
await Promise.all([nudging(), ...Array.from({ length: CLIENTS }, (_, k) => client(k))]);
const states = new Set((await open()).map(({ state }) => state));
const after = memory();

/** How many of each status, and what the last refusal says. */
async function rush(): Promise<string> {
  const answers = await Promise.all(
    Array.from({ length: RUSH }, async () => {
      const answer = await fetch(`${url}/api/orders`, { headers });
      return { status: answer.status, text: await answer.text() };
    }),
  );
  const of = (status: number): number => answers.filter((one) => one.status === status).length;
  const said = answers.find(({ status }) => status === 503)?.text ?? '';
  console.log(said);
  return `${of(200)} × 200, ${of(503)} × 503, ${answers.length - of(200) - of(503)} else`;
}

const ms = (value: number): string => `${value.toFixed(0)} ms`;
row(`${MACHINES} machines fed at once: still cutting`, [...states].join(' '), 'cutting');
row('looks at which one had nothing to do', `${dry} of ${looks}`, 'none');
row(`p95 of the list of orders, ${CLIENTS} people`, ms(percentile(took.list, 0.95)), '≤ 150 ms');
row('p95 of one order', ms(percentile(took.order, 0.95)), '≤ 150 ms');
row('p95 of a film’s HP-GL', ms(percentile(took.film, 0.95)), '≤ 400 ms');
row('turned away of them', `${refused}`, 'none');
row(`p95 until one of ${LISTENERS} pages hears`, ms(percentile(delays, 0.95)), '< 250 ms');
row('of this, p95 of waiting for this process itself', ms(own.percentile(95) / 1e6), '');
row('memory of the server, before and after', `${before.toFixed(0)}, ${after.toFixed(0)} MB`, 'flat');
clearInterval(watching);
row(`${RUSH} questions at once`, await rush(), '503 with a sentence, nothing else');
row('answered after that', String((await fetch(`${url}/api/health`, { headers })).status), '200');
listening.abort();
await close();
process.exit(0);
