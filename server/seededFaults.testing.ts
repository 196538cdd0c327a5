/**
 * Cuts on several machines at once, each met by a fault at a random moment, and an operator who does what the page says: at the
 * end every designed line is on the film once, by what the machines recorded. The seed and the run are named when one fails.
 * Files of tests take parts of the runs, so that they go side by side.
 */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { eq } from 'drizzle-orm';
import type { Order } from '../contracts/api';
import type { Cut, Drawing, ResumeFrom } from '../contracts/cuts';
import { toStrip } from '../core/devicelang/axes';
import { largest, smallest } from '../core/geometry/lists';
import { placesMapped } from '../core/geometry/spot';
import { random as seeded } from '../core/random';
import { landmarksOf } from '../core/toolpath/landmarks';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { CURLEW } from '../demo/shop';
import { freshDatabase } from './db/freshDatabase.testing';
import { cuts, cutShares, cutters, leases } from './db/schema';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';
import { unpack } from './services/pack';
import type { Stroke } from './timesCut.testing';
import { FOUND, NEAR, timesCut } from './timesCut.testing';
import { IS_LONG, sample } from '../core/sample.testing';

const FIRST_SEED = Number(process.env.SEED ?? 20261128);
const RUNS = sample(
  Array.from({ length: Number(process.env.RUNS ?? 200) }, (_, run) => run),
  40,
);
/** Files that share the runs, and machines of each. */
const [PARTS, MACHINES] = [2, 8];
const FASTER = 60;
const ROLL = { name: 'roll', width: 610, length: 22_000, toughness: 60 };

let server: RunningServer;
let sims: RunningSim[];
let lead: SignedIn;
let base: typeof cuts.$inferSelect;
let drawing: Drawing;
const nameOf = (machine: number): string => `curlew-${machine}`;

async function open(part: number): Promise<void> {
  [server, ...sims] = await Promise.all([
    openServer({ databaseUrl: await freshDatabase(`jampan_seeded_${part}`) }),
    ...Array.from({ length: MACHINES }, () =>
      serveSim({ spec: CURLEW_SPEC, timeFactor: FASTER, film: ROLL }),
    ),
  ]);
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, { curlew: nowhere });
  const { db } = server.services;
  await db.insert(cutters).values(
    sims.map(({ port, panel }, i) => ({
      id: nameOf(i),
      data: { ...CURLEW, id: nameOf(i), name: `Curlew ${i}` },
      link: { host: '127.0.0.1', port, panel },
    })),
  );
  lead = await signIn(server);
  // signs with corners, some inside others, over a metre of film
  const shapes = Array.from(
    { length: 14 },
    (_, i) =>
      `<path fill="#4b1f4a" fill-rule="evenodd" d="M${20 + 75 * i} ${20 + 60 * (i % 3)}h${30 + i}v${25 + 2 * i}l-14 9z m10 9h9v9h-9z"/>`,
  );
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1100mm" height="300mm" viewBox="0 0 1100 300">${shapes.join('')}</svg>`;
  const { body } = await lead.agent
    .post('/api/orders')
    .attach('file', Buffer.from(svg), 'signs.svg')
    .expect(200);
  const order = body as Order;
  const queued = await lead.agent.post(`/api/orders/${order.id}/queue`).send({ revision: 0, hold: true });
  [base] = await db
    .select()
    .from(cuts)
    .where(eq(cuts.id, (queued.body as Cut[])[0].id));
  drawing = unpack<Drawing>(base.drawing);
}
async function close(): Promise<void> {
  await server.close();
  await Promise.all(sims.map((sim) => sim.close()));
}

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
/** Between two looks at a machine: one process looks at all of its own. */
const LOOKS_MS = 120;
const say = (id: number, word: string, body: object = {}) =>
  lead.agent.post(`/api/cuts/${id}/${word}`).send(body);
