import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { applyEdits, editSchema, editsBetween, undone } from './edits';

const name = fc.constantFrom('a', 'b', 'c', 'constructor');
const item = fc.record({ id: fc.constantFrom('p1', 'p2', 'p3'), x: fc.integer({ min: 0, max: 3 }) });
const list = fc.oneof(
  fc.uniqueArray(item, { selector: ({ id }) => id, maxLength: 3 }),
  fc.array(item, { maxLength: 3 }),
  fc.array(fc.constantFrom('#1', '#2', '#3', '#4'), { maxLength: 6 }),
);
const { value } = fc.letrec((tie) => ({
  value: fc.oneof(
    { maxDepth: 3 },
    fc.integer({ min: 0, max: 3 }),
    fc.constant(null),
    list,
    fc.dictionary(name, tie('value'), { maxKeys: 3, noNullPrototype: true }),
  ),
}));
const fields = fc.dictionary(name, value, { maxKeys: 4, noNullPrototype: true });

describe('changes field by field', () => {
  test('what lies between two values turns one into the other, and back; over the wire too', () => {
    fc.assert(
      fc.property(fields, fields, (before, after) => {
        const edits = editsBetween(before, after);
        const sent = JSON.parse(JSON.stringify(edits)) as unknown[];
        const there = applyEdits(
          before,
          sent.map((edit) => editSchema.parse(edit)),
        );
        expect(there.clashes).toEqual([]);
        expect(there.value).toEqual(after);
        const back = applyEdits(after, undone(edits));
        expect(back.clashes).toEqual([]);
        expect(back.value).toEqual(before);
      }),
      { numRuns: 2000 },
    );
  });

  test('sent twice counts once', () => {
    fc.assert(
      fc.property(fields, fc.integer({ min: 4, max: 9 }), (before, width) => {
        const first = { ...before, list: [], order: ['a', 'b', 'c'] };
        const edits = editsBetween(first, { ...first, width, list: ['x'], order: ['b', 'a', 'c'] });
        const once = applyEdits(first, edits).value;
        expect(applyEdits(once, edits)).toEqual({ value: once, clashes: [] });
      }),
    );
  });

  test('two people at different fields: both count, whoever comes first', () => {
    const base = { layout: { copies: 1, spacing: 10 }, films: { off: ['#1'], film: { '#1': 'tar' } } };
    const one = editsBetween(base, {
      ...base,
      layout: { copies: 3, spacing: 10 },
      films: { off: ['#1', '#2'], film: { '#1': 'tar', '#2': 'slate' } },
    });
    const two = editsBetween(base, {
      layout: { copies: 1, spacing: 5 },
      films: { off: [], film: { '#1': 'tar', '#3': 'gull' } },
    });
    const both = {
      layout: { copies: 3, spacing: 5 },
      films: { off: ['#2'], film: { '#1': 'tar', '#2': 'slate', '#3': 'gull' } },
    };
    for (const order of [
      [one, two],
      [two, one],
    ]) {
      const first = applyEdits(base, order[0]);
      const second = applyEdits(first.value, order[1]);
      expect([...first.clashes, ...second.clashes]).toEqual([]);
      expect(second.value).toEqual(both);
    }
  });

  test('the same field: what is there stays, and both values are told', () => {
    const mine = editsBetween({ layout: { copies: 1 } }, { layout: { copies: 3 } });
    const { value: now, clashes } = applyEdits({ layout: { copies: 2 } }, mine);
    expect(now).toEqual({ layout: { copies: 2 } });
    expect(clashes).toEqual([{ path: ['layout', 'copies'], theirs: 2, mine: 3 }]);
  });

  test('both begin what was not there', () => {
    const mine = editsBetween({}, { curlew: { damson: { force: 90 } } });
    const { value: now, clashes } = applyEdits({ curlew: { quince: { force: 80 } } }, mine);
    expect(now).toEqual({ curlew: { quince: { force: 80 }, damson: { force: 90 } } });
    expect(clashes).toEqual([]);
    const other = applyEdits({ curlew: { damson: { force: 70 } } }, mine);
    expect(other.clashes).toEqual([{ path: ['curlew', 'damson', 'force'], theirs: 70, mine: 90 }]);
  });

  const pieces = (...all: (readonly [string, number])[]) => ({ pieces: all.map(([id, x]) => ({ id, x })) });
  test('pieces by their ids: one is moved while another is taken away or brought in', () => {
    const base = pieces(['p1', 0], ['p2', 0]);
    const moved = editsBetween(base, pieces(['p1', 0], ['p2', 7]));
    expect(applyEdits(pieces(['p2', 0]), moved).value).toEqual(pieces(['p2', 7]));
    expect(applyEdits(pieces(['p0', 1], ['p1', 0], ['p2', 0]), moved).value).toEqual(
      pieces(['p0', 1], ['p1', 0], ['p2', 7]),
    );
    // moved by one, taken away by the other: told, not thrown away
    expect(applyEdits(pieces(['p1', 0]), moved).clashes).toHaveLength(1);
    const taken = editsBetween(base, pieces(['p1', 0]));
    const { value: kept, clashes } = applyEdits(pieces(['p1', 0], ['p2', 7]), taken);
    expect(kept).toEqual(pieces(['p1', 0], ['p2', 7]));
    expect(clashes).toEqual([{ path: ['pieces', { id: 'p2' }], theirs: { id: 'p2', x: 7 } }]);
  });

  test('a list put in another order by two is told', () => {
    const mine = editsBetween({ order: ['a', 'b', 'c'] }, { order: ['b', 'a', 'c'] });
    const { value: now, clashes } = applyEdits({ order: ['c', 'a', 'b'] }, mine);
    expect(now).toEqual({ order: ['c', 'a', 'b'] });
    expect(clashes).toEqual([{ path: ['order'], theirs: ['c', 'a', 'b'], mine: ['b', 'a'] }]);
  });

  test('one of fifteen thousand fixes is a small change, quickly found', () => {
    const fixes = Array.from({ length: 15_000 }, (_, i) => ({ kind: 'close', at: `p1/${i}` }));
    const edits = editsBetween({ fixes }, { fixes: [...fixes, { kind: 'weld', at: '*' }] });
    expect(JSON.stringify(edits).length).toBeLessThan(100);
  });
});
