/**
 * Carries a drawing's CSS out before the resolver sees it: selectors, the cascade and custom properties (CSS Cascade
 * 5, CSS Variables 1) become plain attributes. What is not understood is named, never dropped in silence.
 */
import { compile } from 'css-select';
import type { Element } from 'domhandler';
import type { Declaration, StyleRule } from './sheets';
import { inlineDeclarations, rulesOf } from './sheets';
import { FileProblem } from '../fileProblem';
import { Places } from './places';
import { elementsOf, removeElements } from './tree';
import { plainValue } from './values';

/** What of the style could not be carried out, and how many shapes blend. */
export interface StyleReport {
  readonly left: readonly string[];
  readonly blended: number;
}

/** Properties that say how something moves, is pointed at or is set on a page: no drawing changes by them. */
const WITHOUT_EFFECT =
  /^(animation|transition|cursor|pointer-events|will-change|user-select|outline|content|margin|padding|background|border|z-index|position|overflow-wrap|-\w+-|line-height|enable-background|box-sizing|white-space|max-|min-|block-|inline-|solid-|text-(indent|align|transform|decoration-|orientation)|font-(variation|feature|synthesis|kerning|variant-)|color-(interpolation|rendering|profile)|(shape|image|text)-rendering|isolation|mix-blend-mode|shape-|backface|perspective|touch-action|all$|direction|unicode-bidi|writing-mode|page-|float|clear|filter-|tab-size|hyphens|word-break|src$|unicode-range|speak|object-|vertical-align|list-|table-|quotes|counter-|orphans|widows|resize)/;
/** What is set as the attribute of its name (SVG 2, 6.6), the geometry of shapes among it. */
const ATTRIBUTES = new Set(
  (
    'alignment-baseline baseline-shift clip-path clip-rule color cx cy d display dominant-baseline fill fill-opacity ' +
    'fill-rule filter flood-color flood-opacity font-family font-size font-size-adjust font-stretch font-style ' +
    'font-variant font-weight height letter-spacing lighting-color marker-end marker-mid marker-start mask opacity ' +
    'overflow paint-order r rx ry stop-color stop-opacity stroke stroke-dasharray stroke-dashoffset stroke-linecap ' +
    'stroke-linejoin stroke-miterlimit stroke-opacity stroke-width text-anchor text-decoration transform ' +
    'transform-origin visibility width word-spacing x y mask-type'
  ).split(' '),
);
/** Of attributes that were written as such, those whose values CSS has widened. */
const WIDENED = [
  'fill',
  'stroke',
  'stop-color',
  'flood-color',
  'color',
  'opacity',
  'fill-opacity',
  'transform',
];
const INITIAL: Readonly<Record<string, string>> = {
  fill: '#000000',
  stroke: 'none',
  opacity: '1',
  'fill-opacity': '1',
  'stroke-opacity': '1',
  'stroke-width': '1',
  display: 'inline',
  visibility: 'visible',
  'fill-rule': 'nonzero',
};

/** Changes the tree: style sheets and `style` go, attributes come. */
export function carryOutStyle(root: Element): StyleReport {
  const left = new Set<string>();
  const sheets = [...elementsOf(root)].filter(({ name }) => name === 'style');
  const rules = sheets.flatMap((sheet) => rulesOf(textOf(sheet), left));
  const matched = rules.length > 0 ? match(root, rules, left) : new Map<Element, StyleRule[]>();
  if (sheets.length > 0) removeElements(root, ({ name }) => name === 'style');
  const writer = new StyleWriter(matched, left);
  writer.write(root, new Map());
  return { left: [...left], blended: writer.blended };
}

const textOf = (element: Element): string =>
  element.children
    .map((child) => {
      if (child.type === 'text') return child.data;
      return child.type === 'cdata'
        ? child.children.map((c) => (c.type === 'text' ? c.data : '')).join('')
        : '';
    })
    .join('')
    // one way of hiding a sheet from old programs
    .replace(/<!--|-->/g, '');

/** The rules that are meant for each element; only those are tried that could be. */
function match(root: Element, rules: readonly StyleRule[], left: Set<string>): Map<Element, StyleRule[]> {
  const byKey = indexOf(root, new Set(rules.map(({ key }) => key)));
  checkCost(rules, byKey, root);
  const places = new Places();
  const matched = new Map<Element, StyleRule[]>();
  for (const rule of rules) {
    const isMeant = query(rule.selector, places, left);
    if (!isMeant) continue;
    for (const element of byKey.get(rule.key) ?? []) {
      if (!isMeant(element)) continue;
      const list = matched.get(element);
      if (list) list.push(rule);
      else matched.set(element, [rule]);
    }
  }
  return matched;
}

/** Elements that are looked at for all rules together: some seconds of work. */
const MOST_LOOKS = 100_000_000;

/** @throws FileProblem when carrying the rules out would take too long */
function checkCost(
  rules: readonly StyleRule[],
  byKey: ReadonlyMap<string, readonly Element[]>,
  root: Element,
): void {
  let [most, elements] = [1, 0];
  for (const { children } of elementsOf(root)) {
    most = Math.max(most, children.length);
    elements++;
  }
  let looks = 0;
  for (const { selector, key } of rules) {
    const candidates = byKey.get(key)?.length ?? 0;
    // whoever asks for a neighbour looks through all of them
    looks += candidates * (/[~+]|:has/.test(selector.replace(/\[[^\]]*\]|\([^)]*\)/g, '')) ? most : 1);
  }
  if (looks > MOST_LOOKS)
    throw new FileProblem(
      'unworkable',
      `The drawing's style sheet has ${rules.length.toLocaleString('en-GB')} rules, which would have to be tried on ${elements.toLocaleString('en-GB')} elements. Save the drawing with its colours at the shapes (as presentation attributes), or as PDF, and bring that in.`,
    );
}

