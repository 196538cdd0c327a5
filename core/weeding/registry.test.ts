/** Weed lines among drawings that nobody here made: emoji and flags from the package registry, by the hundred. */
import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import * as Flatten from '@flatten-js/core';
import { Resvg } from '@resvg/resvg-js';
import { CURLEW, DEMO_FILMS } from '../../demo/shop';
import { prepare } from '../artwork/prepare';
import type { Film } from '../films/film';
import type { Bounds } from '../geometry/bounds';
import { boundsTouch, emptyBounds, growBounds, outset } from '../geometry/bounds';
import { segmentEnds } from '../geometry/path';
import type { Polyline } from '../geometry/path';
import { mapRegion, rectangle, regionBounds, weld } from '../geometry/region';
import { layOut } from '../layout/layOut';
import type { Strip } from '../layout/strip';
import { BORDERS, NO_WEED_LINES } from '../layout/weedChoices';
import type { Part } from '../panels/part';
import { DEFAULT_CHOICES } from '../plan/choices';
import { oneFile } from '../plan/oneFile';
import { random } from '../random';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { Weeding } from './weeding';
import { weed } from './weeding';
import { times } from '../sample.testing';

const FOLDERS = ['node_modules/@twemoji/svg', 'node_modules/flag-icons/flags/4x3'];
const STRIPS = times(36, 9);
const ON_STRIP = 7;
const FILM: Film = { ...DEMO_FILMS[0], rolls: [{ width: 610, lengthLeft: 20_000 }] };
const next = random(20261127);
const oneOf = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)];
const FILES = FOLDERS.flatMap((folder) =>
  readdirSync(folder)
    .filter((name) => name.endsWith('.svg'))
    .map((name) => `${folder}/${name}`),
);

/** All that a drawing holds as one film, 60 to 160 mm wide. */
function partOf(file: string): Part {
  const artwork = readResolvedSvg(
    new Resvg(readFileSync(file, 'utf8'), { font: { loadSystemFonts: false } }).toString(),
  );
  const { artworks, choices } = oneFile(artwork);
  const { shapes } = prepare(artworks, { ...choices.artwork, width: 60 + 100 * next() });
  const region = weld(shapes.flatMap((shape) => shape.region));
  const bounds = regionBounds(region);
  return { id: file, film: FILM, label: file, region, marks: [], lines: [], waste: [], bounds, area: 1 };
}

const segments = ({ points, closed }: Polyline): Flatten.Segment[] =>
  Array.from({ length: points.length / 2 - (closed ? 0 : 1) }, (_, i) => {
    const [ax, ay, bx, by] = segmentEnds(points, i);
    return new Flatten.Segment(new Flatten.Point(ax, ay), new Flatten.Point(bx, by));
  });
const boxOf = ({ start, end }: Flatten.Segment): Bounds =>
  growBounds(emptyBounds(), [start.x, start.y, end.x, end.y]);

/** mm from a line to other lines by an independent library (@flatten-js/core), as far as it matters. */
function distance(line: Polyline, others: readonly Flatten.Segment[], most: number): number {
  let least = most;
  for (const own of segments(line)) {
    const near = outset(boxOf(own), most);
    for (const other of others)
      if (boundsTouch(boxOf(other), near)) least = Math.min(least, own.distanceTo(other)[0]);
  }
  return least;
}

/** mm from a line's ends to the nearest border, other line, or end of what the knife reaches. */
function endsOff(line: Polyline, { cuttable, length }: Strip, { borders, lines }: Weeding): number {
  const others = [...borders.flat(), ...lines.flat()].filter((other) => other !== line).flatMap(segments);
  const reach = rectangle({ minX: 1, minY: 0, maxX: length - 1, maxY: cuttable });
  const reached = segments({ points: reach[0], closed: true });
  const last = line.points.length - 2;
  const ends = [0, last].map((i) => new Flatten.Point(line.points[i], line.points[i + 1]));
  return Math.max(
    ...ends.map((end) => Math.min(...[...others, ...reached].map((one) => end.distanceTo(one)[0]))),
  );
}

test('no line comes nearer to any art than asked, and each begins and ends on a border, a line or the film’s end', () => {
  let [laid, drawings] = [0, 0];
  for (let k = 0; k < STRIPS; k++) {
    const parts = Array.from({ length: ON_STRIP }, () => partOf(oneOf(FILES))).filter(
      (part) => part.region.length > 0,
    );
    const border = oneOf(BORDERS);
    const away = oneOf([1, 2, 5]);
    const [strip] = layOut(FILM, parts, { ...DEFAULT_CHOICES.layout, border, spacing: 6 }, CURLEW).strips;
    const how = {
      ...NO_WEED_LINES,
      way: oneOf(['step', 'lift'] as const),
      direction: oneOf(['across', 'along', 'both'] as const),
      step: 30 + 100 * next(),
      away,
      byHand: [],
    };
    const made = weed(strip, { border, borderDistance: 5, isPacked: false, weedLines: how });
    const art = strip.placements.flatMap(({ part, matrix }) =>
      mapRegion(part.region, matrix).flatMap((points) => segments({ points, closed: true })),
    );
    drawings += parts.length;
    for (const line of made.lines.flat()) {
      laid++;
      expect([k, distance(line, art, away) >= away - 0.01]).toEqual([k, true]);
      expect([k, endsOff(line, strip, made) < 0.05]).toEqual([k, true]);
    }
  }
  expect(drawings).toBeGreaterThan(0.8 * ON_STRIP * STRIPS);
  expect(laid).toBeGreaterThan(2 * STRIPS);
});
