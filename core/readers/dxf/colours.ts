const NAMED: Readonly<Record<number, string>> = {
  1: '#ff0000',
  2: '#ffff00',
  3: '#00ff00',
  4: '#00ffff',
  5: '#0000ff',
  6: '#ff00ff',
  // drawn black on paper and white on a dark screen; film is cut as on paper
  7: '#000000',
  8: '#414141',
  9: '#808080',
  250: '#333333',
  251: '#505050',
  252: '#696969',
  253: '#828282',
  254: '#bebebe',
  255: '#ffffff',
};

/** Brightness of the five steps of each hue. */
const LEVELS = [255, 189, 129, 104, 79];

/** A colour number of a drawing as `#rrggbb`: 24 hues of 15°, each in five steps, plain and pale in turn. */
export function indexColour(index: number): string {
  const named = NAMED[index];
  if (named) return named;
  if (index < 10 || index > 249) return '#000000';
  const hue = (Math.floor(index / 10) - 1) * 15;
  const level = LEVELS[Math.floor((index % 10) / 2)];
  const floor = index % 2 === 1 ? (level * 2) / 3 : 0;
  const channel = (shift: number): number => {
    const along = (((hue + shift) % 360) + 360) % 360;
    const share =
      along < 60 || along > 300 ? 1 : along < 120 ? (120 - along) / 60 : along > 240 ? (along - 240) / 60 : 0;
    return floor + (level - floor) * share;
  };
  return `#${[channel(0), channel(-120), channel(120)].map((v) => Math.trunc(v).toString(16).padStart(2, '0')).join('')}`;
}

/** A true colour, 0xRRGGBB. */
export const trueColour = (value: number): string => `#${(value & 0xffffff).toString(16).padStart(6, '0')}`;
