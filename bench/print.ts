/** Print and cut: the line around a large picture and around many shapes, a line that is moved, a sheet as PDF. */
import { readFileSync } from 'node:fs';
import { DEFAULT_TRACE } from '../core/artwork/choices';
import { rectangle } from '../core/geometry/region';
import { oneFile } from '../core/plan/oneFile';
import { createPlanner } from '../core/plan/plan';
import type { PrintChoices } from '../core/print/choices';
import { USUAL_CUT_LINE, USUAL_MARKS } from '../core/print/choices';
import { bleedOf } from '../core/print/bleed';
import { cutLineAround } from '../core/print/cutLine';
import { printUnit } from '../core/print/sheets';
import { artworkOfTrace, trace } from '../core/tracing/trace';
import { ofSize } from './size';
import { DEMO_SHOP } from '../demo/shop';
import { readSvg } from '../server/files/readSvg';
import { printPdf } from '../server/files/printPdf';
import type { Picture } from '../core/tracing/picture';

/** A wavy disc of many colours on nothing. */
function cutOut(width: number, height: number): Picture {
  const data = new Uint8Array(4 * width * height);
  for (let y = 0, p = 0; y < height; y++) {
    for (let x = 0; x < width; x++, p += 4) {
      const [dx, dy] = [(2 * x) / width - 1, (2 * y) / height - 1];
      const isIn = Math.hypot(dx, dy) < 0.9 + 0.08 * Math.sin(17 * Math.atan2(dy, dx));
      data.set([(255 * x) / width, (255 * y) / height, 90, isIn ? 255 : 0], p);
    }
  }
  return { width, height, data };
}

/** A drawing with all its colours sent to print. */
async function printed(svg: string) {
  const { artworks, choices } = oneFile(await readSvg(Buffer.from(svg)));
  const planner = createPlanner();
  const { colours } = planner.plan(artworks, choices, DEMO_SHOP).separation;
  const films = { ...choices.films, print: colours.map(({ colour }) => colour) };
  const sheet = { width: 1189, height: 841 };
  return (print: Partial<PrintChoices>, copies = 12) => {
    const layout = { ...choices.layout, copies };
    const asked = { ...choices, films, layout, print: { ...choices.print, sheet, ...print } };
    return planner.plan(artworks, asked, DEMO_SHOP);
  };
}

/** ms of each */
export async function printAndCut(time: (work: () => unknown) => number) {
  const picture = cutOut(ofSize(4000, 80), ofSize(3000, 60));
  const asItIs = { ...DEFAULT_TRACE, by: 'print' } as const;
  const planner = createPlanner();
  const { artworks, choices } = oneFile(artworkOfTrace(trace(picture, asItIs), 0.1));
  const contour = time(() => {
    const artwork = artworkOfTrace(trace(picture, asItIs), 0.1);
    const drawn = planner.plan(new Map([[[...artworks.keys()][0], artwork]]), choices, DEMO_SHOP);
    return cutLineAround(drawn.separation.colours[0].region, USUAL_CUT_LINE);
  });

  const apart = Array.from({ length: ofSize(5000, 20) }, (_, n) => {
    const [x, y] = [(n % 80) * 30, Math.floor(n / 80) * 30];
    return Float64Array.from(
      Array.from({ length: 24 }, (__, k) => {
        const [a, r] = [(2 * Math.PI * k) / 24, 10 + Math.sin((k * Math.PI) / 2)];
        return [x + r * Math.cos(a), y + r * Math.sin(a)];
      }).flat(),
    );
  });
  const seen = [{ colour: '#b0202f', region: apart }];
  const around = time(() => printUnit(seen, seen, [USUAL_CUT_LINE], 0));

  // the demo's stickers, twelve on a sheet, with their bleed and two lines
  const plan = await printed(readFileSync('demo/art/ice-cream-stickers.svg', 'utf8'));
  let more = 0;
  const lines = (): PrintChoices['lines'] => [
    { ...USUAL_CUT_LINE, offset: 0 },
    { ...USUAL_CUT_LINE, kind: 'perforated', offset: 3 + (more += 0.01) },
  ];
  const line = time(() => plan({ bleed: 2, lines: lines() }));
  const marks = time(() => plan({ bleed: 2, marks: { ...USUAL_MARKS, away: 15 + (more += 0.01) } }));

  const half = (minX: number) => rectangle({ minX, minY: 0, maxX: minX + 1500, maxY: 1000 });
  const banner = ['#b0202f', '#1d3f86'].map((colour, i) => ({ colour, region: half(1500 * i) }));
  const inside = rectangle({ minX: 0, minY: 0, maxX: 3000, maxY: 1000 });
  const bleed = time(() => bleedOf(banner, inside, 3));

  const { unit, sheets } = plan({ bleed: 2, lines: lines() }, ofSize(40, 2)).printed!;
  const { sheet } = sheets[0];
  const begun = performance.now();
  await printPdf(unit, sheet, { code: 'JP 1 1 A', text: '#1' }, { marks: USUAL_MARKS, withLines: true });
  return { contour, around, line, marks, bleed, pdf: performance.now() - begun, copies: sheet.places.length };
}
