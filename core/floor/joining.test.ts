import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import type { Joinable } from './joining';
import { groupsToJoin, hostOf, isWorthJoining, ordersOf, stripsWorth } from './joining';

const cut = (id: number, orders: readonly number[], film = 'damson', cutter = 'curlew'): Joinable => ({
  id,
  cutter,
  film,
  orders,
});
const idsIn = (groups: readonly (readonly Joinable[])[]) => groups.map((group) => group.map(({ id }) => id));

describe('what may be joined', () => {
  test('is of one film at one cutter and of several orders', () => {
    const cuts = [
      cut(1, [1]),
      cut(2, [2]),
      cut(3, [2], 'quince'),
      cut(4, [3], 'damson', 'heron'),
      cut(5, [3]),
    ];
    expect(idsIn(groupsToJoin(cuts))).toEqual([[1, 2, 5]]);
  });

  test('several strips of one order alone are not', () =>
    expect(groupsToJoin([cut(1, [1]), cut(2, [1]), cut(3, [1])])).toEqual([]));

  test('who has others along already is the host, wherever it comes', () => {
    const group = [cut(1, [1]), cut(2, [2, 3])];
    expect(idsIn(groupsToJoin(group))).toEqual([[1, 2]]);
    expect([hostOf(group), ordersOf(group)]).toEqual([2, [1, 2, 3]]);
    expect(hostOf([cut(1, [5]), cut(2, [4])])).toBe(5);
  });

  test('of two that have others along the first counts', () =>
    expect(idsIn(groupsToJoin([cut(1, [1, 2]), cut(2, [3, 4]), cut(3, [5])]))).toEqual([[1, 3]]));

  test('whatever waits: no cut is in two groups, and every group has one host, one film, one cutter', () => {
    const next = random(20261128);
    const one = (most: number): number => 1 + Math.floor(next() * most);
    for (let round = 0; round < 300; round++) {
      const cuts = Array.from({ length: one(14) }, (_, id) =>
        cut(id, next() < 0.3 ? [one(9), 10 + one(9)] : [one(9)], `f${one(3)}`, `c${one(2)}`),
      );
      const groups = groupsToJoin(cuts);
      const all = groups.flat().map(({ id }) => id);
      expect(new Set(all).size).toBe(all.length);
      for (const group of groups) {
        expect(new Set(group.map(({ film, cutter }) => `${film} ${cutter}`)).size).toBe(1);
        expect(new Set(group.filter(({ orders }) => orders.length > 1).map(({ orders }) => orders[0])).size).toBeLessThan(2); // prettier-ignore
        expect(ordersOf(group).length).toBeGreaterThan(1);
      }
    }
  });
});

describe('whether it is worth it', () => {
  const [now, then] = [stripsWorth([{ length: 300, seconds: 60 }, { length: 200, seconds: 30 }]), stripsWorth([{ length: 320, seconds: 85 }])]; // prettier-ignore
  test('fewer strips of less film are', () => {
    expect(now).toEqual({ strips: 2, length: 500, seconds: 90 });
    expect(isWorthJoining(now, then)).toBe(true);
  });
  test.each([
    ['more film', { ...then, length: 500.1 }],
    ['as many strips', { ...then, strips: 2 }],
  ])('%s is not', (_, other) => expect(isWorthJoining(now, other)).toBe(false));
});
