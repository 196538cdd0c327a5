/** Printed sheets as files, and what the shop prints with, on a real PostgreSQL. */
import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import jsQR from 'jsqr';
import type { Sharp } from 'sharp';
import sharp from 'sharp';
import type { Order, OrderList } from '../contracts/api';
import { editsBetween } from '../contracts/edits';
import type { ShopNow } from '../contracts/shop';
import { pathBounds } from '../core/geometry/path';
import { joinBounds } from '../core/geometry/bounds';
import { seedShop } from '../demo/seed';
import { freshDatabase } from './db/freshDatabase.testing';
import { readDxf } from '../core/readers/dxf/readDxf';
import type { RunningServer } from './open';
import { openServer } from './open';
import type { SignedIn } from './people/signIn.testing';
import { signIn } from './people/signIn.testing';

let lead: SignedIn;
let server: RunningServer;
let order: Order;
const dir = mkdtempSync(join(tmpdir(), 'print-server-'));

beforeAll(async () => {
  const databaseUrl = await freshDatabase('jampan_print');
  server = await openServer({ databaseUrl, filesPerMinute: 1000 });
  const nowhere = { host: '127.0.0.1', port: 1 };
  await seedShop(server.services, { curlew: nowhere, plover: nowhere });
  lead = await signIn(server);
  const art = Buffer.from(
    '<svg xmlns="http://www.w3.org/2000/svg" width="40mm" height="30mm" viewBox="0 0 40 30"><path fill="#b0202f" d="M0 0H40V30H0Z"/></svg>',
  );
  const { body } = await api().post('/api/orders').attach('file', art, 'badge.svg').expect(200);
  order = await printed(body as Order, 20);
}, 60_000);
afterAll(() => server.close(), 30_000);

const api = () => lead.agent;

async function printed({ id, choices, revision }: Order, copies: number): Promise<Order> {
  const { films, layout, print } = choices;
  const next = {
    ...choices,
    films: { ...films, print: ['#b0202f'] },
    layout: { ...layout, copies },
    print: { ...print, lines: [{ ...print.lines[0], offset: 1, smallestRadius: 0 }], bleed: 1 },
  };
  await api()
    .patch(`/api/orders/${id}/choices`)
    .send({ base: revision, edits: editsBetween(choices, next) })
    .expect(200);
  return (await api().get(`/api/orders/${id}`).expect(200)).body as Order;
}

const sheet = async (query: string, name = 'sheet-1'): Promise<Buffer> =>
  (
    await api()
      .get(`/api/orders/${order.id}/sheets/${name}?${query}`)
      .buffer(true)
      .parse((response, done) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () => done(null, Buffer.concat(parts)));
      })
      .expect(200)
  ).body as Buffer;

test('the run card says what is printed, on how many sheets, and how it is cut; the list shows what it is printed on', async () => {
  const answer = await api()
    .get(`/api/orders/${order.id}/run-card.pdf`)
    .buffer(true)
    .parse((response, done) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () => done(null, Buffer.concat(parts)));
    })
    .expect(200);
  writeFileSync(join(dir, 'card.pdf'), answer.body as Buffer);
  const text = spawnSync('pdftotext', ['-layout', join(dir, 'card.pdf'), '-'], { encoding: 'utf8' }).stdout;
  expect(text).toContain('1 Print on Print white, cut at Plover');
  expect(text).toMatch(/1 sheet of 420\.0 mm × 297\.0 mm · 20 places · 5 marks each/);
  expect(text).toMatch(/kiss · \d+ g/);
  const listed = async (): Promise<string[]> => {
    const { body } = await api().get('/api/orders?search=badge').expect(200);
    const { rows } = body as OrderList;
    return rows.flatMap(({ summary }) => summary?.films.map(({ name }) => name) ?? []);
  };
  while (!(await listed()).includes('Print white')) await new Promise((done) => setTimeout(done, 100));
  expect(await listed()).toEqual(['Print white']);
}, 30_000);

