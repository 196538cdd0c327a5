/** Readings that never end, or take all memory, are ended; others go on. */
import { afterEach, expect, test } from '@jest/globals';
import { AS_IT_COMES } from '../files/readFile';
import type { ReadingLimits } from './clock';
import { openPool } from './pool';
import type { WorkPool } from './pool';

let pool: WorkPool | undefined;
afterEach(() => pool?.close());

const read = (bytes: Buffer) => pool!.run('read', { bytes, reading: AS_IT_COMES });
const open = (limits: ReadingLimits): void => void (pool = openPool(1, limits));

const svg = (inner: string): Buffer =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="90" height="90">${inner}</svg>`);
const SQUARE = svg('<rect width="9" height="9"/>');

/** As many rules as shapes, each of which is tried on each. */
const heavy = (count: number): Buffer => {
  const each = Array.from({ length: count }, (_, i) => i);
  const rules = each.map((i) => `*:not(#i${i}){fill:#0${i % 10}0}`).join('');
  return svg(
    `<style>${rules}</style>${each.map((i) => `<path id="i${i}" d="M${i % 60} 0h1v1z"/>`).join('')}`,
  );
};

test('one that computes for longer than it may is ended, and says so; the next is read', async () => {
  open({ seconds: 1, memory: 1500 });
  const [ended, next] = await Promise.all([read(heavy(6000)), read(SQUARE)]);
  expect(ended).toMatchObject({ ok: false, code: 'unworkable' });
  expect(ended.ok ? '' : ended.message).toMatch(/took too long/);
  expect(next).toMatchObject({ ok: true });
});

test('one that keeps more than it may is ended too', async () => {
  open({ seconds: 40, memory: 40 });
  expect(await read(heavy(4000))).toMatchObject({ ok: false, code: 'unworkable' });
  expect(await read(SQUARE)).toMatchObject({ ok: true });
});
