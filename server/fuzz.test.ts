/** Every endpoint of the API description with input that nobody means well: an answer, never a fault. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { readFileSync } from 'node:fs';
import { connect } from 'node:net';
import { pino } from 'pino';
import request from 'supertest';
import { openApi } from '../contracts/openapi';
import { random } from '../core/random';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';
import { SEED, times } from '../core/sample.testing';

let server: RunningServer;
beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_fuzz');
  server = await openServer({ databaseUrl, log: pino({ level: 'silent' }), filesPerMinute: 10_000 });
  await seedShop(server.services, { curlew: { host: '127.0.0.1', port: 9 } });
  const svg = readFileSync('demo/art/marsh-wren.svg');
  const { agent } = await signIn(server);
  for (let i = 0; i < 2; i++) await agent.post('/api/orders').attach('file', svg, 'wren.svg').expect(200);
}, 60_000);
afterAll(async () => {
  await server.close();
  await new Promise((done) => setTimeout(done, 1200)); // the queue looks once more whether its hands are at rest
}, 30_000);

const next = random(SEED);
const pick = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)];

const NASTY: readonly unknown[] = [
  null,
  true,
  -1,
  0,
  1.5,
  2 ** 31,
  2 ** 53,
  1e308,
  -1e308,
  '',
  ' ',
  'a\u0000b',
  '\ud83d',
  'x\udc00y',
  '𝄞'.repeat(150),
  'constructor',
  '__proto__',
  "'; drop table orders; --",
  '../../etc/passwd',
  '%00',
  '99999-99-99',
  '0000-00-00',
  '2026-02-31',
  '-2026-01-01',
  'NaN',
  [],
  {},
  [[[[]]]],
  { __proto__: 1 },
  'a'.repeat(5000),
];

interface Schema {
  readonly type?: string;
  readonly const?: unknown;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Schema[];
  readonly oneOf?: readonly Schema[];
  readonly properties?: Readonly<Record<string, Schema>>;
  readonly additionalProperties?: Schema | boolean;
  readonly items?: Schema;
  readonly format?: string;
  readonly minimum?: number;
}

/** Something like what the schema asks for, spoilt here and there. */
function like(schema: Schema, spoil: number): unknown {
  if (next() < spoil) return pick(NASTY);
  if (schema.const !== undefined) return schema.const;
  if (schema.enum) return pick(schema.enum);
  const choice = schema.anyOf ?? schema.oneOf;
  if (choice) return like(pick(choice), spoil);
  switch (schema.type) {
    case 'object': {
      const named = Object.entries(schema.properties ?? {}).map(
        ([key, one]) => [key, like(one, spoil)] as const,
      );
      const more = typeof schema.additionalProperties === 'object' ? schema.additionalProperties : undefined;
      const others = more
        ? [[String(pick(['#2e6f7e', 'constructor', '__proto__', 'damson', 'x'])), like(more, spoil)] as const]
        : [];
      return Object.fromEntries([...named, ...others].filter(() => next() > spoil / 2));
    }
    case 'array':
      return Array.from({ length: Math.floor(next() * 3) }, () => like(schema.items ?? {}, spoil));
    case 'number':
    case 'integer':
      return Math.max(schema.minimum ?? 0, Math.floor(next() * 50));
    case 'boolean':
      return next() < 0.5;
    case 'string':
      return pick(['#2e6f7e', 'damson', '2026-12-01', 'Marsh Wren', 'p1/0']);
    default:
      return pick(NASTY);
  }
}

const IN_PATH = [
  '1',
  '2',
  '0',
  '-1',
  '1.5',
  '2147483648',
  '99999999999999999999',
  'x',
  '%00',
  '%F0%9F',
  '..%2f',
  'constructor',
  '__proto__',
  '%ED%A0%80',
  'a'.repeat(300),
];
const IN_QUERY = [
  '',
  '?order=1',
  '?order=2147483648',
  '?order=9007199254740991',
  '?order=%00',
  '?source={}',
  '?source=%00',
  '?source=["',
  '?width=-1',
  '?width=1e99',
  '?order[a]=1&order[b]=2',
  '?__proto__[x]=1',
];

