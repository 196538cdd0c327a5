/**
 * An SVG as a tree, read as leniently as browsers and drawing programs read it: missing namespaces, undeclared
 * prefixes and plain slips are mended and named. Nothing is fetched, no entity but short plain ones is expanded.
 */
import type { ChildNode, Document } from 'domhandler';
import { DomHandler, Element, isTag } from 'domhandler';
import { decodeHTMLStrict } from 'entities';
import { Parser } from 'htmlparser2';
import { FileProblem } from '../fileProblem';
import { checkEntities, ENTITY } from './entities';

const DEEPEST = 250;

export interface SvgTree {
  readonly root: Element;
  /** What was out of order and was mended, in words for a person. */
  readonly mended: readonly string[];
  /** Names of layers by the id of their group. */
  readonly layers: ReadonlyMap<string, string>;
}

const SLIPS = {
  namespace: 'it does not say that it is SVG',
  prefixes: 'it uses prefixes that it does not declare',
  ampersand: 'a bare “&”',
  entities: 'letters written as in web pages',
  before: 'text before the drawing',
  page: 'the drawing lies inside a web page',
  tags: 'elements that are not closed',
  quotes: 'values without quotes',
  letters: 'names or units in the wrong case',
} as const;
type Slip = keyof typeof SLIPS;

/** @throws FileProblem when it is no SVG, stops in the middle, or is nested beyond reason */
export function parseTree(text: string): SvgTree {
  checkEntities(text);
  const slips = new Set<Slip>();
  const { document, lines } = parse(text.replace(DOCTYPE, onlyLines), slips);
  const root = rootOf(document, slips);
  if (!root) throw notSvg();
  if (lines.cutOffAt !== undefined) throw cutOff(lines.cutOffAt);
  const layers = new Map<string, string>();
  const decodeText = decoder(text, slips);
  const prefixes = prefixesOf(text);
  const saysSvg = prefixes.declared.has(root.name.split(':')[0]);
  new Tidy(prefixes, layers, slips, decodeText).tidy(root);
  if (!/^http:\/\/www\.w3\.org\/2000\/svg$/.test(root.attribs.xmlns ?? '')) {
    if (!saysSvg) slips.add('namespace');
    root.attribs.xmlns = 'http://www.w3.org/2000/svg';
  }
  return { root, mended: [...slips].map((slip) => SLIPS[slip]), layers };
}

/** A document's head with its own entities, which are carried out here. */
const DOCTYPE = /<!DOCTYPE[^>[]*\[[^\]]*\]\s*>/i;
const onlyLines = (head: string): string => head.replace(/[^\n]/g, '');

const notSvg = (): FileProblem =>
  new FileProblem(
    'not-svg',
    'This is not an SVG drawing. Save or export the graphic as SVG and drop that file here.',
  );

const tooDeep = (line: number): FileProblem =>
  new FileProblem(
    'too-deep',
    `Groups lie more than ${DEEPEST} deep in one another (line ${line}). Ungroup in the drawing, save it as SVG and bring it in again.`,
  );

const cutOff = (line: number): FileProblem =>
  new FileProblem(
    'broken-xml',
    `The file stops in the middle at line ${line}: part of it is missing. Save or send it again and bring the whole file in.`,
  );

/** An element's own name, whatever its prefix. */
export const localName = (name: string): string => name.slice(name.indexOf(':') + 1);

const isSvgName = (name: string): boolean => localName(name).toLowerCase() === 'svg';

