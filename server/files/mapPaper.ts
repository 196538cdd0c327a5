/** The fitting map on paper: the sign to scale in its panels, with tape lines, and the panels in their order. */
import type { FilmLayer } from '../../core/films/separate';
import type { FittingMap, MapPanel, Measured } from '../../core/panels/fittingMap';
import { datumWord } from '../../core/panels/fittingMap';
import { formatBoth, formatNumber } from '../../core/units/length';
import type { Doc, PaperOrder } from './sheet';
import { drawing, INK, line, MARGIN, rule, sheet, SOFT } from './sheet';

const TAPE = '#5e2750';
const CLEAR = '#b3263a';
/** Room beside the picture for figures, pt. */
const BESIDE = 46;
/** Least height of the picture, pt. */
const LEAST = 180;

export const mapPaper = (
  map: FittingMap,
  films: readonly Pick<FilmLayer, 'film' | 'region'>[],
  order: PaperOrder,
): Promise<Buffer> =>
  sheet('Fitting map', order, 'landscape', (doc) => {
    doc.font('text').fontSize(11).fillColor(INK);
    line(doc, saysOf(map));
    doc.y += 6;
    picture(doc, map, films);
    table(doc, map);
  });

function saysOf({ datum, tape, isOnSurface, width, height }: FittingMap): string {
  const own = [...tape.upright, ...tape.level].flatMap(({ overlap }) => overlap ?? []);
  const [first = 0] = own;
  const lies = own.every((mm) => mm === 0)
    ? 'Edge to edge.'
    : own.every((mm) => mm === first)
      ? `Each panel lies ${formatBoth(first)} beneath the next.`
      : `At the seams panels lie ${own.map((mm) => formatNumber(mm, 'mm')).join(', ')} mm beneath the next, in this order.`;
  return `The ${isOnSurface ? 'surface' : 'sign'} is ${formatBoth(width)} × ${formatBoth(height)}. All figures in mm from ${datumWord(datum.across, isOnSurface)} and ${datumWord(datum.down, isOnSurface)}. ${lies}`;
}

function picture(doc: Doc, map: FittingMap, films: readonly Pick<FilmLayer, 'film' | 'region'>[]): void {
  const { width, height, tape, panels } = map;
  const room = {
    width: doc.page.width - 2 * MARGIN - BESIDE,
    height: Math.max(LEAST, doc.page.height - MARGIN - doc.y - 40),
  };
  const scale = Math.min(room.width / width, room.height / height);
  const [left, top] = [MARGIN + BESIDE, doc.y + 18];
  doc.save().opacity(0.28);
  drawing(
    doc,
    films.map(({ film, region }) => ({ region, colour: film.colour })),
    { minX: -map.sign.minX, minY: -map.sign.minY, width, height },
    [left, top, width * scale, height * scale],
  );
  doc.restore().opacity(1);
  doc
    .rect(left, top, width * scale, height * scale)
    .lineWidth(0.6)
    .stroke(SOFT);
  for (const { x, y, width: w, height: h, name } of map.keepOuts) {
    const [a, b] = [left + x * scale, top + y * scale];
    doc
      .rect(a, b, w * scale, h * scale)
      .moveTo(a, b)
      .lineTo(a + w * scale, b + h * scale)
      .moveTo(a, b + h * scale)
      .lineTo(a + w * scale, b)
      .lineWidth(0.6)
      .stroke(CLEAR);
    doc
      .font('text')
      .fontSize(8)
      .fillColor(CLEAR)
      .text(name, a + 3, b + 3, { lineBreak: false });
  }
  const figure = ({ from }: Measured): string => formatNumber(from, 'mm');
  doc.font('text').fontSize(8.5);
  for (const mark of tape.upright) {
    const x = left + mark.at * scale;
    if (mark.way) tapeAlong(doc, mark.way, left, top, scale);
    else dashed(doc, x, top - 4, x, top + height * scale);
    doc.fillColor(INK).text(figure(mark), x - 30, top - 15, { width: 60, align: 'center', lineBreak: false });
  }
  for (const mark of tape.level) {
    const y = top + mark.at * scale;
    if (mark.way) tapeAlong(doc, mark.way, left, top, scale);
    else dashed(doc, left - 4, y, left + width * scale, y);
    doc
      .fillColor(INK)
      .text(figure(mark), MARGIN, y - 5, { width: BESIDE - 6, align: 'right', lineBreak: false });
  }
  doc.font('bold').fontSize(15);
  for (const { number, seen, isPiece } of panels) {
    if (isPiece)
      doc
        .rect(
          left + seen.minX * scale,
          top + seen.minY * scale,
          (seen.maxX - seen.minX) * scale,
          (seen.maxY - seen.minY) * scale,
        )
        .lineWidth(0.5)
        .stroke(TAPE);
    const [x, y] = [(seen.minX + seen.maxX) / 2, (seen.minY + seen.maxY) / 2];
    doc.fillColor(INK).text(String(number), left + x * scale - 20, top + y * scale - 8, {
      width: 40,
      align: 'center',
      lineBreak: false,
    });
  }
  doc.x = MARGIN;
  doc.y = top + height * scale + 14;
}