interface Operation {
  readonly requestBody?: { readonly content: Readonly<Record<string, { readonly schema: Schema }>> };
}

const ROUNDS = times(30, 10);
/** No more than 60 files a minute are taken. */
const FILES = times(13, 5);
const FILE_NAMES = ['𝄞'.repeat(99) + 'a𝄞.svg', 'a\u0001b.svg', 'x', '../../a.svg', '%00.svg'];
const CONTENTS = ['', '<svg', 'IN;PU0,0;', '%!PS', '\u0000\u0000', '%PDF-1.4'];

interface Answer {
  readonly status: number;
  readonly body: unknown;
}

/** Asks once; what was asked and what was answered. */
async function ask(
  { agent }: SignedIn,
  method: string,
  path: string,
  { requestBody }: Operation,
): Promise<Answer & { readonly asked: string }> {
  const at = path.replace(/\{\w+\}/g, () => pick(IN_PATH)) + (next() < 0.4 ? pick(IN_QUERY) : '');
  const sending = agent[method as 'get' | 'post' | 'patch'](at);
  const schema = requestBody?.content['application/json']?.schema;
  const sent = JSON.stringify(schema && like(schema, next() * 0.3));
  if (requestBody?.content['multipart/form-data'])
    sending.attach('file', Buffer.from(pick(CONTENTS)), pick(FILE_NAMES));
  else if (sent !== undefined) sending.set('Content-Type', 'application/json').send(sent);
  const { status, body } = await sending.catch(
    (error: { response?: Answer }) => error.response ?? { status: 0, body: String(error) },
  );
  return { asked: `${method} ${at} ${sent?.slice(0, 200)}`, status, body };
}

const { paths } = openApi() as { paths: Readonly<Record<string, Readonly<Record<string, Operation>>>> };

describe('no endpoint answers any of it with a fault', () => {
  // an event stream does not end
  test.each(Object.entries(paths).filter(([path]) => !/events/.test(path)))(
    '%s',
    async (path, methods) => {
      // whoever was removed or logged out by what was asked before is not asked as again
      const lead = await signIn(server, 'lead', `lead at ${path}`);
      for (const [method, operation] of Object.entries(methods)) {
        const rounds = operation.requestBody?.content['multipart/form-data'] ? FILES : ROUNDS;
        for (let round = 0; round < rounds; round++) {
          const { asked, status, body } = await ask(lead, method, path, operation);
          if (status === 0 || status >= 500) throw new Error(`${asked} → ${status} ${JSON.stringify(body)}`);
          if (status >= 400)
            expect(body).toMatchObject({ code: expect.any(String), message: expect.stringMatching(/\S/) });
        }
      }
    },
    120_000,
  );
});

test('an upload that breaks off half way is told, and the server lives', async () => {
  const { hostname, port } = new URL(server.url);
  const { cookie } = await signIn(server, 'prep');
  const answer = await new Promise<string>((done) => {
    const socket = connect({ host: hostname, port: Number(port) });
    let text = '';
    socket.on('data', (chunk) => (text += chunk.toString()));
    socket.on('close', () => done(text));
    const body = '--b\r\nContent-Disposition: form-data; name="file"; filename="a.svg"\r\n\r\n<svg';
    socket.write(
      `POST /api/orders HTTP/1.1\r\nHost: ${hostname}:${port}\r\nConnection: close\r\nCookie: ${cookie}\r\nOrigin: ${server.url}\r\nContent-Type: multipart/form-data; boundary=b\r\nContent-Length: ${body.length}\r\n\r\n${body}`,
    );
  });
  expect(answer).toMatch(/^HTTP\/1\.1 400/);
  expect(answer).toContain('did not come in whole');
  await request(server.url).get('/api/health').expect(200);
}, 30_000);