function parse(
  text: string,
  slips: Set<Slip>,
): { document: Document; lines: { readonly cutOffAt: number | undefined } } {
  const handler = new DomHandler(undefined, { withStartIndices: false });
  let depth = 0;
  let open = 0;
  let everOpen = false;
  let cutOffAt: number | undefined;
  let implied = false;
  const lineAt = (index: number): number => text.slice(0, index).split('\n').length;
  const parser = new Parser(
    {
      onparserinit: (own) => handler.onparserinit(own),
      onreset: () => handler.onreset(),
      onend: () => handler.onend(),
      onerror: (error) => handler.onerror(error),
      onopentag: (name, attributes) => {
        if (++depth > DEEPEST) throw tooDeep(lineAt(parser.startIndex));
        if (isSvgName(name)) [open, everOpen] = [open + 1, true];
        handler.onopentag(name, attributes);
      },
      onclosetag: (name, isImplied) => {
        depth--;
        const isMissing = isImplied && text[parser.endIndex - 1] !== '/';
        if (isMissing) implied = true;
        if (isSvgName(name) && --open === 0 && isMissing) cutOffAt ??= lineAt(text.length);
        handler.onclosetag();
      },
      onattribute: (_name, _value, quote) => {
        if (quote === null || quote === undefined) slips.add('quotes');
      },
      ontext: (data) => handler.ontext(data),
      oncdatastart: () => handler.oncdatastart(),
      oncdataend: () => handler.oncdataend(),
    },
    { xmlMode: true, decodeEntities: false, recognizeSelfClosing: true },
  );
  parser.write(text);
  parser.end();
  // a root that never got its first “>” is as good as none, but there was one
  if (!everOpen && /<(?:[\w-]+:)?svg[\s>/]/i.test(text)) cutOffAt = lineAt(text.length);
  if (!everOpen && cutOffAt !== undefined) throw cutOff(cutOffAt);
  if (implied) slips.add('tags');
  return { document: handler.root, lines: { cutOffAt } };
}

/** The first drawing in the file; text before it and pages around it are passed over. */
function rootOf({ children }: Document, slips: Set<Slip>): Element | undefined {
  for (const node of children) {
    if (isTag(node)) {
      if (isSvgName(node.name)) return node;
      const inside = findSvg(node);
      if (inside) slips.add('page');
      return inside;
    }
    if (node.type === 'text' && node.data.trim() !== '') slips.add('before');
  }
  return undefined;
}

function findSvg({ children }: Element): Element | undefined {
  for (const child of children) {
    if (!isTag(child)) continue;
    const found = isSvgName(child.name) ? child : findSvg(child);
    if (found) return found;
  }
  return undefined;
}

