/** The rules of a drawing's style sheets, each selector with its weight; what cannot be carried out is named. */
import { append } from '../../../core/geometry/lists';
import type { Atrule, CssNode, PseudoClassSelector, Rule, Selector, SelectorList } from 'css-tree';
import * as css from 'css-tree';

/** Property and value as written. */
export interface Declaration {
  readonly property: string;
  readonly value: string;
  readonly important: boolean;
}

/** One selector with what it sets; later ones of the same weight count. */
export interface StyleRule {
  readonly selector: string;
  /** What an element must have to be looked at: the last compound's id, class or name; `*` for any. */
  readonly key: string;
  readonly weight: number;
  readonly declarations: readonly Declaration[];
}

/** Conditions under which a drawing on a screen is shown by day. */
const HOLDS = /^(?:only\s+)?(?:all|screen)$|^$|^\(prefers-color-scheme:\s*light\)$/i;
const FAILS = /^(?:only\s+)?print$|^\(prefers-color-scheme:\s*dark\)$|^speech$/i;
/** Rules that change no colour and no outline of a still drawing. */
const WITHOUT_EFFECT = new Set(['font-face', 'charset', 'namespace', 'page', 'keyframes', 'property']);

/**
 * @param left takes what is not understood
 * @returns rules in the order in which they are written
 */
export function rulesOf(sheet: string, left: Set<string>): StyleRule[] {
  const rules: StyleRule[] = [];
  const visit = (node: CssNode): void => {
    if (node.type === 'Rule') append(rules, splitRule(node, left));
    else if (node.type === 'Atrule' && isOpen(node, left)) node.block?.children.forEach(visit);
  };
  const tree = css.parse(sheet, { parseValue: false, parseCustomProperty: false, onParseError: () => {} });
  if (tree.type === 'StyleSheet') tree.children.forEach(visit);
  return rules;
}

/** Whether what a rule encloses holds here. */
function isOpen({ name, prelude }: Atrule, left: Set<string>): boolean {
  const plain = name.replace(/^-\w+-/, '');
  if (WITHOUT_EFFECT.has(plain)) return false;
  if (name === 'layer' || name === 'supports') return true;
  if (name !== 'media') {
    left.add(`@${name}`);
    return false;
  }
  const condition = prelude ? css.generate(prelude).trim() : '';
  if (HOLDS.test(condition)) return true;
  if (!FAILS.test(condition)) left.add(`@media ${condition}`);
  return false;
}

function splitRule({ prelude, block }: Rule, left: Set<string>): StyleRule[] {
  const declarations: Declaration[] = [];
  block.children.forEach((node) => {
    if (node.type === 'Declaration') declarations.push(declarationOf(node));
    else if (node.type === 'Rule') left.add('rules inside rules');
  });
  if (prelude.type !== 'SelectorList') {
    left.add(css.generate(prelude));
    return [];
  }
  return selectorsOf(prelude)
    .filter(({ text }) => !text.includes('::')) // before, after, selection: nothing of the drawing
    .map(({ text, key, weight }) => ({ selector: text, key, weight, declarations }));
}

function selectorsOf(list: SelectorList): { text: string; key: string; weight: number }[] {
  const out: { text: string; key: string; weight: number }[] = [];
  list.children.forEach((selector) => {
    if (selector.type !== 'Selector') return;
    let key = '*';
    selector.children.forEach((part) => {
      if (part.type === 'Combinator') key = '*';
      else if (part.type === 'IdSelector') key = `#${part.name}`;
      else if (part.type === 'ClassSelector' && !key.startsWith('#')) key = `.${part.name}`;
      else if (part.type === 'TypeSelector' && key === '*') key = part.name;
    });
    out.push({ text: css.generate(selector), key, weight: weightOf(selector) });
  });
  return out;
}

/** By id, by class, by name: each outweighs any number of the next. */
const [BY_ID, BY_CLASS, BY_NAME] = [1e6, 1e3, 1];

/** Specificity (Selectors 4, 17) as one number. */
function weightOf(selector: Selector): number {
  let sum = 0;
  selector.children.forEach((part) => {
    if (part.type === 'IdSelector') sum += BY_ID;
    else if (part.type === 'ClassSelector' || part.type === 'AttributeSelector') sum += BY_CLASS;
    else if (part.type === 'TypeSelector') sum += part.name === '*' ? 0 : BY_NAME;
    else if (part.type === 'PseudoClassSelector') sum += pseudoWeight(part);
  });
  return sum;
}

function pseudoWeight({ name, children }: PseudoClassSelector): number {
  if (name === 'where') return 0;
  // :is, :not and :has weigh as much as the heaviest of what they are given
  let most = 0;
  children?.forEach((list) => {
    if (list.type !== 'SelectorList') return;
    list.children.forEach((one) => {
      if (one.type === 'Selector') most = Math.max(most, weightOf(one));
    });
  });
  return ['is', 'not', 'has', 'matches'].includes(name) ? most : BY_CLASS;
}

const declarationOf = (node: css.Declaration): Declaration => ({
  property: node.property.startsWith('--') ? node.property : node.property.toLowerCase(),
  value: css.generate(node.value).trim(),
  important: node.important !== false,
});

/** What an element's own `style` sets. */
export function inlineDeclarations(style: string): Declaration[] {
  if (!/["'(/\\!{]/.test(style)) return plainDeclarations(style);
  const out: Declaration[] = [];
  const options = { context: 'declarationList', parseValue: false, onParseError: () => {} } as const;
  const tree = css.parse(style, { ...options, parseCustomProperty: false });
  if (tree.type === 'DeclarationList') {
    tree.children.forEach((node) => {
      if (node.type === 'Declaration') out.push(declarationOf(node));
    });
  }
  return out;
}

/** The ordinary case: nothing in it but names and plain values. */
const plainDeclarations = (style: string): Declaration[] =>
  style.split(';').flatMap((part) => {
    const at = part.indexOf(':');
    if (at < 0) return [];
    const property = part.slice(0, at).trim();
    const value = part.slice(at + 1).trim();
    const name = property.startsWith('--') ? property : property.toLowerCase();
    return value === '' ? [] : [{ property: name, value, important: false }];
  });