/** A machine that is busy with other work has no time for a while and says so: then a page asks again too. */
async function getCut(id: number): Promise<Cut> {
  for (let k = 0; ; k++) {
    const { status, body } = await lead.agent.get(`/api/cuts/${id}`);
    if (status === 200) return body as Cut;
    if (status !== 503 || k > 20) throw new Error(`${status} for cut ${id}`);
    await pause(500);
  }
}
async function until(id: number, good: (cut: Cut) => boolean, ms = 40_000): Promise<Cut> {
  for (const end = Date.now() + ms; ;) {
    const cut = await getCut(id);
    if (good(cut)) return cut;
    if (Date.now() > end) throw new Error(`still ${cut.state} at line ${cut.linesDone}: ${cut.problem}`);
    await pause(LOOKS_MS);
  }
}
const panel = (machine: number, path: string, body?: object) =>
  fetch(`${sims[machine].panel}${path}`, { method: 'POST', body: body && JSON.stringify(body) });

/** What the knife left, mm on the strip as its film was put in. */
function strokesOf(machine: number): Stroke[] {
  const lines = sims[machine].strokes();
  const onStrip = toStrip({ ...CURLEW.device, step: 1 }, base.cuttable);
  const newest = largest(lines.map(({ film }) => film));
  const along = (film: number): number => (film === newest ? movedAlong[machine] : 0);
  return lines.map(({ points, film }) => ({
    film,
    points: placesMapped(points, ([x, y]) => {
      const [sx, sy] = onStrip(x, y);
      return [sx + along(film), sy];
    }),
  }));
}
/** mm by which what is left lies nearer to the start of the film that was put in last, machine by machine. */
const movedAlong = Array<number>(MACHINES).fill(0);
/** Where lines begin along the film: that new film is begun there is the whole point of it. */
const startOf = (lines: Drawing['lines']): number =>
  smallest(lines.flatMap((line) => line.filter((_, i) => i % 2 === 0)));
async function goOnNewFilm(machine: number, cut: Cut, line: number): Promise<void> {
  if ((await say(cut.id, 'new-film', { line })).status !== 200) return;
  movedAlong[machine] = startOf(drawing.lines.slice(line - 1)) - startOf(drawing.lines);
}
interface Run {
  readonly machine: number;
  readonly cut: Cut;
  readonly random: () => number;
}
const between = (random: () => number, least: number, most: number): number =>
  least + random() * (most - least);

/** The first line that is not whole on the film where it belongs. */
const firstMissing = (machine: number): number =>
  timesCut(strokesOf(machine), drawing).findIndex((times) => times < WHOLE);
const WHOLE = 0.93;
const atRest = async (machine: number): Promise<void> => {
  while (sims[machine].status().busy) await pause(LOOKS_MS);
};

/** ms within which a feeder knows of a stop. */
const FEEDER_LOOKS_MS = 900;
const advance = (machine: number, seconds: number) => panel(machine, '/advance', { seconds });
/** Turns a machine's clock on until its cut is as it should be, however busy the machine is that this runs on. */
async function turned(machine: number, id: number, good: (cut: Cut) => boolean): Promise<Cut> {
  for (let k = 0; k < 2000; k++) {
    const cut = await getCut(id);
    if (good(cut)) return cut;
    await advance(machine, 0.5);
    await pause(5);
  }
  throw new Error('its clock was turned in vain');
}

