/** A shop with one machine at work, Curlew, for tests beside it. */
import { readFileSync } from 'node:fs';
import type { Order } from '../contracts/api';
import type { Cut } from '../contracts/cuts';
import { editsBetween } from '../contracts/edits';
import type { Choices } from '../core/plan/choices';
import { CURLEW_SPEC } from '../cutter-sim/machines';
import type { RunningSim } from '../cutter-sim/serve';
import { serveSim } from '../cutter-sim/serve';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

/** How many times as fast as a clock its machine works. */
const [USUAL, HURRIED] = [20, 400];

/** @param database a name of its own */
export async function atCurlew(database: string): Promise<AtCurlew> {
  const [server, sim] = await Promise.all([
    openServer({ databaseUrl: await freshDatabase(database), filesPerMinute: 1000 }),
    serveSim({ spec: CURLEW_SPEC, timeFactor: USUAL, film: { name: 'roll', width: 610, length: 22_000, toughness: 60 } }), // prettier-ignore
  ]);
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, {
    curlew: { host: '127.0.0.1', port: sim.port, panel: sim.panel },
    heron: nowhere,
    plover: nowhere,
  });
  return new AtCurlew(server, sim, await signIn(server));
}

export class AtCurlew {
  constructor(
    readonly server: RunningServer,
    readonly sim: RunningSim,
    readonly lead: SignedIn,
  ) {}

  readonly api = () => this.lead.agent;
  async close(): Promise<void> {
    await this.server.close();
    await this.sim.close();
  }

  readonly get = async <T>(path: string): Promise<T> => (await this.api().get(path).expect(200)).body as T;
  readonly say = (id: number, word: string, body: object = {}) =>
    this.api().post(`/api/cuts/${id}/${word}`).send(body);
  readonly getCut = (id: number): Promise<Cut> => this.get<Cut>(`/api/cuts/${id}`);
  readonly until = async (id: number, good: (cut: Cut) => boolean): Promise<Cut> => {
    for (let i = 0; i < 1200; i++) {
      const cut = await this.getCut(id);
      if (good(cut)) return cut;
      await new Promise((done) => setTimeout(done, 25));
    }
    throw new Error('it came to nothing');
  };
  /** While a test waits for the end of a cut, its machine works faster. */
  readonly inState = async (id: number, ...states: string[]): Promise<Cut> => {
    const hurries = states.includes('done');
    if (hurries) await this.pace(HURRIED);
    const cut = await this.until(id, ({ state }) => states.includes(state));
    if (hurries) await this.pace(USUAL);
    return cut;
  };
  private readonly pace = (times: number): Promise<Response> =>
    fetch(`${this.sim.panel}/pace`, { method: 'POST', body: JSON.stringify({ times }) });

  /** An order of the demo's wren, its hull's colour alone, with as many copies. */
  async order(copies: number, choose: (usual: Choices) => Partial<Choices> = () => ({})): Promise<Order> {
    const file = readFileSync('demo/art/marsh-wren.svg');
    const made = (await this.api().post('/api/orders').attach('file', file, 'wren.svg').expect(200))
      .body as Order;
    const usual = made.choices as Choices;
    const after = {
      ...usual,
      artwork: { ...usual.artwork, width: 420 },
      films: { ...usual.films, off: ['#2e6f7e', '#e2a21b'] },
      layout: { ...usual.layout, copies },
      ...choose(usual),
    };
    const change = { base: made.revision, edits: editsBetween(usual, after) };
    const { body } = await this.api().patch(`/api/orders/${made.id}/choices`).send(change).expect(200);
    return { ...made, choices: after as Order['choices'], revision: body.revision };
  }
  /** Begins to cut an order of as many copies by itself. */
  readonly begin = async (copies: number): Promise<Cut> => {
    const [cut] = await this.queue(await this.order(copies));
    await this.inState(cut.id, 'wants-film');
    await this.say(cut.id, 'loaded').expect(200);
    return cut;
  };
  /** Stops a cut once as many of its lines are cut. */
  readonly stopAfter = async (id: number, lines: number): Promise<Cut> => {
    await this.until(id, ({ linesDone }) => linesDone >= lines);
    await this.say(id, 'stop').expect(200);
    return this.inState(id, 'stopped');
  };
  readonly queue = async ({ id, revision }: Order, part: object = {}): Promise<Cut[]> =>
    (
      await this.api()
        .post(`/api/orders/${id}/queue`)
        .send({ revision, ...part })
        .expect(200)
    ).body as Cut[];
}
