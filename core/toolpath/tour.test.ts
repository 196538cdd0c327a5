import { describe, expect, test } from '@jest/globals';
import { random } from '../random';
import { shortened, tourLength } from './tour';

/** TSPLIB (Reinelt 1991), coordinates from memory: that a round of the published length is found shows them to be right. */
const BERLIN52 =
  '565 575 25 185 345 750 945 685 845 655 880 660 25 230 525 1000 580 1175 650 1130 1605 620 1220 580 1465 200 1530 5 845 680 725 370 145 665 415 635 510 875 560 365 300 465 520 585 480 415 835 625 975 580 1215 245 1320 315 1250 400 660 180 410 250 420 555 575 665 1150 1160 700 580 685 595 685 610 770 610 795 645 720 635 760 650 475 960 95 260 875 920 700 500 555 815 830 485 1170 65 830 610 605 625 595 360 1340 725 1740 245';
const KROA100 =
  '1380 939 2848 96 3510 1671 457 334 3888 666 984 965 2721 1482 1286 525 2716 1432 738 1325 1251 1832 2728 1698 3815 169 3683 1533 1247 1945 123 862 1234 1946 252 1240 611 673 2576 1676 928 1700 53 857 1807 1711 274 1420 2574 946 178 24 2678 1825 1795 962 3384 1498 3520 1079 1256 61 1424 1728 3913 192 3085 1528 2573 1969 463 1670 3875 598 298 1513 3479 821 2542 236 3955 1743 1323 280 3447 1830 2936 337 1621 1830 3373 1646 1393 1368 3874 1318 938 955 3022 474 2482 1183 3854 923 376 825 2519 135 2945 1622 953 268 2628 1479 2097 981 890 1846 2139 1806 2421 1007 2290 1810 1115 1052 2588 302 327 265 241 341 1917 687 2991 792 2573 599 19 674 3911 1673 872 1559 2863 558 929 1766 839 620 3893 102 2178 1619 3822 899 378 1048 1178 100 2599 901 3416 143 2961 1605 611 1384 3113 885 2597 1830 2586 1286 161 906 1429 134 742 1025 1625 1651 1187 706 1787 1009 22 987 3640 43 3756 882 776 392 1724 1642 198 1810 3950 1558';
const placesOf = (text: string): Float64Array => Float64Array.from(text.split(' ').map(Number));

const asNumbered = (xy: Float64Array): Int32Array => Int32Array.from({ length: xy.length / 2 }, (_, i) => i);
const strewn = (n: number, seed: number): Float64Array => {
  const next = random(seed);
  return Float64Array.from({ length: 2 * n }, () => 1000 * next());
};
/** As TSPLIB measures: every step in whole units. */
const wholeLength = (xy: Float64Array, order: Int32Array): number =>
  order.reduce((sum, b, i) => {
    const a = order[(i + order.length - 1) % order.length];
    return sum + Math.round(Math.hypot(xy[2 * a] - xy[2 * b], xy[2 * a + 1] - xy[2 * b + 1]));
  }, 0);

describe('a round', () => {
  test.each([
    ['berlin52', BERLIN52, 7542],
    ['kroA100', KROA100, 21282],
  ])('%s: within 1 %% of the published optimum', (_, text, optimum) => {
    const xy = placesOf(text);
    const round = shortened(xy, asNumbered(xy), { isRound: true });
    expect(wholeLength(xy, round) / optimum).toBeLessThan(1.01);
    expect(wholeLength(xy, round)).toBeGreaterThanOrEqual(optimum);
  });

  // of an even grid no round is shorter than a unit for each place, and one of that length there is
  test.each([
    [12, 1.03],
    [40, 1.05],
    [60, 1.05],
  ])(
    'through a square grid of %i places a side, in any order: within %f times the least there is',
    (n, within) => {
      const xy = Float64Array.from({ length: 2 * n * n }, (_, i) =>
        i % 2 ? Math.floor(i / 2 / n) : ((i / 2) % n) | 0,
      );
      const next = random(3);
      const order = asNumbered(xy).sort(() => next() - 0.5);
      expect(tourLength(xy, shortened(xy, order, { isRound: true }), true) / (n * n)).toBeLessThan(within);
    },
  );

  test('of places on a convex outline the shortest round is that outline (Flood 1956): it is found', () => {
    const next = random(9);
    const turns = Array.from({ length: 1500 }, () => 2 * Math.PI * next());
    const on = (angles: readonly number[]): Float64Array =>
      Float64Array.from(angles.flatMap((a) => [900 * Math.cos(a), 400 * Math.sin(a)]));
    const xy = on(turns);
    const least = tourLength(on([...turns].sort((a, b) => a - b)), asNumbered(xy), true);
    expect(tourLength(xy, shortened(xy, asNumbered(xy), { isRound: true }), true) / least).toBeLessThan(1.02);
  });

  test('2 000 strewn places: within 5 % of what Johnson & McGeoch 1996 expect of the shortest', () => {
    const xy = strewn(2000, 11);
    const least = 0.7124 * Math.sqrt(2000 * 1e6) * (1 + 0.33 / 2000);
    const round = shortened(xy, asNumbered(xy), { isRound: true });
    expect(tourLength(xy, round, true) / least).toBeLessThan(1.05);
  });
});

describe('an open way', () => {
  test('begins where it did, goes to every place once, and is no longer; the same every time', () => {
    for (let n = 1; n < 60; n++) {
      const xy = strewn(n, n);
      const before = asNumbered(xy);
      const way = shortened(xy, before);
      expect(way[0]).toBe(0);
      expect(new Set(way).size).toBe(n);
      expect(tourLength(xy, way)).toBeLessThanOrEqual(tourLength(xy, before) + 1e-9);
      expect(shortened(xy, before)).toEqual(way);
    }
  });

  test('of seven places it is the shortest there is, nearly always (all 720 orders tried)', () => {
    let best = 0;
    for (let seed = 1; seed <= 40; seed++) {
      const xy = strewn(7, seed);
      const least = Math.min(...ordersOf([1, 2, 3, 4, 5, 6]).map((rest) => tourLength(xy, [0, ...rest])));
      const found = tourLength(xy, shortened(xy, asNumbered(xy)));
      expect(found).toBeGreaterThan(least - 1e-9);
      if (found < least + 1e-9) best++;
    }
    expect(best).toBeGreaterThanOrEqual(36);
  });

  test('places that lie on one another do no harm', () => {
    const xy = new Float64Array(80).map((_, i) => (i < 40 ? 5 : i));
    expect(new Set(shortened(xy, asNumbered(xy))).size).toBe(40);
  });
});

function ordersOf(list: readonly number[]): number[][] {
  if (list.length < 2) return [[...list]];
  return list.flatMap((first) =>
    ordersOf(list.filter((one) => one !== first)).map((rest) => [first, ...rest]),
  );
}
