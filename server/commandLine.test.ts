/** The command line, given an order's stored choices and its files, writes the bytes that the server gives out. */
import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Order } from '../contracts/api';
import { editsBetween } from '../contracts/edits';
import { sourceKey } from '../core/artwork/choices';
import type { Choices } from '../core/plan/choices';
import { createPlanner } from '../core/plan/plan';
import type { Artwork } from '../core/readers/artwork';
import { seedShop } from '../demo/seed';
import { DEMO_SHOP } from '../demo/shop';
import { freshDatabase } from './db/freshDatabase.testing';
import { readFile } from './files/readFile';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let server: RunningServer;
let lead: SignedIn;
const dir = mkdtempSync(join(tmpdir(), 'command-line-'));

beforeAll(async () => {
  server = await openServer({
    databaseUrl: await freshDatabase('jampan_command_line'),
    filesPerMinute: 1000,
  });
  const nowhere = { host: '127.0.0.1', port: 9 };
  await seedShop(server.services, Object.fromEntries(DEMO_SHOP.cutters.map(({ id }) => [id, nowhere])));
  lead = await signIn(server);
}, 60_000);
afterAll(async () => {
  await server.close();
  rmSync(dir, { recursive: true });
});

const api = () => lead.agent;
const orderNow = async (id: number): Promise<Order> =>
  (await api().get(`/api/orders/${id}`).expect(200)).body;

async function orderOf(file: string, choose: (usual: Choices) => Partial<Choices>): Promise<Order> {
  const { body } = await api().post('/api/orders').attach('file', file).expect(200);
  return change((body as Order).id, choose);
}
async function change(id: number, choose: (usual: Choices) => Partial<Choices>): Promise<Order> {
  const { choices, revision } = await orderNow(id);
  const next = { ...choices, ...choose(choices as Choices) };
  const edits = editsBetween(choices, next as Order['choices']);
  await api().patch(`/api/orders/${id}/choices`).send({ base: revision, edits }).expect(200);
  return orderNow(id);
}

/** Every strip that the command line writes for an order, and its bytes. */
function written(
  { id, number, choices }: Order,
  files: readonly string[],
  sharing?: object,
): Map<string, Buffer> {
  const out = join(dir, String(id));
  const stored = join(dir, `${id}.json`);
  writeFileSync(stored, JSON.stringify(choices));
  const args = [...files, '--choices', stored, '--order-number', String(number), '--out', out];
  if (sharing) {
    writeFileSync(`${stored}.sharing`, JSON.stringify(sharing));
    args.push('--sharing', `${stored}.sharing`);
  }
  execFileSync(process.execPath, ['scripts/program.mjs', 'cli/plan.ts', ...args], { stdio: 'pipe' });
  const strips = readdirSync(out).filter((name) => name.endsWith('.plt'));
  return new Map(strips.map((name) => [name, readFileSync(join(out, name))]));
}

async function isSame(order: Order, files: readonly string[], sharing?: object): Promise<string[]> {
  const strips = written(order, files, sharing);
  for (const [name, bytes] of strips) {
    const { body } = await api()
      .get(`/api/orders/${order.id}/strips/${name}`)
      .buffer(true)
      .parse((response, done) => {
        const chunks: Buffer[] = [];
        response.on('data', (chunk: Buffer) => chunks.push(chunk));
        response.on('end', () => done(null, Buffer.concat(chunks)));
      })
      .expect(200);
    expect({ name, same: bytes.equals(body as Buffer) }).toEqual({ name, same: true });
  }
  return [...strips.keys()];
}

const WREN = 'demo/art/marsh-wren.svg';

test('a packed order, as its search left it', async () => {
  const order = await orderOf(WREN, ({ layout, artwork }) => ({
    artwork: { ...artwork, width: 420 },
    layout: { ...layout, pack: 'piece', copies: 2 },
  }));
  const choices = order.choices as Choices;
  const [piece] = choices.artwork.pieces;
  const artworks = new Map<string, Artwork>([[sourceKey(piece.source), await readFile(readFileSync(WREN))]]);
  const packed = { ...choices.layout.packed };
  // other rounds and another seed than the command line's own
  for (const step of createPlanner().pack(artworks, choices, DEMO_SHOP, { rounds: 12, seed: 5 }))
    packed[step.film] = step.packed;
  expect(Object.keys(packed).length).toBeGreaterThan(1);
  const stored = await change(order.id, ({ layout }) => ({ layout: { ...layout, packed } }));
  expect(await isSame(stored, [WREN])).toHaveLength(3);
}, 120_000);

test('an order in panels, with its number on them', async () => {
  const order = await orderOf(WREN, ({ artwork, panels }) => ({
    artwork: { ...artwork, width: 2600 },
    panels: { ...panels, way: 'equal', overlap: 12 },
  }));
  expect((await isSame(order, [WREN])).length).toBeGreaterThan(2);
}, 120_000);

test('an order that takes another one along on a film', async () => {
  const small = await orderOf(WREN, ({ artwork }) => ({ artwork: { ...artwork, width: 150 } }));
  const host = await orderOf(WREN, ({ artwork, layout, films }) => ({
    artwork: { ...artwork, width: 300 },
    films: { ...films, film: { '#4b1f4a': 'damson' } },
    layout: { ...layout, guests: { damson: [small.id] } },
  }));
  const { body: sharing } = await api().get(`/api/orders/${host.id}/sharing`).expect(200);
  expect(sharing.guests).toHaveLength(1);
  expect(await isSame(host, [WREN], sharing)).toContain('damson.plt');
}, 120_000);
