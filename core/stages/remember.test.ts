import { expect, test } from '@jest/globals';
import { createMemory, forgetful } from './remember';

test('what says the same is not made again; functions do not count; the oldest goes first', () => {
  const { stage, runs } = createMemory();
  const sum = stage(
    'sum',
    (of: readonly number[], _tell: () => void) => ({ is: of.reduce((a, b) => a + b, 0) }),
    2,
  );
  const first = sum([1, 2], () => {});
  expect(sum([1, 2], () => {})).toBe(first);
  expect(runs.sum).toBe(1);
  sum([3], () => {});
  sum([1, 2], () => {}); // used again: now [3] is the oldest
  sum([4], () => {});
  expect(sum([1, 2], () => {})).toBe(first);
  expect(runs.sum).toBe(3);
  sum([3], () => {});
  expect(runs.sum).toBe(4);
});

test('what a stage made counts by identity, with its lists and those of what it lists', () => {
  const { stage, runs } = createMemory();
  const make = stage('make', (n: number) => [{ rings: [Float64Array.of(n)], film: { id: 'a' } }]);
  const use = stage('use', (_rings: readonly Float64Array[], _film: object) => ({}));
  const [made] = make(1);
  use(made.rings, made.film);
  use(made.rings, { id: 'a' });
  expect(runs.use).toBe(1);
  use([Float64Array.of(1)], made.film); // as good, and another
  expect(runs.use).toBe(2);
});

test('a name stands for what it was given to; no word from outside can pass for one', () => {
  const { stage, name, runs } = createMemory();
  const look = stage('look', (_at: unknown) => ({}));
  look(name({ large: 1 }, 'file 1'));
  look(name({ large: 1 }, 'file 1'));
  expect(runs.look).toBe(1);
  look(name({ large: 1 }, 'file 2'));
  look('file 2');
  expect(runs.look).toBe(3);
});

test('a map says what is in it', () => {
  const { stage, runs } = createMemory();
  const look = stage('look', (_at: ReadonlyMap<string, object>) => ({}));
  look(new Map([['a', { n: 1 }]]));
  look(new Map([['a', { n: 1 }]]));
  expect(runs.look).toBe(1);
  look(new Map([['a', { n: 2 }]]));
  expect(runs.look).toBe(2);
});

test('a stage in steps is remembered when it came to its end, and not when it was given up', () => {
  const { inSteps, runs } = createMemory();
  const count = inSteps('count', function* upTo(n: number): Generator<number, { n: number }, void> {
    for (let i = 0; i < n; i++) yield i;
    return { n };
  });
  count(3).next();
  const steps = count(3);
  expect([...steps]).toEqual([0, 1, 2]);
  expect([...count(3)]).toEqual([]);
  expect(count(3).next()).toEqual({ done: true, value: { n: 3 } });
  expect(runs.count).toBe(2);
});

test('without a memory everything is made again', () => {
  const make = forgetful('make', () => ({}));
  expect(make()).not.toBe(make());
});
