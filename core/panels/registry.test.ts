/** Panels of drawings that nobody here made: emoji and flags from the package registry, at the size of walls. */
import { expect, test } from '@jest/globals';
import { readdirSync, readFileSync } from 'node:fs';
import { Resvg } from '@resvg/resvg-js';
import { CURLEW, DEMO_SHOP } from '../../demo/shop';
import { heightOf, widthOf } from '../geometry/bounds';
import { difference, intersection, outlineLength, regionArea, weld } from '../geometry/region';
import { panelRoomOf } from '../layout/panelRoom';
import { oneFile } from '../plan/oneFile';
import { createPlanner } from '../plan/plan';
import { random } from '../random';
import { readResolvedSvg } from '../readers/svg/readResolvedSvg';
import type { PanelChoices, PanelWay } from './choices';
import { fitsIn } from './room';
import { sample, times } from '../sample.testing';

const FOLDERS = ['node_modules/@twemoji/svg', 'node_modules/flag-icons/flags/4x3'];
const WAYS: readonly PanelWay[] = ['when-needed', 'wandering', 'pieces', 'equal', 'media'];
const FILES = 4;
const WAYS_EACH = times(WAYS.length, 2);
/** Larger ones take minutes, and have nothing that these lack. */
const MOST_SHAPES = 8;

/** Drawings in an order of chance, always the same. */
function drawings(): string[] {
  const next = random(20261126);
  const all = FOLDERS.flatMap((folder) => {
    const names = readdirSync(folder).filter((name) => name.endsWith('.svg'));
    return names.map((name) => `${folder}/${name}`);
  });
  return Array.from({ length: FILES }, () => all[Math.floor(next() * all.length)]);
}

test('two to twelve metres wide: nothing is lost, nothing is twice, nothing is over the limit, keys and numbers with it', () => {
  let panelled = 0;
  drawings().forEach((file, i) => {
    const artwork = readResolvedSvg(
      new Resvg(readFileSync(file, 'utf8'), { font: { loadSystemFonts: false } }).toString(),
    );
    if (artwork.shapes.length === 0 || artwork.shapes.length > MOST_SHAPES) return;
    const { artworks, choices } = oneFile(artwork);
    const planner = createPlanner();
    const width = 2000 + (10_000 * i) / (FILES - 1);
    for (const way of sample(WAYS, WAYS_EACH)) {
      const panels: PanelChoices = {
        ...choices.panels,
        way,
        overlap: i % 3 === 0 ? 10 : 0,
        onTop: i % 2 ? 'next' : 'before',
      };
      const plan = planner.plan(
        artworks,
        { ...choices, artwork: { ...choices.artwork, width }, panels },
        DEMO_SHOP,
        { order: 2000 + i },
      );
      if (plan.findings.some(({ severity, stage }) => severity === 'stop' && stage === 'panels')) continue;
      for (const layer of plan.separation.films) {
        const own = plan.panels.filter(({ film }) => film.id === layer.film.id);
        if (own.length === 0) continue;
        panelled++;
        const room = panelRoomOf(layer.film, choices.layout, CURLEW, null)!;
        for (const { bounds, cell } of own)
          expect([file, way, cell.number, fitsIn(widthOf(bounds), heightOf(bounds), room)]).toEqual([
            file,
            way,
            cell.number,
            true,
          ]);
        // outline length × 1 µm
        const outlines = layer.outline + own.reduce((sum, part) => sum + outlineLength(part.region), 0);
        const slack = 0.001 * outlines + 0.01;
        const parts = own.flatMap(({ region }) => region);
        const whole = weld(parts);
        const lost = regionArea(difference(layer.region, whole));
        const more = regionArea(difference(whole, layer.region));
        expect([file, way, layer.film.id, lost < slack, more < slack]).toEqual([
          file,
          way,
          layer.film.id,
          true,
          true,
        ]);
        if (panels.overlap > 0) continue;
        const twice = own
          .slice(1)
          .reduce((sum, part, k) => sum + regionArea(intersection(part.region, own[k].region)), 0);
        expect([file, way, layer.film.id, twice < slack]).toEqual([file, way, layer.film.id, true]);
      }
    }
  });
  expect(panelled).toBeGreaterThan(FILES * WAYS_EACH * 0.6);
}, 180_000);
