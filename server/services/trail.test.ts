import { describe, expect, test } from '@jest/globals';
import type { TrailMark } from './trail';
import { movesFor } from './trail';

const [ANN, BEN] = [1, 2];
/** Revisions from 0, each by whom, on which one, and what it takes back. */
const trail = (...marks: [madeBy: number | null, parent?: number, undoes?: number][]): TrailMark[] => [
  { n: 0, parent: null, madeBy: ANN, undoes: null, saysEdits: false },
  ...marks.map(([madeBy, parent, undoes], i) => ({
    n: i + 1,
    parent: parent ?? i,
    madeBy,
    undoes: undoes ?? null,
    saysEdits: true,
  })),
];

describe('one person', () => {
  test('steps back and on along what they did', () => {
    const two = trail([ANN], [ANN]);
    expect(movesFor(two, 0, ANN)).toEqual({ redo: { to: 1 } });
    expect(movesFor(two, 1, ANN)).toEqual({ undo: { to: 0 }, redo: { to: 2 } });
    expect(movesFor(two, 2, ANN)).toEqual({ undo: { to: 1 } });
  });

  test('what nobody gave a name for is theirs too', () => {
    expect(movesFor(trail([null]), 1, ANN)).toEqual({ undo: { to: 0 } });
    expect(movesFor(trail([null]), 1, null)).toEqual({ undo: { to: 0 } });
  });
});

describe('two people', () => {
  test('each takes back what they did, from under the other', () => {
    const both = trail([ANN], [BEN]);
    expect(movesFor(both, 2, ANN)).toEqual({ undo: { against: 1 } });
    expect(movesFor(both, 2, BEN)).toEqual({ undo: { to: 1 } });
    expect(movesFor(trail([BEN]), 1, ANN)).toEqual({});
  });

  test('taken back, it can be done again, and what came before it can be taken back', () => {
    const taken = trail([ANN], [ANN], [BEN], [ANN, 3, 2]);
    expect(movesFor(taken, 4, ANN)).toEqual({ undo: { against: 1 }, redo: { to: 3 } });
    expect(movesFor(taken, 4, BEN)).toEqual({ undo: { against: 3 } });
    const further = trail([ANN], [ANN], [BEN], [ANN, 3, 2], [BEN]);
    expect(movesFor(further, 5, ANN)).toEqual({ undo: { against: 1 }, redo: { against: 4 } });
  });

  test('done again it counts, and is taken back once more', () => {
    const again = trail([ANN], [BEN], [ANN, 2, 1], [BEN], [ANN, 4, 3]);
    expect(movesFor(again, 5, ANN)).toEqual({ undo: { against: 1 } });
  });

  test('a change of their own ends what they can do again; that of another does not', () => {
    expect(movesFor(trail([ANN], [BEN], [ANN, 2, 1], [ANN]), 4, ANN)).toEqual({ undo: { to: 3 } });
    expect(movesFor(trail([ANN], [BEN], [ANN, 2, 1], [BEN]), 4, ANN)).toEqual({ redo: { against: 3 } });
  });

  test('nobody steps on to what another one has stepped back from', () => {
    expect(movesFor(trail([ANN], [BEN, 0]), 0, ANN)).toEqual({ redo: { to: 1 } });
    expect(movesFor(trail([ANN], [BEN, 0]), 0, BEN)).toEqual({ redo: { to: 2 } });
  });

  test('whole choices of earlier versions are not taken back from under others', () => {
    const old = trail([ANN], [BEN]).map((mark) => ({ ...mark, saysEdits: mark.n > 1 }));
    expect(movesFor(old, 2, ANN)).toEqual({});
  });
});
