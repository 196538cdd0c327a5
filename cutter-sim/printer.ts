/** The simulated printer: draws a PDF as it is, by a renderer that is none of ours, and keeps what it printed. */
import { PDFiumLibrary } from '@hyzyla/pdfium';
import type { Print } from './print';

const POINTS = 72 / 25.4;
/** mm: a page is no longer, and no wider. */
const [LONGEST, WIDEST] = [3000, 640];
/** Dots a mm, and in all: a large page is drawn coarser. */
const [PER_MM, MOST_DOTS] = [10, 60_000_000];

export class PrintProblem extends Error {}

let library: Promise<PDFiumLibrary> | undefined;

/** Prints the first page of a PDF. @throws PrintProblem when it is none, or larger than the printer takes */
export async function printPage(pdf: Uint8Array): Promise<Print> {
  library ??= PDFiumLibrary.init();
  const document = await (await library).loadDocument(pdf).catch(() => {
    throw new PrintProblem('That is no PDF.');
  });
  try {
    const page = document.getPage(0);
    const { originalWidth, originalHeight } = page.getOriginalSize();
    const [width, height] = [originalWidth / POINTS, originalHeight / POINTS];
    if (Math.max(width, height) > LONGEST || Math.min(width, height) > WIDEST)
      throw new PrintProblem('The page is larger than the printer takes.');
    const perMm = Math.min(PER_MM, Math.sqrt(MOST_DOTS / (width * height)));
    const scale = perMm / POINTS;
    const image = await page.render({ scale, render: 'bitmap', colorSpace: 'Gray' });
    return { width, height, columns: image.width, rows: image.height, grey: image.data };
  } finally {
    document.destroy();
  }
}