/** Each fault, and what an operator does then. */
const FAULTS = {
  'cable out': async ({ machine, cut }: Run) => {
    await panel(machine, '/pull-cable');
    await until(cut.id, ({ state }) => state === 'stopped' || state === 'done');
    await atRest(machine);
    await say(cut.id, 'resume', { from: 'next-line' });
  },
  'power lost': async ({ machine, cut, random }: Run) => {
    // some are hit twice, and somebody moves the head away to look beneath it
    for (let left = random() < 0.4 ? 2 : 1; left > 0; left--) {
      await panel(machine, '/switch-off');
      const lost = await until(cut.id, ({ state }) => state === 'stopped' || state === 'done');
      if (lost.state === 'done') return;
      if (random() < 0.4) await say(cut.id, 'jog', { dx: between(random, -20, 20), dy: 15 });
      await say(cut.id, 'resume', { from: whereToGoOn(machine, lost) });
      const further = lost.linesDone + Math.floor(between(random, 0, 6));
      if (left > 1)
        await until(
          cut.id,
          ({ state, linesDone }) => state !== 'checking' && (state !== 'cutting' || linesDone >= further),
        );
    }
  },
  'another server has its lease': async ({ machine, cut }: Run) => {
    const { db } = server.services;
    const expiresAt = Date.now() + 1500;
    await db
      .update(leases)
      .set({ holder: 'another', expiresAt })
      .where(eq(leases.cutterId, nameOf(machine)));
    await until(cut.id, ({ state }) => state === 'stopped' || state === 'done');
    await atRest(machine);
    await say(cut.id, 'resume', { from: 'next-line' });
  },
  'a person stops it': async ({ machine, cut }: Run) => {
    await say(cut.id, 'stop');
    await until(cut.id, ({ state }) => state === 'stopped' || state === 'done');
    await atRest(machine);
    await say(cut.id, 'resume', { from: 'next-line' });
  },
  'film at its end': async ({ machine, cut, random }: Run) => {
    for (;;) {
      const { state } = await getCut(cut.id);
      if (sims[machine].status().display === 'END OF FILM' || state === 'done') break;
      await pause(LOOKS_MS);
    }
    await say(cut.id, 'stop');
    await until(cut.id, ({ state }) => state === 'stopped' || state === 'done');
    const missing = firstMissing(machine);
    await panel(machine, '/load', ROLL);
    if (missing < 0) return;
    if (random() < 0.7) await goOnNewFilm(machine, cut, missing + 1);
    else await say(cut.id, 'resume', { from: missing + 1 });
  },
  'film slips': async ({ machine, cut, random }: Run) => {
    const slip = { turn: between(random, -0.5, 0.5), x: between(random, 3, 9), y: between(random, -14, -10) };
    await panel(machine, '/slip', slip);
    // an operator needs a moment to see it
    await advance(machine, between(random, 0, 4));
    await say(cut.id, 'stop');
    await pause(FEEDER_LOOKS_MS);
    const { state } = await turned(machine, cut.id, (one) => one.state === 'stopped' || one.state === 'done');
    await panel(machine, '/pace', { times: FASTER });
    if (state === 'done') return;
    await atRest(machine);
    const missing = firstMissing(machine);
    const whole = drawing.lines.slice(0, missing);
    const marks = landmarksOf(drawing.design, whole);
    if (!marks) return void (await beginAgain(machine, cut));
    const onMachine = toStrip({ ...CURLEW.device, step: 1 }, base.cuttable);
    const places = [];
    for (const mark of marks) {
      // where that corner is now, by the eye: to a tenth of a millimetre or so
      const [x, y] = onMachine(...mark); // its own inverse: across counts from the other edge
      const t = (slip.turn * Math.PI) / 180;
      const [c, s] = [Math.cos(t), Math.sin(t)];
      const there = onMachine(c * x - s * y + slip.x, s * x + c * y + slip.y);
      const head = (await say(cut.id, 'jog', { dx: 0, dy: 0 }).expect(200)).body as { x: number; y: number };
      const by = {
        dx: there[0] - head.x + between(random, -0.1, 0.1),
        dy: there[1] - head.y + between(random, -0.1, 0.1),
      };
      const found = (await say(cut.id, 'jog', by).expect(200)).body as { x: number; y: number };
      places.push({ cut: mark, found: [found.x, found.y] });
    }
    const went = await say(cut.id, 'slipped', { line: missing + 1, places });
    if (went.status !== 200) await beginAgain(machine, cut);
  },
} as const;
type Fault = keyof typeof FAULTS;
/** mm from the design: as far as if nothing had happened. */
const OFF_AT_MOST = 0.05;

async function beginAgain(machine: number, cut: Cut): Promise<void> {
  await panel(machine, '/load', ROLL);
  await say(cut.id, 'resume', { from: 'start' });
}

/** One cut more for a machine, as the one that was queued. */
async function another(machine: number): Promise<Cut> {
  const { db } = server.services;
  const { id: _id, queuedAt: _q, movedAt: _m, ...like } = base;
  const [{ id }] = await db
    .insert(cuts)
    // the same once more: nobody asks whether its order would be cut otherwise by now
    .values({ ...like, cutterId: nameOf(machine), state: 'wants-film', againOf: base.id })
    .returning({ id: cuts.id });
  await db.insert(cutShares).values({ cutId: id, orderId: base.orderId, revision: 0, copies: 1, share: 1 });
  return getCut(id);
}

