/**
 * Looks an uploaded SVG over before anything renders it: well formed, no traps, no outside references, of a size
 * that can be worked with. One streaming pass; nothing is fetched, nothing is expanded.
 */
import { SaxesParser } from 'saxes';
import type { SaxesTagPlain } from 'saxes';
import type { Finding } from '../../core/findings/finding';
import { FileProblem } from './fileProblem';

export const MOST_SHAPES = 50_000;
const DEEPEST = 250;
const LONGEST_ENTITY = 200;
const MOST_ENTITY_TEXT = 2_000_000;

const SHAPE_NAMES = new Set([
  'path',
  'rect',
  'circle',
  'ellipse',
  'line',
  'polyline',
  'polygon',
  'text',
  'image',
]);

/** How many shapes an element stands for, and which others it brings in by `use`. */
interface Weight {
  shapes: number;
  readonly uses: string[];
}

interface Counts {
  script: number;
  outside: number;
  text: number;
  foreign: number;
}

export interface InspectedSvg {
  readonly text: string;
  readonly findings: readonly Finding[];
  /** Names of layers by the id of their group. */
  readonly layers: ReadonlyMap<string, string>;
  /** Typefaces that text names, when there is text. */
  readonly families?: readonly string[];
}

/**
 * @param bytes the file as it came
 * @returns its text and what has to be told about it
 * @throws FileProblem with a sentence when the file cannot be taken
 */
export function inspectSvg(bytes: Uint8Array): InspectedSvg {
  const text = decode(bytes);
  checkEntities(text);
  const counts: Counts = { script: 0, outside: 0, text: 0, foreign: 0 };
  const layers = new Map<string, string>();
  const weights = new Map<string, Weight>();
  const open: { weight: Weight; id: string | undefined }[] = [
    { weight: { shapes: 0, uses: [] }, id: undefined },
  ];
  let rootName: string | undefined;
  const parser = new SaxesParser({ xmlns: false });
  for (const [, name, value] of text.matchAll(ENTITY)) parser.ENTITIES[name] = value;
  parser.on('error', (error) => {
    throw new FileProblem('broken-xml', brokenXml(text, error.message));
  });
  parser.on('opentag', (tag: SaxesTagPlain) => {
    const name = localName(tag.name);
    rootName ??= name;
    if (rootName !== 'svg') throw notSvg();
    if (open.length > DEEPEST) throw tooDeep();
    const weight: Weight = { shapes: SHAPE_NAMES.has(name) ? 1 : 0, uses: [] };
    lookAt(name, tag.attributes, counts, weight);
    if (name === 'g') noteLayer(tag.attributes, layers);
    open.push({ weight, id: tag.attributes.id });
  });
  parser.on('closetag', () => {
    const { weight, id } = open.pop()!;
    if (id) weights.set(id, weight);
    const parent = open[open.length - 1].weight;
    parent.shapes += weight.shapes;
    for (const used of weight.uses) parent.uses.push(used);
  });
  parser.write(text).close();
  if (rootName === undefined) throw notSvg();
  checkCount(expandedShapes(open[0].weight, weights));
  return {
    text,
    findings: findingsFrom(counts),
    layers,
    families: counts.text > 0 ? familiesIn(text) : undefined,
  };
}

/** Drawing programs name their layers in attributes of their own: `…:groupmode="layer"`, `…:label`, or `data-name`. */
function noteLayer(attributes: Record<string, string>, layers: Map<string, string>): void {
  const named = (suffix: string): string | undefined =>
    Object.entries(attributes).find(([key]) => key.endsWith(`:${suffix}`))?.[1];
  const label = named('label') ?? attributes['data-name'];
  if (attributes.id && label) layers.set(attributes.id, label);
}