/** What a reference in text stands for: the file's own short entities, XML's and HTML's. */
function decoder(text: string, slips: Set<Slip>): (raw: string) => string {
  const own = new Map([...text.slice(0, 200_000).matchAll(ENTITY)].map(([, name, value]) => [name, value]));
  return (raw) => {
    if (!raw.includes('&')) return raw;
    const expanded = raw.replace(/&([\w.-]+);/g, (whole, name: string) => own.get(name) ?? whole);
    if (/&(?!#?\w+;)/.test(expanded)) slips.add('ampersand');
    if (/&(?!amp;|lt;|gt;|quot;|apos;|#)\w+;/.test(expanded)) slips.add('entities');
    return decodeHTMLStrict(expanded);
  };
}

/** Which prefixes stand for SVG, which for links, and which are declared at all. */
interface Prefixes {
  readonly svg: ReadonlySet<string>;
  readonly link: ReadonlySet<string>;
  readonly declared: ReadonlySet<string>;
}

function prefixesOf(text: string): Prefixes {
  const declared = [...text.matchAll(/\sxmlns:([\w.-]+)\s*=\s*["']([^"']*)["']/g)];
  // an entity may stand for the address: its name tells as well
  const named = (pattern: RegExp, usual: string): Set<string> => {
    const found = declared.filter(([, , address]) => pattern.test(address)).map(([, prefix]) => prefix);
    const isFree = !declared.some(([, prefix]) => prefix === usual);
    return new Set(isFree ? [...found, usual] : found);
  };
  return {
    svg: named(/\/2000\/svg|Graphics\/SVG|^&\w*svg;$/i, 'svg'),
    link: named(/xlink/i, 'xlink'),
    declared: new Set(declared.map(([, prefix]) => prefix)),
  };
}

/** Names as SVG 2 writes them, where they are not all small letters. */
const CAPITALS = new Map(
  (
    'linearGradient radialGradient clipPath textPath foreignObject altGlyph animateColor animateMotion animateTransform ' +
    'feBlend feColorMatrix feComponentTransfer feComposite feConvolveMatrix feDiffuseLighting feDisplacementMap ' +
    'feDistantLight feDropShadow feFlood feFuncA feFuncB feFuncG feFuncR feGaussianBlur feImage feMerge feMergeNode ' +
    'feMorphology feOffset fePointLight feSpecularLighting feSpotLight feTile feTurbulence viewBox preserveAspectRatio ' +
    'gradientUnits gradientTransform spreadMethod clipPathUnits maskUnits maskContentUnits patternUnits ' +
    'patternContentUnits patternTransform filterUnits primitiveUnits markerUnits markerWidth markerHeight refX refY ' +
    'startOffset textLength lengthAdjust pathLength stdDeviation systemLanguage requiredExtensions requiredFeatures'
  )
    .split(' ')
    .map((name) => [name.toLowerCase(), name]),
);

const rightCase = (name: string): string => {
  const small = name.toLowerCase();
  return CAPITALS.get(small) ?? small;
};

const UNIT_ATTRIBUTES = ['width', 'height', 'x', 'y', 'r', 'cx', 'cy', 'rx', 'ry', 'stroke-width'];

/** One walk over the tree that leaves SVG's own elements and attributes under their own names. */
class Tidy {
  constructor(
    private readonly prefixes: Prefixes,
    private readonly layers: Map<string, string>,
    private readonly slips: Set<Slip>,
    private readonly decodeText: (raw: string) => string,
  ) {}

  tidy(element: Element): void {
    this.noteLayer(element);
    element.name = this.named(localName(element.name));
    element.attribs = this.attributes(element.attribs);
    element.children = element.children.filter((child) => this.stays(child));
    for (const child of element.children) if (isTag(child)) this.tidy(child);
  }

  private stays(node: ChildNode): boolean {
    if (node.type === 'text') {
      node.data = this.decodeText(node.data);
      return true;
    }
    if (node.type === 'cdata') return true;
    if (!isTag(node)) return false;
    const at = node.name.indexOf(':');
    const { xmlns } = node.attribs;
    if (at < 0) return xmlns === undefined || /svg/i.test(xmlns);
    const prefix = node.name.slice(0, at);
    if (!this.prefixes.declared.has(prefix)) this.slips.add('prefixes');
    return this.prefixes.svg.has(prefix);
  }

  private named(name: string): string {
    const right = rightCase(name);
    if (right !== name) this.slips.add('letters');
    return right;
  }

  private attributes(given: Record<string, string>): Record<string, string> {
    const out: Record<string, string> = {};
    for (const name of Object.keys(given)) {
      const at = name.indexOf(':');
      const value = this.decodeText(given[name]);
      if (at < 0) out[this.named(name)] = value;
      else if (name === 'xml:space') out[name] = value;
      else if (at > 0 && name !== 'xmlns:xlink')
        this.prefixed(name.slice(0, at), name.slice(at + 1), value, out);
    }
    for (const name of UNIT_ATTRIBUTES) {
      if (!(name in out) || !/[A-Z]{2}\s*$/.test(out[name])) continue;
      out[name] = out[name].toLowerCase();
      this.slips.add('letters');
    }
    return out;
  }

  private prefixed(prefix: string, name: string, value: string, out: Record<string, string>): void {
    if (prefix === 'xmlns' || prefix === 'xml') return;
    if (!this.prefixes.declared.has(prefix)) this.slips.add('prefixes');
    if (this.prefixes.link.has(prefix) && name === 'href') out.href ??= value;
    else if (this.prefixes.svg.has(prefix)) out[name] ??= value;
  }

  /** Drawing programs name their layers in attributes of their own: `…:groupmode="layer"`, `…:label`, or `data-name`. */
  private noteLayer({ name, attribs }: Element): void {
    if (localName(name) !== 'g' || !attribs.id) return;
    const key = Object.keys(attribs).find((attribute) => attribute.endsWith(':label'));
    const label = key === undefined ? attribs['data-name'] : attribs[key];
    if (label) this.layers.set(attribs.id, this.decodeText(label));
  }
}

/** All elements of a tree, parents first. */
export function* elementsOf(root: Element): Generator<Element> {
  const open: Element[] = [root];
  for (let element = open.pop(); element; element = open.pop()) {
    yield element;
    for (let i = element.children.length - 1; i >= 0; i--) {
      const child = element.children[i];
      if (isTag(child)) open.push(child);
    }
  }
}

/** Takes elements with all that is in them out of a tree. */
export function removeElements(root: Element, isGone: (element: Element) => boolean): void {
  for (const element of elementsOf(root)) {
    if (element.children.some((child) => isTag(child) && isGone(child)))
      element.children = element.children.filter((child) => !(isTag(child) && isGone(child)));
  }
}
