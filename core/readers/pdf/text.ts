import { own } from '../../units/own';
import type { ClipOutline } from '../artwork';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, translation } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import { mapPath } from '../../geometry/path';
import type { Drawing } from './drawing';
import { unpackPath } from './packedPath';
import type { Glyph, PdfFont, PdfPage, Steps, VerticalMetrics } from './parsed';

/** Draws the steps of a glyph that is a drawing of its own. */
export type DrawSteps = (steps: Steps) => void;

/** Glyphs that are drawings within drawings, at most. */
const DEEPEST = 8;

/** Where text stands, and the outlines of what is shown there (ISO 32000-2, 9.4). */
export class Text {
  private textMatrix: Matrix = IDENTITY;
  private lineMatrix: Matrix = IDENTITY;
  /** Glyphs shown since the text began that clip what comes after it (ISO 32000-2, 9.3.6). */
  private clipping: ClipOutline[] = [];
  private depth = 0;

  constructor(
    private readonly pdf: PdfPage,
    private readonly drawing: Drawing,
    private readonly draw: DrawSteps,
  ) {}

  begin(): void {
    this.textMatrix = this.lineMatrix = IDENTITY;
  }
  end(): void {
    // text without any outline clips nothing
    if (this.clipping.length > 0) this.drawing.clipTo(this.clipping);
    this.clipping = [];
  }
  setMatrix(matrix: Matrix): void {
    this.textMatrix = this.lineMatrix = matrix;
  }
  move(x: number, y: number): void {
    this.textMatrix = this.lineMatrix = multiply(this.lineMatrix, translation(x, y));
  }
  setLeadingAndMove(x: number, y: number): void {
    this.drawing.set({ leading: -y });
    this.move(x, y);
  }
  nextLine(): void {
    this.move(0, -this.drawing.state.leading);
  }

  show(glyphs: readonly unknown[]): void {
    const { told, state } = this.drawing;
    const font = own(this.pdf.fonts, state.font);
    if (!font) return told.count('text');
    if (font.missing) told.missFont(font.name, font.standIn);
    const isSeen = glyphs.length > 0 && this.drawing.isSeen();
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') this.advance((-glyph / 1000) * state.fontSize, font);
      else this.showGlyph(glyph as Glyph, font, isSeen);
    }
  }

  private showGlyph(glyph: Glyph, font: PdfFont, isSeen: boolean): void {
    const { fontSize, charSpacing, wordSpacing, hScale, rise, textMode } = this.drawing.state;
    const vertical = font.vertical ? verticalOf(glyph, font) : undefined;
    const size: Matrix = [fontSize * hScale, 0, 0, fontSize, 0, rise];
    const place = multiply(this.textMatrix, size);
    const [x, y] = vertical ? [-vertical[1] / 1000, -vertical[2] / 1000] : [0, 0];
    const origin = multiply(place, translation(x, y));
    if (font.type3) {
      if (isSeen && textMode !== INVISIBLE) this.drawProcedure(glyph, font, origin);
    } else if (isSeen) this.drawOutlines(glyph, font, origin);
    const [perWidth = 0.001] = font.fontMatrix ?? [];
    const width = vertical ? vertical[0] / 1000 : glyph.width * perWidth;
    this.advance(width * fontSize + charSpacing + (glyph.isSpace ? wordSpacing : 0), font);
  }

  /** The glyph is painted with what the text is painted with, unless it sets colours of its own. */
  private drawProcedure({ operatorListId = '' }: Glyph, font: PdfFont, place: Matrix): void {
    const steps = own(font.procedures ?? {}, operatorListId);
    if (!steps) return this.drawing.told.missLetter(font.name, operatorListId);
    if (this.depth >= DEEPEST) return;
    const { textMatrix, lineMatrix, clipping } = this;
    this.clipping = [];
    this.depth++;
    this.drawing.save();
    this.drawing.transform(multiply(place, (font.fontMatrix as Matrix | undefined) ?? THOUSANDTHS));
    this.draw(steps);
    this.drawing.restore();
    this.depth--;
    [this.textMatrix, this.lineMatrix, this.clipping] = [textMatrix, lineMatrix, clipping];
  }

  private drawOutlines(glyph: Glyph, font: PdfFont, place: Matrix): void {
    const { fontChar, width, unicode = '', isInFont, originalCharCode, accent } = glyph;
    const data = own(font.glyphs, fontChar);
    const isBlank = unicode.trim() === '' && unicode !== '';
    // what the face lacks would be drawn as its box for missing letters
    const isNotDefined = !isInFont || (font.composite === true && originalCharCode === 0);
    const isMissing = font.missing ? data === undefined : isNotDefined;
    if (isMissing && !isBlank && width > 0) this.drawing.told.missLetter(font.name, unicode || fontChar);
    if (isBlank || isMissing) return;
    if (data && data.length > 0) this.putGlyph(unpackPath(data), place);
    const mark = accent && own(font.glyphs, accent.fontChar);
    if (mark && mark.length > 0)
      this.putGlyph(unpackPath(mark), multiply(place, translation(accent.offset.x, accent.offset.y)));
  }

  /** @param place from the glyph's space, one unit a size, to that of the text */
  private putGlyph(outline: Path, place: Matrix): void {
    const { matrix, fill, stroke, textMode } = this.drawing.state;
    // the pen has its width on the page, however large the letters are
    const path = mapPath(outline, place);
    const how = textMode & 3;
    if (how === 0 || how === 2) this.drawing.put(path, matrix, fill, 'nonzero');
    if (how === 1 || how === 2) this.drawing.put(path, matrix, stroke, 'nonzero', true, how === 2);
    if (textMode >= 4) this.clipping.push({ path, matrix, fill: 'nonzero' });
  }

  /** Moves on along the line: to the right, narrowed or widened with the letters, or downwards. */
  private advance(by: number, { vertical }: PdfFont): void {
    const step = vertical ? translation(0, by) : translation(by * this.drawing.state.hScale, 0);
    this.textMatrix = multiply(this.textMatrix, step);
  }
}

/** Text that is neither filled nor stroked nor clips. */
const INVISIBLE = 3;
const THOUSANDTHS: Matrix = [0.001, 0, 0, 0.001, 0, 0];
/** Down by a size, from the middle of the letter's head (ISO 32000-2, table 115). */
const DOWNWARDS: VerticalMetrics = [-1000, 0, 880];

function verticalOf({ vmetric, width }: Glyph, { defaultVMetrics }: PdfFont): VerticalMetrics {
  if (vmetric) return vmetric;
  const [advance, , y] = defaultVMetrics ?? DOWNWARDS;
  return [advance, width / 2, y];
}