/** Families in the order in which they are named; text that names none is set in the resolver's own serif. */
function familiesIn(text: string): string[] {
  const lists = [...text.matchAll(/font-family\s*(?:=\s*(?:"([^"]*)"|'([^']*)')|:\s*([^;}"<]+))/g)];
  const names = lists.map(([, a, b, c]) =>
    (a ?? b ?? c)
      .split(',')[0]
      .replace(/["']|&quot;/g, '')
      .trim(),
  );
  return names.length === 0 ? ['serif'] : [...new Set(names.filter((name) => name !== ''))];
}

function decode(bytes: Uint8Array): string {
  if (bytes.length === 0) {
    throw new FileProblem(
      'empty',
      'The file is empty. Save the drawing again as SVG and drop it here once more.',
    );
  }
  const [a, b] = bytes;
  const encoding = a === 0xff && b === 0xfe ? 'utf-16le' : a === 0xfe && b === 0xff ? 'utf-16be' : 'utf-8';
  const text = new TextDecoder(encoding).decode(bytes).replace(/^\uFEFF/, '');
  if (text.trim().length === 0) {
    throw new FileProblem(
      'empty',
      'The file is empty. Save the drawing again as SVG and drop it here once more.',
    );
  }
  if (!/<(?:[\w-]+:)?svg[\s>/]/.test(text)) throw notSvg();
  return text;
}

const notSvg = (): FileProblem =>
  new FileProblem(
    'not-svg',
    'This is not an SVG drawing. Save or export the graphic as SVG and drop that file here.',
  );

const tooDeep = (): FileProblem =>
  new FileProblem(
    'too-deep',
    `Groups lie more than ${DEEPEST} deep in one another. Ungroup in the drawing, save it as SVG and bring it in again.`,
  );

const ENTITY = /<!ENTITY\s+([\w.-]+)\s+["']([^"']*)["']\s*>/g;

/** Short plain entities are harmless and common; nested, long or outside ones are traps. */
function checkEntities(text: string): void {
  const head = text.slice(0, 200_000);
  if (!head.includes('<!ENTITY')) return;
  const plain = [...head.matchAll(ENTITY)];
  const all = head.match(/<!ENTITY/g) ?? [];
  const unsafe =
    plain.length !== all.length || plain.some(([, , v]) => v.includes('&') || v.length > LONGEST_ENTITY);
  const expanded = plain.reduce(
    (sum, [, name, v]) => sum + v.length * (text.split(`&${name};`).length - 1),
    0,
  );
  if (!unsafe && expanded <= MOST_ENTITY_TEXT) return;
  throw new FileProblem(
    'entities',
    'The file builds its text out of nested or outside entities, which is how harmful files are made. Save it again as plain SVG and bring that in.',
  );
}

function brokenXml(text: string, message: string): string {
  const place = /^(?:undefined:)?(\d+):(\d+)/.exec(message);
  const where = place ? ` at line ${place[1]}` : '';
  const cutOff =
    /unclosed|unexpected end|end of file/i.test(message) ||
    !/<\/(?:[\w-]+:)?svg\s*>\s*(?:<!--[\s\S]*-->\s*)*$/.test(text);
  return cutOff
    ? `The file stops in the middle${where}: part of it is missing. Save or send it again and bring the whole file in.`
    : `The file is damaged${where} and cannot be read. Save it again as SVG and bring that in.`;
}

const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

function lookAt(name: string, attributes: Record<string, string>, counts: Counts, weight: Weight): void {
  if (name === 'script') counts.script++;
  if (name === 'text') counts.text++;
  if (name === 'foreignObject') counts.foreign++;
  for (const key in attributes) {
    const value = attributes[key];
    if (/^on[a-z]/.test(key)) counts.script++;
    else if (key === 'href' || key === 'xlink:href') {
      if (value.startsWith('#')) {
        if (name === 'use') weight.uses.push(value.slice(1));
      } else if (name !== 'a' && !value.startsWith('data:')) counts.outside++;
    }
  }
}

/** Shapes once every `use` is carried out; a reference to itself counts once. */
function expandedShapes(root: Weight, weights: ReadonlyMap<string, Weight>): number {
  const known = new Map<string, number>();
  const count = (weight: Weight): number =>
    weight.uses.reduce((sum, id) => Math.min(1e12, sum + byId(id)), weight.shapes);
  const byId = (id: string): number => {
    const seen = known.get(id);
    if (seen !== undefined) return seen;
    known.set(id, 0);
    const weight = weights.get(id);
    const shapes = weight ? count(weight) : 0;
    known.set(id, shapes);
    return shapes;
  };
  return count(root);
}

function checkCount(shapes: number): void {
  if (shapes <= MOST_SHAPES) return;
  throw new FileProblem(
    'too-many-shapes',
    `The drawing has ${shapes > 1e9 ? 'more than a thousand million' : shapes.toLocaleString('en-GB')} shapes; ${MOST_SHAPES.toLocaleString('en-GB')} is the most that can be cut in one order. Weld shapes of one colour or split the drawing, and bring it in again.`,
  );
}

function findingsFrom({ script, outside, foreign }: Counts): Finding[] {
  const findings: Finding[] = [];
  if (script > 0) {
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
      message: `${outside} ${outside === 1 ? 'part lies' : 'parts lie'} outside this file and ${outside === 1 ? 'was' : 'were'} not fetched.`,
      waysOut: ['Embed linked parts in the drawing, save it and bring it in again'],
    });
  }
  if (foreign > 0) {
    findings.push({
      code: 'text-left-out',
      severity: 'check',
      message: `${foreign} ${foreign === 1 ? 'block of page text was' : 'blocks of page text were'} left out: it is not part of the drawing.`,
      waysOut: ['Turn text into outlines in the drawing, save it and bring it in again'],
    });
  }
  return findings;
}
