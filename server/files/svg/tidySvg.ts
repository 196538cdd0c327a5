/**
 * Makes a customer's SVG ready for the resolver: read leniently, its CSS carried out, nothing outside it left, and of
 * a size that can be worked with. Nothing is fetched, nothing is rendered.
 */
import render from 'dom-serializer';
import { textContent } from 'domutils';
import type { Element } from 'domhandler';
import type { Finding } from '../../../core/findings/finding';
import { decode } from './decode';
import type { Pictures, ReferenceReport } from './references';
import { keepInside } from './references';
import type { StyleReport } from './style';
import { carryOutStyle } from './style';
import { elementsOf, parseTree, removeElements } from './tree';
import { weigh } from './weigh';

export interface TidySvg {
  readonly text: string;
  readonly findings: readonly Finding[];
  /** Names of layers by the id of their group. */
  readonly layers: ReadonlyMap<string, string>;
  /** When there is text. */
  readonly words?: Words;
}

/** Typefaces that text names, and the characters in it. */
export interface Words {
  readonly families: readonly string[];
  readonly letters: ReadonlySet<string>;
}

/**
 * @param bytes the file as it came
 * @param pictures those that are in it: each a dot, for nobody looks at it, or kept
 * @throws FileProblem with a sentence when the file cannot be taken
 */
export function tidySvg(
  bytes: Uint8Array,
  { pictures }: { readonly pictures: Pictures } = { pictures: 'dots' },
): TidySvg {
  const { text, mended: encoding } = decode(bytes);
  const { root, mended, layers } = parseTree(text);
  const style = carryOutStyle(root);
  // after the style, which can bring references in
  const references = keepInside(root, pictures);
  const far = dropFarOff(root);
  weigh(root);
  return {
    text: render(root, { xmlMode: true, encodeEntities: 'utf8' }),
    findings: [
      ...mendedFinding(encoding ? [...mended, 'another encoding than it says'] : mended),
      ...referenceFindings(references),
      ...styleFindings(style),
      ...farFinding(far),
    ],
    layers,
    words: wordsIn(root),
  };
}

/** Further off than this no sheet reaches, in the drawing's own units. */
const FARTHEST = 1e9;
/** Looks as if it could be: many digits, or an exponent of two. */
const MAYBE_FAR = /\d{9}|\de\+?\d{2,}/i;

/** Shapes whose places no cutter reaches would make every other one vanish beside them. */
function dropFarOff(root: Element): number {
  const gone = new Set<Element>();
  for (const element of elementsOf(root)) {
    for (const name of [
      'd',
      'points',
      'x',
      'y',
      'width',
      'height',
      'cx',
      'cy',
      'r',
      'x1',
      'y1',
      'x2',
      'y2',
    ]) {
      const value = element.attribs[name];
      if (value !== undefined && element !== root && MAYBE_FAR.test(value) && isFar(value)) gone.add(element);
    }
  }
  if (gone.size > 0) removeElements(root, (element) => gone.has(element));
  return gone.size;
}

const isFar = (text: string): boolean =>
  (text.match(/[-+]?(?:\d+\.?\d*|\.\d+)(?:e[-+]?\d+)?/gi) ?? []).some(
    (number) => !(Math.abs(Number(number)) < FARTHEST),
  );

