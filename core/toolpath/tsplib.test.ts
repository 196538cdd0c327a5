/** A larger published problem than fits into a test's text: out of Debian's package of an R library that ships it. */
import { expect, test } from '@jest/globals';
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { shortened, tourLength } from './tour';

/** Debian's own downloader, once more after it has looked what there is. */
const FETCH =
  '(apt-get download -qq r-cran-tsp || (apt-get update -qq && apt-get download -qq r-cran-tsp)) && dpkg-deb -x r-cran-tsp*.deb .';

function places(file: string): Float64Array {
  const dir = mkdtempSync(join(tmpdir(), 'jam-pan-tsplib-'));
  try {
    execFileSync('sh', ['-c', FETCH], { cwd: dir, stdio: 'ignore' });
    const text = readFileSync(join(dir, 'usr/lib/R/site-library/TSP/examples', file), 'utf8');
    return Float64Array.from(
      [...text.matchAll(/^\d+ (\S+) (\S+)$/gm)].flatMap(([, x, y]) => [x, y].map(Number)),
    );
  } finally {
    rmSync(dir, { recursive: true });
  }
}

test('d493, holes to drill: within 2 % of the published optimum of 35002 (TSPLIB, Reinelt 1991; the figure from memory)', () => {
  const xy = places('d493.tsp');
  expect(xy).toHaveLength(2 * 493);
  const round = shortened(
    xy,
    Int32Array.from({ length: 493 }, (_, i) => i),
    { isRound: true },
  );
  expect(new Set(round).size).toBe(493);
  // TSPLIB measures every step in whole units: half a unit a step more or less
  const length = tourLength(xy, round, true);
  expect(length).toBeLessThan(35_002 * 1.02);
  expect(length).toBeGreaterThan(35_002 - 493 / 2);
}, 120_000);
