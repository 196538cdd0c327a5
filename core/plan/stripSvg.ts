import type { LineKind } from '../artwork/choices';
import { mapped } from '../geometry/matrix';
import { lineToPathData, regionToPathData } from '../geometry/pathText';
import { mapRegion } from '../geometry/region';
import type { WeededStrip } from '../weeding/weeding';

const escapeText = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);

const KINDS: readonly LineKind[] = ['through', 'perforated', 'crease', 'pen'];

/** A strip's cut lines as an SVG in real millimetres: art as closed outlines, weed borders, weed lines and what is written into the waste in groups of their own. */
export function stripSvg(strip: WeededStrip): string {
  const w = strip.length.toFixed(3);
  const h = strip.cuttable.toFixed(3);
  const art = strip.placements.map((p) => regionToPathData(mapRegion(p.part.region, p.matrix)));
  const group = (id: string, paths: readonly string[]): string =>
    paths.length === 0
      ? ''
      : `  <g id="${id}" fill="none" stroke="${strip.film.colour}" stroke-width="0.1">\n${paths
          .map((d) => `    <path d="${d}"/>`)
          .join('\n')}\n  </g>\n`;
  const lines = (kind: LineKind): string[] =>
    strip.placements.flatMap((p) =>
      p.part.lines
        .filter((line) => line.kind === kind)
        .map((line) => lineToPathData({ points: mapped(line.points, p.matrix), closed: line.closed })),
    );
  const others = KINDS.map((kind) => group(`${kind}-line`, lines(kind))).join('');
  const waste = strip.placements.flatMap((p) =>
    p.part.waste.map(({ points, closed }) => lineToPathData({ points: mapped(points, p.matrix), closed })),
  );
  const { borders, lines: weedLines } = strip.weeding;
  return `<?xml version="1.0" encoding="UTF-8"?>
<svg xmlns="http://www.w3.org/2000/svg" width="${w}mm" height="${h}mm" viewBox="0 0 ${w} ${h}">
  <title>${escapeText(strip.film.name)}${strip.mirrored ? ', mirrored' : ''}</title>
${group('kiss-cut', [...art.filter(Boolean), ...lines('kiss')])}${others}${group('waste', waste)}${group('weed-border', borders.flat().map(lineToPathData))}${group('weed-line', weedLines.flat().map(lineToPathData))}</svg>
`;
}