/** Where nobody can tell how far it came, a person looks at the film. */
function whereToGoOn(machine: number, { lines, problem, inDoubt }: Cut): ResumeFrom {
  if (inDoubt !== null) return timesCut(strokesOf(machine), drawing)[inDoubt - 1] > 0.5 ? 'head' : inDoubt;
  if (!problem?.includes('nobody can tell')) return 'next-line';
  const missing = firstMissing(machine);
  return missing < 0 ? lines : missing + 1;
}

async function runOne(machine: number, run: number): Promise<Fault> {
  const random = seeded((FIRST_SEED * (run + 1)) % 2147483647);
  // seeds that follow one another begin alike
  for (let k = 0; k < 3; k++) random();
  const kinds = Object.keys(FAULTS) as Fault[];
  const fault = kinds[Math.floor(random() * kinds.length)];
  const ends = fault === 'film at its end' ? between(random, 60, 1000) : undefined;
  movedAlong[machine] = 0;
  await panel(machine, '/load', { ...ROLL, ...(ends && { ends }) });
  // what was cut after it slipped and before it was stopped has to be cut again: that is done while it is cut
  const isTurned = fault === 'film slips';
  if (isTurned) await panel(machine, '/pace', { times: 0 });
  const cut = await another(machine);
  await say(cut.id, 'loaded').expect(200);
  const latest = fault === 'film slips' ? cut.lines / 2 : cut.lines - 1;
  const when = ends === undefined ? Math.floor(between(random, 0, latest)) : 0;
  const isMet = ({ state, linesDone }: Cut): boolean =>
    // stopped by nobody: the machine that this runs on had no time for it, and that is fault enough
    (state === 'cutting' && linesDone >= when) || state === 'done' || state === 'stopped';
  const met = await (isTurned ? turned(machine, cut.id, isMet) : until(cut.id, isMet));
  if (met.state === 'cutting') await FAULTS[fault]({ machine, cut, random });
  if (isTurned) await panel(machine, '/pace', { times: FASTER });
  let end = await until(cut.id, ({ state }) => ['done', 'stopped', 'wants-film'].includes(state));
  for (let k = 0; end.state !== 'done' && k < 5; k++) {
    await atRest(machine);
    await say(cut.id, 'resume', { from: whereToGoOn(machine, end) });
    end = await until(cut.id, ({ state }) => ['done', 'stopped', 'wants-film'].includes(state));
  }
  await atRest(machine);
  const times = timesCut(strokesOf(machine), drawing, fault === 'film slips' ? FOUND : NEAR);
  const wrong = times.flatMap((often, line) =>
    often < WHOLE || often > 1.25 ? [`line ${line + 1}: ${often.toFixed(2)} times`] : [],
  );
  expect({ run, fault, state: end.state, wrong }).toEqual({ run, fault, state: 'done', wrong: [] });
  // and so it is said; where film slipped in the middle of a line some is cut twice, or along another, and that is said too
  const { missing, twice } = end.asCut!;
  const said = {
    missing,
    twice: fault === 'film slips' ? [] : twice,
    isNear: fault === 'film slips' || end.deviation! <= OFF_AT_MOST,
  };
  expect({ run, fault, ...said }).toEqual({ run, fault, missing: [], twice: [], isNear: true });
  return fault;
}

/** @param part of the runs, from 0 */
export function seededFaults(part: number): void {
  const runs = RUNS.filter((_, i) => i % PARTS === part);
  beforeAll(() => open(part), 90_000);
  afterAll(close, 30_000);
  test(
    `${runs.length} of ${RUNS.length} runs, a fault in each: every designed line is cut once`,
    async () => {
      const left = [...runs];
      const met = new Map<Fault, number>();
      const lane = async (machine: number): Promise<void> => {
        for (let run = left.shift(); run !== undefined; run = left.shift()) {
          const fault = await runOne(machine, run);
          met.set(fault, (met.get(fault) ?? 0) + 1);
        }
      };
      await Promise.all(sims.map((_, machine) => lane(machine)));
      // of few runs none needs to have met every fault
      const kinds = Object.keys(FAULTS) as Fault[];
      const least = IS_LONG ? 0.075 * runs.length : 0;
      expect(kinds.filter((fault) => (met.get(fault) ?? 0) < least)).toEqual([]);
      expect(met.size).toBeGreaterThanOrEqual(Math.min(kinds.length, runs.length) / 2);
    },
    Math.max(400_000, 2000 * RUNS.length),
  );
}
