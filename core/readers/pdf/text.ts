import { own } from '../../units/own';
import type { Matrix } from '../../geometry/matrix';
import { IDENTITY, multiply, translation } from '../../geometry/matrix';
import type { Path } from '../../geometry/path';
import type { Drawing } from './drawing';
import { unpackPath } from './packedPath';
import type { Glyph, PdfPage } from './parsed';
import type { Told } from './told';

/** Where text stands, and the outlines of what is shown there (ISO 32000-1, 9.4). */
export class Text {
  private textMatrix: Matrix = IDENTITY;
  private lineMatrix: Matrix = IDENTITY;

  constructor(
    private readonly pdf: PdfPage,
    private readonly drawing: Drawing,
    private readonly told: Told,
  ) {}

  begin(): void {
    this.textMatrix = this.lineMatrix = IDENTITY;
  }
  setMatrix(matrix: Matrix): void {
    this.textMatrix = this.lineMatrix = matrix;
  }
  move(x: number, y: number): void {
    this.textMatrix = this.lineMatrix = multiply(this.lineMatrix, translation(x, y));
  }
  nextLine(): void {
    this.move(0, -this.drawing.state.leading);
  }

  show(glyphs: readonly unknown[]): void {
    const { fontSize, charSpacing, wordSpacing, hScale, rise, textMode } = this.drawing.state;
    const font = own(this.pdf.fonts, this.drawing.state.font);
    if (!font || font.type3) return this.told.count('text');
    if (font.missing) this.told.missFont(font.name, font.standIn);
    const [perWidth = 0.001] = font.fontMatrix ?? [];
    for (const glyph of glyphs) {
      if (typeof glyph === 'number') {
        this.advance((-glyph / 1000) * fontSize * hScale);
        continue;
      }
      const { fontChar, width, isSpace, unicode = '', isInFont, originalCharCode } = glyph as Glyph;
      const data = own(font.glyphs, fontChar);
      const isBlank = unicode.trim() === '' && unicode !== '';
      // what the face lacks would be drawn as its box for missing letters
      const isNotDefined = !isInFont || (font.composite === true && originalCharCode === 0);
      const isMissing = font.missing ? data === undefined : isNotDefined;
      if (isMissing && !isBlank && width > 0) this.told.missLetter(font.name, unicode || fontChar);
      if (data && data.length > 0 && !isBlank && !isMissing) {
        const place = multiply(this.textMatrix, [fontSize * hScale, 0, 0, fontSize, 0, rise]);
        this.showGlyph(unpackPath(data), multiply(this.drawing.state.matrix, place), textMode, fontSize);
      }
      this.advance((width * perWidth * fontSize + charSpacing + (isSpace ? wordSpacing : 0)) * hScale);
    }
  }

  private showGlyph(path: Path, matrix: Matrix, mode: number, scale: number): void {
    const how = mode & 3;
    if (how === 3) return;
    if (how !== 1) this.drawing.put(path, matrix, this.drawing.state.fill, 'nonzero');
    if (how === 0) return;
    // the pen is as wide as on the page, though the outline is drawn in the font's own units
    const { style } = this.drawing.state;
    this.drawing.set({ style: { ...style, width: style.width / Math.max(Math.abs(scale), 1e-9) } });
    this.drawing.put(path, matrix, this.drawing.state.stroke, 'nonzero', true, how === 2);
    this.drawing.set({ style });
  }

  private advance(x: number): void {
    this.textMatrix = multiply(this.textMatrix, translation(x, 0));
  }
}