/** Tape beside a seam that wanders. */
function tapeAlong(doc: Doc, way: readonly number[], left: number, top: number, scale: number): void {
  for (let i = 0; i < way.length; i += 2) {
    const [x, y] = [left + way[i] * scale, top + way[i + 1] * scale];
    if (i === 0) doc.moveTo(x, y);
    else doc.lineTo(x, y);
  }
  doc.lineWidth(0.9).dash(5, { space: 3 }).stroke(TAPE).undash();
}

function dashed(doc: Doc, x0: number, y0: number, x1: number, y1: number): void {
  doc.moveTo(x0, y0).lineTo(x1, y1).lineWidth(0.9).dash(5, { space: 3 }).stroke(TAPE).undash();
}

/** Columns of the table: heading, width in pt, and what stands there. */
const COLUMNS: readonly (readonly [string, number, (panel: MapPanel) => string])[] = [
  ['Goes on', 58, ({ turn }) => String(turn)],
  ['Panel', 52, ({ number }) => String(number)],
  ['Seen, mm', 130, ({ seen }) => sizeOf(seen)],
  ['Cut, mm', 130, ({ whole }) => sizeOf(whole)],
  ['Across, mm', 84, ({ across }) => formatNumber(across, 'mm')],
  ['Down, mm', 84, ({ down }) => formatNumber(down, 'mm')],
  ['Films', 200, ({ films }) => films.map(({ name }) => name).join(', ')],
];
const sizeOf = ({ minX, minY, maxX, maxY }: MapPanel['seen']): string =>
  `${formatNumber(maxX - minX, 'mm')} × ${formatNumber(maxY - minY, 'mm')}`;
const ROW = 17;

function table(doc: Doc, { panels }: FittingMap): void {
  const row = (texts: readonly string[], font: 'text' | 'bold'): void => {
    if (doc.y > doc.page.height - MARGIN - ROW) doc.addPage();
    const y = doc.y;
    let x = MARGIN;
    doc.font(font).fontSize(10.5).fillColor(INK);
    texts.forEach((text, i) => {
      doc.text(text, x, y, { width: COLUMNS[i][1] - 6, height: ROW, ellipsis: true, lineBreak: false });
      x += COLUMNS[i][1];
    });
    doc.y = y + ROW;
  };
  if (doc.y > doc.page.height - MARGIN - 3 * ROW) doc.addPage();
  row(
    COLUMNS.map(([title]) => title),
    'bold',
  );
  rule(doc);
  for (const panel of panels)
    row(
      COLUMNS.map(([, , of]) => of(panel)),
      'text',
    );
}
