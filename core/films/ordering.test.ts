import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { DEMO_FILMS } from '../../demo/shop';
import type { Film } from './film';
import { stockOf } from './film';
import { arrived, balanceOf, lowOf, packOf, toOrderCsv } from './ordering';

const FILM: Film = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 6000 }] };

describe('what to order', () => {
  test('nothing while enough is left; packs of what the shop buys once it is not', () => {
    expect(balanceOf(FILM, { queued: 3000, planned: 1000 })).toMatchObject({
      left: 6000,
      leaves: 2000,
      packs: 0,
    });
    expect(balanceOf(FILM, { queued: 3000, planned: 1001 })).toMatchObject({ leaves: 1999, packs: 1 });
    const small = { ...FILM, low: 5000, pack: { width: 610, lengthLeft: 3000 } };
    expect(balanceOf(small, { queued: 7000, planned: 0 })).toMatchObject({ leaves: -1000, packs: 2 });
    // what is on its way counts
    expect(balanceOf({ ...small, coming: 2 }, { queued: 7000, planned: 0 })).toMatchObject({
      coming: 6000,
      packs: 0,
    });
    // nobody orders what is not offered any more, unless something waits for it
    expect(balanceOf({ ...FILM, rolls: [], putAway: true }, { queued: 0, planned: 0 }).packs).toBe(0);
    expect(balanceOf({ ...FILM, rolls: [], putAway: true }, { queued: 10, planned: 0 }).packs).toBe(1);
  });

  test('it is bought as the shop says, or like what lies there, never like an offcut', () => {
    const offcut = { width: 300, lengthLeft: 700, sheets: 1, offcut: 'D-3' };
    expect(packOf({ rolls: [offcut] })).toEqual({ width: 610, lengthLeft: 25_000 });
    expect(packOf({ rolls: [offcut, { width: 500, lengthLeft: 700, sheets: 3 }] })).toEqual({ width: 500, lengthLeft: 700, sheets: 50 }); // prettier-ignore
    expect(packOf({ rolls: [{ width: 1220, lengthLeft: 10 }] })).toEqual({ width: 1220, lengthLeft: 25_000 });
  });

  test('what has come lies on the shelf, and nothing is on its way any more', () => {
    const now = { ...FILM, ...arrived({ ...FILM, coming: 2 }) };
    expect([now.rolls.length, now.coming]).toEqual([3, 0]);
    const sheets: Film = { ...FILM, rolls: [{ width: 500, lengthLeft: 700, sheets: 3 }], coming: 2 };
    expect(arrived(sheets).rolls[1]).toEqual({ width: 500, lengthLeft: 700, sheets: 100 });
    expect(arrived(FILM).rolls).toEqual(FILM.rolls);
  });

  test('the table says what is bought, and no name in it is a formula', () => {
    const film = { ...FILM, name: '=1+1', pack: { width: 500, lengthLeft: 700, sheets: 50 } };
    expect(toOrderCsv([{ film, packs: 2 }])).toBe(
      'film,code,packs,width mm,length mm,sheets in a pack\r\n"\'=1+1",G-4107,2,500,700,50\r\n',
    );
  });

  test('packs are enough, and one less were not', () => {
    const mm = fc.integer({ min: 0, max: 50_000 });
    fc.assert(
      fc.property(mm, mm, mm, fc.integer({ min: 1, max: 9000 }), mm, (left, queued, planned, length, low) => {
        const film = {
          ...FILM,
          rolls: [{ width: 610, lengthLeft: left }],
          pack: { width: 610, lengthLeft: length },
          low,
        };
        const { leaves, packs } = balanceOf(film, { queued, planned });
        expect(leaves + packs * length).toBeGreaterThanOrEqual(lowOf(film));
        if (packs > 0) expect(leaves + (packs - 1) * length).toBeLessThan(low);
        const came = { ...film, ...arrived({ ...film, coming: packs }) };
        expect(stockOf(came)).toBe(left + packs * length);
      }),
    );
  });
});
