/** What could not be taken from a page as it is drawn there. */
import type { Finding } from '../../findings/finding';
import { PRINT_IT } from '../waysOut';

export class Told {
  private readonly counts = new Map<string, number>();
  private readonly missingFonts = new Map<string, string>();
  /** Characters without an outline, by typeface. */
  private readonly missingLetters = new Map<string, Set<string>>();

  count(what: string, times = 1): void {
    this.counts.set(what, (this.counts.get(what) ?? 0) + times);
  }

  missFont(face = 'unnamed', standIn = 'a look-alike'): void {
    this.missingFonts.set(face, standIn);
  }

  missLetter(face = 'unnamed', letter: string): void {
    const letters = this.missingLetters.get(face) ?? new Set();
    this.missingLetters.set(face, letters.add(letter));
  }

  findings(): Finding[] {
    const out: Finding[] = [];
    for (const [what, tell] of Object.entries(TELLS)) {
      const n = this.counts.get(what) ?? 0;
      if (n > 0) out.push(tell(n));
    }
    for (const [name, standIn] of this.missingFonts) {
      out.push({
        code: 'font-missing',
        severity: 'check',
        message: `${plainName(name)} is not in the file: its text is drawn in ${standIn}.`,
        waysOut: ['Turn text into outlines in the drawing, or type it here in a typeface of the shop'],
      });
    }
    for (const [name, letters] of this.missingLetters) {
      const printable = [...letters].filter((letter) => /^[\p{L}\p{N}\p{P}\p{S}\p{M}]+$/u.test(letter));
      const which = printable.length > 0 ? `: ${printable.slice(0, 12).join(' ')}` : '';
      out.push({
        code: 'letters-missing',
        severity: 'check',
        message: `${letters.size === 1 ? '1 character has' : `${letters.size} characters have`} no outline in ${plainName(name)} and ${letters.size === 1 ? 'is' : 'are'} left out${which}.`,
        waysOut: ['Turn text into outlines in the drawing, or type it here in a typeface of the shop'],
      });
    }
    return out;
  }
}

/** A typeface's name without the six letters that mark a part of it (ISO 32000-1, 9.6.4). */
const plainName = (name: string): string => name.replace(/^[A-Z]{6}\+/, '');

const TELLS: Readonly<Record<string, (n: number) => Finding>> = {
  image: (n) => ({
    code: 'image',
    severity: 'check',
    message: `${n === 1 ? '1 picture is' : `${n} pictures are`} left out: a knife cannot cut a picture.`,
    waysOut: ['Bring the picture in by itself and trace it', PRINT_IT],
  }),
  pattern: (n) => ({
    code: 'pattern',
    severity: 'check',
    message: `${n === 1 ? '1 shape' : `${n} shapes`} filled with a repeating pattern left out.`,
    waysOut: ['Turn the pattern into shapes in the drawing and bring the file in again', PRINT_IT],
  }),
  mask: () => ({
    code: 'mask',
    severity: 'check',
    message: 'Parts of the page are faded by a mask, which is not applied.',
    waysOut: ['Cut the shapes to their outline in the drawing and bring the file in again', PRINT_IT],
  }),
  shading: (n) => ({
    code: 'shading',
    severity: 'check',
    message: `${n === 1 ? '1 gradient' : `${n} gradients`} of a kind that cannot be read left out.`,
    waysOut: ['Give the shape one colour in the drawing and bring the file in again', PRINT_IT],
  }),
  blend: (n) => ({
    code: 'blend',
    severity: 'check',
    message: `${n === 1 ? '1 shape is' : `${n} shapes are`} blended with the colours beneath in the file: read in ${n === 1 ? 'its' : 'their'} own colour.`,
    waysOut: ['Give the shape one colour in the drawing and bring the file in again', PRINT_IT],
  }),
  damaged: (n) => ({
    code: 'damaged',
    severity: 'check',
    message: `${n === 1 ? '1 part' : `${n} parts`} of the page cannot be read and ${n === 1 ? 'is' : 'are'} left out: the file is damaged there.`,
    waysOut: ['Save the drawing again and bring it in, and compare it with what the customer sees'],
  }),
  pixels: (n) => ({
    code: 'pixel-letters',
    severity: 'check',
    message: `${n === 1 ? '1 letter is a picture' : `${n} letters are pictures`} of pixels in the file: ${n === 1 ? 'its edge has' : 'their edges have'} steps.`,
    waysOut: ['Type the text here in a typeface of the shop'],
  }),
  text: (n) => ({
    code: 'text-left-out',
    severity: 'check',
    message: `${n === 1 ? '1 piece' : `${n} pieces`} of text left out: the file names no typeface for it.`,
    waysOut: ['Turn text into outlines in the drawing, or type it here'],
  }),
  hidden: (n) => ({
    code: 'hidden-layer',
    severity: 'note',
    message: `${n === 1 ? '1 step' : `${n} steps`} on layers that are switched off left out.`,
  }),
};
