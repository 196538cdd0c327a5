/** What a drawing refers to: nothing outside itself is left, and nothing that goes round in a circle. */
import type { Element } from 'domhandler';
import { elementsOf, removeElements } from './tree';

export interface ReferenceReport {
  /** References to something outside the file. */
  readonly outside: number;
  readonly scripts: number;
  /** Blocks of page text. */
  readonly foreign: number;
  /** `use` of something that it lies in itself. */
  readonly circular: number;
}

/** Stands where a picture was that is not kept: it is told and never decoded. */
const DOT =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';

export type Pictures = 'dots' | 'kept';

/** Kinds of picture that hold pixels and nothing else; another drawing would have to be tidied first. */
const PIXELS = /^data:image\/(png|jpe?g|webp|gif)[;,]/i;

/** Changes the tree. */
export function keepInside(root: Element, pictures: Pictures = 'dots'): ReferenceReport {
  let outside = 0;
  let scripts = 0;
  let foreign = 0;
  const gone = new Set<Element>();
  for (const element of elementsOf(root)) {
    const { name, attribs } = element;
    if (name === 'script') scripts++;
    if (name === 'foreignObject') foreign++;
    if (name === 'script' || name === 'foreignObject') gone.add(element);
    for (const key of Object.keys(attribs)) {
      if (/^on[a-z]/i.test(key)) {
        scripts++;
        delete attribs[key];
      } else if (key === 'href' || key === 'src') {
        const value = attribs[key].trim();
        if (name === 'image' && !(pictures === 'kept' && PIXELS.test(value))) attribs[key] = DOT;
        if (value.startsWith('#') || value === '') continue;
        const isOutside = !/^data:/i.test(value);
        if (isOutside && name !== 'a') outside++;
        if (isOutside && name === 'image') gone.add(element);
        if (name !== 'image') delete attribs[key];
      } else if (/url\(/i.test(attribs[key])) {
        const kept = attribs[key].replace(URL, (whole, _quote: string, address: string) => {
          if (address.trim().startsWith('#')) return whole;
          if (!/^\s*data:/i.test(address)) outside++;
          return 'none';
        });
        // what is painted instead stands behind a paint that is not there (SVG 2, 13.2)
        attribs[key] = kept.trim().replace(/^none\s+(?=\S)/, '');
      }
    }
  }
  const circular = circlesIn(root);
  for (const element of circular) gone.add(element);
  if (gone.size > 0) removeElements(root, (element) => gone.has(element));
  return { outside, scripts, foreign, circular: circular.length };
}

const URL = /url\(\s*(["']?)([^"')]*)\1\s*\)/gi;

/** Every `use` that closes a circle: its target holds it, directly or by way of other uses. */
function circlesIn(root: Element): Element[] {
  const byId = new Map<string, Element>();
  for (const element of elementsOf(root)) if (element.attribs.id) byId.set(element.attribs.id, element);
  if (byId.size === 0) return [];
  const circles: Element[] = [];
  const state = new Map<Element, 'open' | 'done'>();
  // a stack of our own: chains of uses may be longer than the engine's
  const visit = (start: Element): void => {
    const path: { element: Element; uses: Element[] }[] = [{ element: start, uses: usesIn(start) }];
    state.set(start, 'open');
    while (path.length > 0) {
      const top = path[path.length - 1];
      const use = top.uses.pop();
      if (!use) {
        state.set(top.element, 'done');
        path.pop();
        continue;
      }
      const target = byId.get(use.attribs.href.trim().slice(1));
      if (!target) continue;
      if (state.get(target) === 'open' || holds(target, use)) circles.push(use);
      else if (!state.has(target)) {
        state.set(target, 'open');
        path.push({ element: target, uses: usesIn(target) });
      }
    }
  };
  visit(root);
  return circles;
}

const usesIn = (element: Element): Element[] =>
  [...elementsOf(element)].filter(({ name, attribs }) => name === 'use' && /^\s*#/.test(attribs.href ?? ''));

function holds(outer: Element, inner: Element): boolean {
  for (let at = inner.parent; at; at = at.parent) if (at === outer) return true;
  return false;
}