describe('a printed sheet', () => {
  test('as PDF has its size by poppler, and names the order in its code by an independent decoder', async () => {
    const path = join(dir, 'sheet');
    writeFileSync(`${path}.pdf`, await sheet('as=pdf'));
    expect(spawnSync('pdfinfo', [`${path}.pdf`], { encoding: 'utf8' }).stdout).toMatch(
      /Page size:\s+1190\.55 x 841\.89 pts/,
    );
    spawnSync('pdftocairo', ['-png', '-singlefile', '-r', '200', `${path}.pdf`, path]);
    const picture = sharp(`${path}.png`);
    const { data, info } = await picture.ensureAlpha().raw().toBuffer({ resolveWithObject: true });
    expect(jsQR(Uint8ClampedArray.from(data), info.width, info.height)?.data).toBe(`JP #${order.number} 1 A`);
  });

  test('made again is the same file, dated when the order was decided; so is a paper', async () => {
    const card = async (): Promise<Buffer> =>
      (
        await api()
          .get(`/api/orders/${order.id}/run-card.pdf`)
          .buffer(true)
          .parse((response, done) => {
            const parts: Buffer[] = [];
            response.on('data', (part: Buffer) => parts.push(part));
            response.on('end', () => done(null, Buffer.concat(parts)));
          })
          .expect(200)
      ).body as Buffer;
    const [first, paper] = [await sheet('as=pdf'), await card()];
    // dates in PDFs are of whole seconds
    await new Promise((done) => setTimeout(done, 1100));
    expect((await sheet('as=pdf')).equals(first)).toBe(true);
    expect((await card()).equals(paper)).toBe(true);
    const path = join(dir, 'dated.pdf');
    writeFileSync(path, first);
    const { stdout } = spawnSync('pdfinfo', ['-isodates', path], { encoding: 'utf8' });
    const made = Date.parse(/CreationDate:\s+(\S+)/.exec(stdout)![1].replace(/([+-]\d\d)$/, '$1:00'));
    expect(Math.abs(Date.now() - made)).toBeLessThan(600_000);
  });

  test('as PNG at a chosen resolution shows the same as the PDF', async () => {
    const png = await sheet('as=png&dpi=72');
    const { width, height } = await sharp(png).metadata();
    expect([width, height]).toEqual([1191, 842]);
    const path = join(dir, 'same');
    writeFileSync(`${path}.pdf`, await sheet('as=pdf'));
    spawnSync('pdftocairo', ['-png', '-singlefile', '-r', '72', `${path}.pdf`, path]);
    const grey = (from: Sharp) => from.resize(1190, 842, { fit: 'fill' }).greyscale().blur(1).raw().toBuffer(); // prettier-ignore
    const [a, b] = await Promise.all([grey(sharp(png)), grey(sharp(`${path}.png`))]);
    const off = a.reduce((sum, value, i) => sum + Number(Math.abs(value - b[i]) > 60), 0);
    // the label in words is in the PDF alone
    expect(off / a.length).toBeLessThan(0.002);
  });

  test('as SVG and DXF holds the cut of every copy, kind by kind, where the sheet has it', async () => {
    const svg = (await sheet('as=svg')).toString();
    expect(svg.match(/<path/g)).toHaveLength(20);
    expect(svg).toContain('id="Kiss-cut"');
    const { shapes } = readDxf((await sheet('as=dxf')).toString(), null);
    expect(shapes).toHaveLength(20);
    const cut = shapes.map(({ path, matrix }) => pathBounds(path, matrix)).reduce(joinBounds);
    // 36 a sheet turned, 35 as drawn: nine by three of 32 × 42 mm, with 1 mm of bleed past the line and 4 mm between
    expect([cut.maxX - cut.minX, cut.maxY - cut.minY]).toEqual([
      expect.closeTo(9 * 34 + 8 * 4 - 2, 1),
      expect.closeTo(3 * 44 + 2 * 4 - 2, 1),
    ]);
  });

  test('that there is not is told; so is what it cannot be', async () => {
    const gone = await api().get(`/api/orders/${order.id}/sheets/sheet-9`).expect(404);
    expect((gone.body as { message: string }).message).toContain('Print marks');
    await api().get(`/api/orders/${order.id}/sheets/sheet-1?as=exe`).expect(400);
    await api().get(`/api/orders/${order.id}/sheets/sheet-1?as=png&dpi=99999`).expect(400);
  });
});

test('what the shop prints with is changed, and sheets keep off what it leaves', async () => {
  const before = (await api().get('/api/shop').expect(200)).body as ShopNow;
  const printer = { ...before.printer, edge: 100 };
  const after = (await api().patch('/api/shop').send({ printer }).expect(200)).body as ShopNow;
  expect(after.printer).toEqual(printer);
  expect(after.leastOffcut).toEqual(before.leastOffcut);
  expect(after.version).not.toBe(before.version);
  const { shapes } = readDxf((await sheet('as=dxf')).toString(), null);
  expect(shapes.length).toBeLessThan(20);
  await api().patch('/api/shop').send({ printer: { ...printer, edge: -1 } }).expect(400); // prettier-ignore
  await api().patch('/api/shop').send({ printer: before.printer }).expect(200);
});

test('choices of earlier versions print as usual choices say', async () => {
  const { print, ...before } = order.choices;
  const { id } = order;
  await server.services.db.execute(
    `update orders set choices = '${JSON.stringify(before)}' where id = ${id}`,
  );
  const now = (await api().get(`/api/orders/${id}`).expect(200)).body as Order;
  expect(now.choices.print).toMatchObject({ bleed: 0, marks: print.marks });
});