/** Families in the order in which they are named; text that names none is set in the resolver's own serif. */
function wordsIn(root: Element): Words | undefined {
  const names = new Set<string>();
  const letters = new Set<string>();
  let hasText = false;
  for (const element of elementsOf(root)) {
    const { name, attribs } = element;
    if (name === 'text') {
      hasText = true;
      for (const letter of textContent(element)) letters.add(letter);
    }
    const short = /^font:.*?\d[\w.%]*(?:\/\S+)?\s+([^;]+)$/.exec(attribs.style ?? '')?.[1];
    const list = attribs['font-family'] ?? short;
    const family = list?.split(',')[0].replace(/["']/g, '').trim();
    if (family) names.add(family);
  }
  if (!hasText) return undefined;
  return { families: names.size === 0 ? ['serif'] : [...names], letters };
}

/** A tidy drawing, in which all but plain letters are written by number, with blanks in place of some characters. */
export function withoutLetters(text: string, letters: readonly string[]): string {
  if (letters.length === 0) return text;
  const gone = new Set(letters);
  const blank = (whole: string, hex: string): string =>
    gone.has(String.fromCodePoint(parseInt(hex, 16))) ? ' ' : whole;
  return text.replace(/>[^<]+</g, (words) => words.replace(/&#x([0-9a-f]{1,6});/gi, blank));
}

const count = (n: number, one: string, many: string): string => (n === 1 ? `1 ${one}` : `${n} ${many}`);

function mendedFinding(mended: readonly string[]): Finding[] {
  if (mended.length === 0) return [];
  return [
    {
      code: 'mended',
      severity: 'note',
      message: `The file was not quite in order and was read all the same: ${mended.join('; ')}. It is kept as it came.`,
    },
  ];
}

function referenceFindings({ scripts, outside, foreign, circular }: ReferenceReport): Finding[] {
  const findings: Finding[] = [];
  if (scripts > 0) {
    findings.push({
      code: 'script',
      severity: 'note',
      message: 'The file carries a script. It was left out and never run.',
    });
  }
  if (outside > 0) {
    findings.push({
      code: 'outside',
      severity: 'check',
      message: `${count(outside, 'part lies', 'parts lie')} outside this file and ${outside === 1 ? 'was' : 'were'} not fetched.`,
      waysOut: ['Embed linked parts in the drawing, save it and bring it in again'],
    });
  }
  if (foreign > 0) {
    findings.push({
      code: 'text-left-out',
      severity: 'check',
      message: `${count(foreign, 'block of page text was', 'blocks of page text were')} left out: it is not part of the drawing.`,
      waysOut: ['Turn text into outlines in the drawing, save it and bring it in again'],
    });
  }
  if (circular > 0) {
    findings.push({
      code: 'circular',
      severity: 'check',
      message: `${count(circular, 'part repeats', 'parts repeat')} something that it lies in itself and ${circular === 1 ? 'was' : 'were'} left out.`,
      waysOut: ['Draw the repeated part by itself and bring the file in again'],
    });
  }
  return findings;
}

/** So many of what is left are named; of the others their number. */
const MOST_NAMED = 5;

function styleFindings({ left, blended }: StyleReport): Finding[] {
  const findings: Finding[] = [];
  if (left.length > 0) {
    const more = left.length > MOST_NAMED ? ` and ${left.length - MOST_NAMED} more` : '';
    findings.push({
      code: 'style-left-out',
      severity: 'check',
      message: `${left.length === 1 ? 'A part' : `${left.length} parts`} of the drawing's style sheet cannot be carried out, so colours or outlines may differ: ${left.slice(0, MOST_NAMED).join(', ')}${more}.`,
      waysOut: ['Compare with the drawing', 'Save it with plain colours, or as PDF, and bring that in'],
    });
  }
  if (blended > 0) {
    findings.push({
      code: 'blend',
      severity: 'check',
      message: `${count(blended, 'shape is', 'shapes are')} mixed with what lies under ${blended === 1 ? 'it' : 'them'}: film cannot mix, so ${blended === 1 ? 'its' : 'their'} own colour is taken.`,
      waysOut: [
        'Give the overlap a colour of its own in the drawing',
        'Save it as PDF and print that as it is',
      ],
    });
  }
  return findings;
}

function farFinding(far: number): Finding[] {
  if (far === 0) return [];
  return [
    {
      code: 'far-off',
      severity: 'check',
      message: `${count(far, 'shape lies', 'shapes lie')} further off than any sheet reaches and ${far === 1 ? 'is' : 'are'} left out.`,
      waysOut: ['Move the shape onto the page in the drawing and bring the file in again'],
    },
  ];
}
