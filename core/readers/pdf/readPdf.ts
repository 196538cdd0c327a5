/**
 * Reads one page of a PDF from its drawing steps (ISO 32000-2, 8 and 9): paths, fills, strokes, clips, text as
 * outlines, layers and spot colours. The steps come from a parser that runs where it can be stopped (server/files).
 */
import { MM_PER_INCH } from '../../units/length';
import type { Answer, Artwork, Offers, PageBox } from '../artwork';
import { clipToPage } from '../clipToPage';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, translation } from '../../geometry/matrix';
import { Drawing } from './drawing';
import type { PdfBox, PdfPage, Steps } from './parsed';
import type { Page } from './steps';
import { carryOut } from './steps';
import { Text } from './text';
import { Told } from './told';

const PT = MM_PER_INCH / 72;

/**
 * Reads the page into artwork.
 * @param box which of the page's boxes is the page; missing or null: what a viewer shows
 * @throws TooManySteps
 */
export function readPdf(pdf: PdfPage, box: PageBox | null): Artwork {
  const { view, rotate, unit } = pdf.sheet;
  const edge = (box && pdf.boxes[box]) ?? view;
  const { matrix, width, height } = pageMatrix(edge, rotate, unit);
  const told = new Told();
  const drawing = new Drawing(pdf, told, matrix, { minX: 0, minY: 0, maxX: width, maxY: height });
  let left = MOST_STEPS;
  const draw = (steps: Steps): void => {
    left -= steps.length;
    if (left < 0) throw new TooManySteps();
    for (const [name, args] of steps) carryOut(page, name, args ?? []);
  };
  const page: Page = { drawing, text: new Text(pdf, drawing, draw) };
  draw(pdf.steps);
  if (pdf.skipped) told.count('damaged', pdf.skipped);
  const clipped = clipToPage(drawing.shapes, drawing.clips, { width, height });
  const offers: Offers = { pages: pageAnswers(pdf), boxes: boxAnswers(pdf, unit) };
  return {
    page: { width, height },
    ...clipped,
    findings: [...told.findings(), ...clipped.findings],
    offers,
  };
}

/** A page has more drawing steps than can be worked through. */
export class TooManySteps extends Error {}

/** Drawing steps of a page, those of its drawn letters counted each time they are shown. */
const MOST_STEPS = 3_000_000;

/** User space → mm from the upper left corner of a box, the page's own turn carried out. */
function pageMatrix(
  [x0, y0, x1, y1]: PdfBox,
  rotate: number,
  unit: number,
): { matrix: Matrix; width: number; height: number } {
  const k = PT * unit;
  const [w, h] = [(x1 - x0) * k, (y1 - y0) * k];
  const upright = multiply([k, 0, 0, -k, 0, h], translation(-x0, -y0));
  const turns: Readonly<Record<number, Matrix>> = {
    90: [0, 1, -1, 0, h, 0],
    180: [-1, 0, 0, -1, w, h],
    270: [0, -1, 1, 0, 0, w],
  };
  const quarter = ((rotate % 360) + 360) % 360;
  const matrix = multiply(turns[quarter] ?? IDENTITY, upright);
  return quarter % 180 === 90 ? { matrix, width: h, height: w } : { matrix, width: w, height: h };
}

const sized = <T>(value: T, [x0, y0, x1, y1]: PdfBox, unit: number): Answer<T> => ({
  value,
  width: (x1 - x0) * PT * unit,
  height: (y1 - y0) * PT * unit,
});

const pageAnswers = ({ pages }: PdfPage): Offers['pages'] =>
  pages.length < 2 ? undefined : pages.map(({ view, unit }, i) => sized(i + 1, view, unit));

/** Boxes that differ from one another; a page with one size for all of them leaves nothing to choose. */
function boxAnswers({ boxes }: PdfPage, unit: number): Offers['boxes'] {
  const known = new Set<string>();
  const answers = (Object.entries(boxes) as [PageBox, PdfBox][]).flatMap(([name, box]) => {
    if (known.has(box.join())) return [];
    known.add(box.join());
    return [sized(name, box, unit)];
  });
  return answers.length < 2 ? undefined : answers;
}
