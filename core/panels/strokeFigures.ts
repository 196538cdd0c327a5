/** Letters and figures of single strokes, for a knife or a pen. */

/** Four wide and six high, y down; a stroke is a run of x and y digits: `00 06` goes from the upper to the lower left. */
const FIGURES: Readonly<Record<string, string>> = {
  '0': '10 30 41 45 36 16 05 01 10',
  '1': '11 20 26, 16 36',
  '2': '01 10 30 41 42 06 46',
  '3': '01 10 30 41 42 33 44 45 36 16 05, 13 33',
  '4': '36 30 04 44',
  '5': '40 00 03 33 44 45 36 16 05',
  '6': '41 30 10 01 05 16 36 45 44 33 03',
  '7': '00 40 16',
  '8': '13 33 42 41 30 10 01 02 13 04 05 16 36 45 44 33',
  '9': '05 16 36 45 41 30 10 01 02 13 43',
  A: '06 20 46, 14 34',
  B: '00 06 36 45 44 33 42 41 30 00, 03 33',
  C: '41 30 10 01 05 16 36 45',
  D: '00 06 26 44 42 20 00',
  E: '40 00 06 46, 03 33',
  F: '40 00 06, 03 33',
  G: '41 30 10 01 05 16 36 45 43 23',
  H: '00 06, 40 46, 03 43',
  I: '20 26',
  J: '40 45 36 16 05',
  K: '00 06, 40 03 46',
  L: '00 06 46',
  M: '06 00 23 40 46',
  N: '06 00 46 40',
  O: '10 30 41 45 36 16 05 01 10',
  P: '06 00 30 41 42 33 03',
  Q: '10 30 41 45 36 16 05 01 10, 24 46',
  R: '06 00 30 41 42 33 03, 23 46',
  S: '41 30 10 01 02 13 33 44 45 36 16 05',
  T: '00 40, 20 26',
  U: '00 05 16 36 45 40',
  V: '00 26 40',
  W: '00 16 23 36 40',
  X: '00 46, 40 06',
  Y: '00 23 40, 23 26',
  Z: '00 40 06 46',
  '-': '03 43',
  '/': '06 40',
  '.': '15 16',
  '+': '13 33, 22 24',
  '#': '10 16, 30 36, 02 42, 04 44',
  // which way is up
  '^': '26 20, 02 20 42',
};
const [WIDE, TALL] = [4, 6];
/** From one figure to the next, in its own units. */
const ADVANCE = 5.5;

/** What can be drawn of a text: capitals, accents off; what has no figure is left out. */
export const inFigures = (text: string): string =>
  [...text.normalize('NFD').toUpperCase()]
    .filter((letter) => letter === ' ' || Object.hasOwn(FIGURES, letter))
    .join('');

/** How wide a text of some height is, mm. */
export const figuresWidth = (text: string, height: number): number =>
  Math.max(0, (text.length - 1) * ADVANCE + WIDE) * (height / TALL);

/** The strokes of a text, its upper left corner at a place; mm. */
export function figures(text: string, x: number, y: number, height: number): Float64Array[] {
  const unit = height / TALL;
  return [...text].flatMap((letter, i) =>
    letter === ' '
      ? []
      : FIGURES[letter]
          .split(', ')
          .map((stroke) =>
            Float64Array.from(stroke.replaceAll(' ', ''), (digit, k) =>
              k % 2 === 0 ? x + (i * ADVANCE + Number(digit)) * unit : y + Number(digit) * unit,
            ),
          ),
  );
}
