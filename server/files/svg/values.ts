/** Values as CSS writes them today, into those that SVG 1.1 has; what has none is undefined. */
import { clampRgb, formatHex, parse, toGamut } from 'culori';

const COLOURS = new Set(['fill', 'stroke', 'stop-color', 'flood-color', 'lighting-color', 'color']);
const SHARES = new Set(['opacity', 'fill-opacity', 'stroke-opacity', 'stop-opacity', 'flood-opacity']);
const LINKS = new Set(['clip-path', 'mask', 'marker-start', 'marker-mid', 'marker-end']);
const LENGTHS = new Set([
  'stroke-width',
  'stroke-dasharray',
  'stroke-dashoffset',
  'font-size',
  'letter-spacing',
  'word-spacing',
  'x',
  'y',
  'cx',
  'cy',
  'r',
  'rx',
  'ry',
  'width',
  'height',
]);

/**
 * @returns the value as the resolver knows it; undefined when it has no such thing
 */
export function plainValue(property: string, value: string): string | undefined {
  if (COLOURS.has(property)) return plainPaint(value);
  if (SHARES.has(property)) return plainShare(value);
  if (LINKS.has(property)) return /^(none|inherit|url\(.*\))$/is.test(value) ? value : undefined;
  if (property === 'transform') return plainTransform(value);
  if (property === 'd') return /^path\(\s*["'](.*)["']\s*\)$/is.exec(value)?.[1] ?? undefined;
  if (LENGTHS.has(property)) return plainLength(value);
  return value;
}

/** Known to the resolver as they are; everything else is worked out here. */
const PLAIN_PAINT = /^(#[0-9a-f]{3}|#[0-9a-f]{6}|none|inherit|currentColor|context-fill|context-stroke)$/i;
const known = new Map<string, string | undefined>();
const MOST_KNOWN = 5000;

function plainPaint(value: string): string | undefined {
  if (/^currentcolor$/i.test(value)) return 'currentColor';
  if (PLAIN_PAINT.test(value)) return value;
  const link = /^(url\([^)]*\))\s*(.*)$/is.exec(value);
  if (link) return link[2] === '' ? link[1] : `${link[1]} ${plainPaint(link[2]) ?? 'none'}`;
  if (known.size > MOST_KNOWN) known.clear();
  if (!known.has(value)) known.set(value, colourOf(value));
  return known.get(value);
}

const intoScreen = toGamut('rgb', 'oklch');

/** Any colour of CSS Color 4, brought into what a screen shows as its section 13 says. */
function colourOf(value: string): string | undefined {
  const colour = parse(value.toLowerCase());
  if (!colour) return undefined;
  const alpha = colour.alpha ?? 1;
  const shown = clampRgb(intoScreen({ ...colour, alpha: 1 }));
  const hex = formatHex(shown);
  if (alpha >= 1) return hex;
  const [r, g, b] = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16));
  return `rgba(${r},${g},${b},${Math.max(0, alpha)})`;
}

function plainShare(value: string): string | undefined {
  const percent = /^([-+.\d]+)%$/.exec(value);
  if (percent) return String(Number(percent[1]) / 100);
  return /^([-+.\de]+|inherit)$/i.test(value) ? value : undefined;
}

const plainLength = (value: string): string | undefined =>
  /\(|\d(?:vw|vh|vmin|vmax|rem|ch|lh|cap)\b/i.test(value) ? undefined : value;

const DEGREES: Readonly<Record<string, number>> = { deg: 1, rad: 180 / Math.PI, grad: 0.9, turn: 360 };
/** px by unit (CSS Values 4, 6.2). */
const PIXELS: Readonly<Record<string, number>> = {
  px: 1,
  in: 96,
  cm: 96 / 2.54,
  mm: 96 / 25.4,
  pt: 4 / 3,
  pc: 16,
};
const TRANSFORMS = /^(matrix|translate|translatex|translatey|scale|scalex|scaley|rotate|skew|skewx|skewy)$/i;

/** Transforms with units (CSS Transforms 1) as SVG 1.1 has them, without. */
function plainTransform(value: string): string | undefined {
  if (/^(none|inherit)$/i.test(value)) return value.toLowerCase() === 'none' ? '' : undefined;
  const parts = [...value.matchAll(/([a-z0-9]+)\s*\(([^()]*)\)/gi)];
  const rest = value.replace(/([a-z0-9]+)\s*\(([^()]*)\)/gi, '').trim();
  if (parts.length === 0 || rest.replace(/,/g, '').trim() !== '') return undefined;
  const out = parts.map(([, name, list]) => {
    const numbers = list
      .trim()
      .split(/[\s,]+/)
      .map(plainNumber);
    if (!TRANSFORMS.test(name) || numbers.some((n) => n === undefined)) return undefined;
    return transformOf(name.toLowerCase(), numbers as number[]);
  });
  return out.includes(undefined) ? undefined : out.join(' ');
}

function plainNumber(text: string): number | undefined {
  const match = /^([-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?)([a-z]*)$/i.exec(text);
  if (!match) return undefined;
  const unit = match[2].toLowerCase();
  const scale = unit === '' ? 1 : (DEGREES[unit] ?? PIXELS[unit]);
  return scale === undefined ? undefined : Number(match[1]) * scale;
}

function transformOf(name: string, [a, b, ...more]: readonly number[]): string {
  switch (name) {
    case 'translatex':
      return `translate(${a},0)`;
    case 'translatey':
      return `translate(0,${a})`;
    case 'scalex':
      return `scale(${a},1)`;
    case 'scaley':
      return `scale(1,${a})`;
    case 'skew':
      return `matrix(1,${Math.tan(((b ?? 0) * Math.PI) / 180)},${Math.tan((a * Math.PI) / 180)},1,0,0)`;
    case 'skewx':
      return `skewX(${a})`;
    case 'skewy':
      return `skewY(${a})`;
    default:
      return `${name}(${[a, b, ...more].filter((n) => n !== undefined).join(',')})`;
  }
}