function query(
  selector: string,
  places: Places,
  left: Set<string>,
): ((element: Element) => boolean) | undefined {
  try {
    if (/:nth-[^(]*\([^)]*\sof\s/.test(selector)) throw new Error('a selector inside a place');
    return compile(selector, { xmlMode: true, pseudos: places.pseudos }) as (element: Element) => boolean;
  } catch {
    left.add(selector);
    return undefined;
  }
}

function indexOf(root: Element, keys: ReadonlySet<string>): Map<string, Element[]> {
  const found = new Map<string, Element[]>();
  const note = (key: string, element: Element): void => {
    if (!keys.has(key)) return;
    const list = found.get(key);
    if (list) list.push(element);
    else found.set(key, [element]);
  };
  for (const element of elementsOf(root)) {
    note('*', element);
    note(element.name, element);
    if (element.attribs.id) note(`#${element.attribs.id}`, element);
    if (element.attribs.class)
      for (const one of new Set(element.attribs.class.split(/\s+/))) note(`.${one}`, element);
  }
  return found;
}

type Variables = ReadonlyMap<string, string>;

class StyleWriter {
  blended = 0;

  constructor(
    private readonly matched: ReadonlyMap<Element, readonly StyleRule[]>,
    private readonly left: Set<string>,
  ) {}

  write(element: Element, inherited: Variables): void {
    const winning = this.cascade(element);
    const variables = this.variablesOf(winning, inherited);
    delete element.attribs.style;
    for (const name of WIDENED) {
      if (name in element.attribs && !winning.has(name))
        this.set(element, name, element.attribs[name], variables);
    }
    for (const [property, { value }] of winning) {
      if (!property.startsWith('--')) this.set(element, property, value, variables);
    }
    for (const child of element.children) if (child.type === 'tag') this.write(child, variables);
  }

  /** Which declaration of each property counts: important, then weight, then order; an element's own above rules. */
  private cascade(element: Element): Map<string, Declaration> {
    const winning = new Map<string, Declaration>();
    const weights = new Map<string, number>();
    const own = element.attribs.style ? inlineDeclarations(element.attribs.style) : [];
    const rules = [...(this.matched.get(element) ?? []), { weight: Infinity, declarations: own }];
    for (const { weight, declarations } of rules) {
      for (const declaration of declarations) {
        const before = winning.get(declaration.property);
        const counts =
          !before ||
          (declaration.important === before.important
            ? weight >= weights.get(declaration.property)!
            : declaration.important);
        if (!counts) continue;
        winning.set(declaration.property, declaration);
        weights.set(declaration.property, weight);
      }
    }
    return winning;
  }

  private variablesOf(winning: ReadonlyMap<string, Declaration>, inherited: Variables): Variables {
    const own = [...winning].filter(([property]) => property.startsWith('--'));
    if (own.length === 0) return inherited;
    const raw = new Map(inherited);
    for (const [property, { value }] of own) raw.set(property, value);
    const worked = new Map(inherited);
    for (const [property, { value }] of own) {
      const plain = substituted(value, raw, new Set([property]));
      if (plain === undefined) worked.delete(property);
      else worked.set(property, plain);
    }
    return worked;
  }

  private set(element: Element, property: string, raw: string, variables: Variables): void {
    const { attribs } = element;
    const value = raw.includes('var(') ? substituted(raw, variables, new Set()) : raw;
    if (value === undefined || /^(unset|revert|revert-layer)$/i.test(value)) {
      // as if nothing had been said here (CSS Variables 1, 3.1)
      delete attribs[property];
      return;
    }
    if (property === 'mix-blend-mode' && value !== 'normal') this.blended++;
    if (property === 'marker') {
      for (const end of ['start', 'mid', 'end']) this.set(element, `marker-${end}`, value, variables);
      return;
    }
    if (property === 'font') {
      attribs.style = `font:${value}`;
      return;
    }
    if (property === 'vector-effect' && value !== 'none') this.left.add(`vector-effect: ${value}`);
    if (!ATTRIBUTES.has(property)) {
      if (!WITHOUT_EFFECT.test(property) && property !== 'vector-effect') this.left.add(property);
      return;
    }
    const plain = /^initial$/i.test(value) ? (INITIAL[property] ?? '') : plainValue(property, value);
    if (plain === undefined) this.left.add(`${property}: ${value.slice(0, 60)}`);
    if (plain === undefined || plain === '') delete attribs[property];
    else attribs[property] = plain;
  }
}

const VARIABLE = /var\(\s*(--[^\s,()]+)\s*(?:,((?:[^()]|\((?:[^()]|\([^()]*\))*\))*))?\)/;
const LONGEST_VALUE = 10_000;

/** A value with every `var()` replaced; undefined when one has neither a value nor a stand-in, or names itself. */
function substituted(value: string, variables: Variables, open: ReadonlySet<string>): string | undefined {
  let text = value;
  for (let found = VARIABLE.exec(text); found; found = VARIABLE.exec(text)) {
    const [whole, name, standIn] = found;
    const own = open.has(name) ? undefined : variables.get(name);
    const plain =
      (own === undefined ? undefined : substituted(own, variables, new Set([...open, name]))) ??
      (standIn === undefined ? undefined : substituted(standIn.trim(), variables, open));
    if (plain === undefined) return undefined;
    text = text.slice(0, found.index) + plain + text.slice(found.index + whole.length);
    if (text.length > LONGEST_VALUE) return undefined;
  }
  return text.includes('var(') ? undefined : text;
}
