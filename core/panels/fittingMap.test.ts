import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEMO_FILMS } from '../../demo/shop';
import type { Film } from '../films/film';
import { NO_PANEL_CHOICES } from './choices';
import type { Datum } from './fittingMap';
import { DATUMS_ACROSS, DATUMS_DOWN, fittingMap } from './fittingMap';
import type { PanelPart } from './panel';
import { cellsOf } from './split';

const box = { minX: 20, minY: 10, maxX: 3220, maxY: 1610 };
const sign = { width: 3300, height: 1700 };
const seams = { upright: [820, 1620, 2420], level: [810] };

function panelsOf(films: readonly Film[], overlap: number, onTop: 'next' | 'before', skip: number[] = []) {
  return films.flatMap((film) =>
    cellsOf(seams, { overlap, onTop, overlaps: NO_PANEL_CHOICES.overlaps }).map((cell) => {
      return { film, cell, isCut: !skip.includes(cell.number) } as unknown as PanelPart;
    }),
  );
}
const mapOf = (
  datum: Datum,
  { overlap = 0, onTop = 'next' as 'next' | 'before', skip = [] as number[] } = {},
) =>
  fittingMap(
    { box, seams },
    panelsOf(DEMO_FILMS.slice(0, 2), overlap, onTop, skip),
    { ...NO_PANEL_CHOICES, overlap, onTop },
    sign,
    datum,
  );

describe('where panels go', () => {
  test('is measured from the edge or the line that was picked', () => {
    const tape = (across: Datum['across']) =>
      mapOf({ across, down: 'upper' }).tape.upright.map(({ from }) => from);
    expect(tape('left')).toEqual([20, 820, 1620, 2420, 3220]);
    expect(tape('right')).toEqual([3280, 2480, 1680, 880, 80]);
    expect(tape('centre')).toEqual([-1630, -830, -30, 770, 1570]);
    expect(mapOf({ across: 'left', down: 'lower' }).tape.level.map(({ from }) => from)).toEqual([
      1690, 890, 90,
    ]);
  });

  test('every corner can be found again from its datum, whichever it is', () => {
    fc.assert(
      fc.property(fc.constantFrom(...DATUMS_ACROSS), fc.constantFrom(...DATUMS_DOWN), (across, down) => {
        for (const panel of mapOf({ across, down }).panels) {
          const x =
            across === 'left'
              ? panel.across
              : across === 'right'
                ? sign.width - panel.across
                : sign.width / 2 + panel.across;
          const y = down === 'upper' ? panel.down : sign.height - panel.down;
          expect([x, y]).toEqual([panel.seen.minX, panel.seen.minY]);
        }
      }),
    );
  });

  test('each panel once, with its films, inside the art; together they are all of it', () => {
    const { panels } = mapOf({ across: 'left', down: 'upper' });
    expect(panels.map(({ number }) => number)).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
    expect(panels[0].films.map(({ name }) => name)).toEqual(DEMO_FILMS.slice(0, 2).map(({ name }) => name));
    const area = panels.reduce((sum, { seen }) => sum + (seen.maxX - seen.minX) * (seen.maxY - seen.minY), 0);
    expect(area).toBeCloseTo((box.maxX - box.minX) * (box.maxY - box.minY), 6);
  });

  test('what lies beneath goes on first, and reaches under what lies on it', () => {
    const next = mapOf({ across: 'left', down: 'upper' }, { overlap: 15 });
    expect(next.panels.map(({ number, turn }) => [turn, number])[0]).toEqual([1, 1]);
    expect(next.panels[0].whole.maxX - next.panels[0].seen.maxX).toBe(15);
    const before = mapOf({ across: 'left', down: 'upper' }, { overlap: 15, onTop: 'before' });
    expect(before.panels.map(({ number }) => number)).toEqual([8, 7, 6, 5, 4, 3, 2, 1]);
    expect(before.panels[0].seen.minX - before.panels[0].whole.minX).toBe(15);
  });

  test('panels that are not cut are not on it', () => {
    const { panels } = mapOf({ across: 'left', down: 'upper' }, { skip: [2, 3] });
    expect(panels.map(({ number, turn }) => [number, turn]).slice(0, 3)).toEqual([
      [1, 1],
      [4, 2],
      [5, 3],
    ]);
  });
});
