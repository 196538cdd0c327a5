/** How much work a drawing is, with every `use` carried out, before any of it is done. */
import type { Element } from 'domhandler';
import { tooMuch } from '../limits';
import type { Work } from '../limits';
import { elementsOf } from './tree';

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
const NONE: Work = { shapes: 0, loops: 0, points: 0 };
/** Beyond this no number matters any more. */
const ENDLESS = 1e12;

const add = (a: Work, b: Work): Work => ({
  shapes: Math.min(ENDLESS, a.shapes + b.shapes),
  loops: Math.min(ENDLESS, a.loops + b.loops),
  points: Math.min(ENDLESS, a.points + b.points),
});

/** @throws FileProblem when it is more than can be cut in one order; circles of `use` must be gone */
export function weigh(root: Element): void {
  const byId = new Map<string, Element>();
  for (const element of elementsOf(root)) if (element.attribs.id) byId.set(element.attribs.id, element);
  const known = new Map<Element, Work>();
  const weightOf = (element: Element): Work => {
    const before = known.get(element);
    if (before) return before;
    known.set(element, NONE);
    let work = ownWork(element);
    for (const child of element.children) if (child.type === 'tag') work = add(work, weightOf(child));
    if (element.name === 'use') {
      const target = byId.get((element.attribs.href ?? '').trim().slice(1));
      if (target) work = add(work, weightOf(target));
    }
    known.set(element, work);
    return work;
  };
  const problem = tooMuch(weightOf(root));
  if (problem) throw problem;
}

function ownWork({ name, attribs }: Element): Work {
  if (!SHAPE_NAMES.has(name)) return NONE;
  const text = attribs.d ?? attribs.points;
  return text === undefined ? { shapes: 1, loops: 1, points: 4 } : { shapes: 1, ...counted(text) };
}

/** Loops and points of path data: moves, and every second number. */
function counted(text: string): { loops: number; points: number } {
  let moves = 0;
  let numbers = 0;
  let inNumber = false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    const isPart = (code >= 48 && code <= 57) || code === 46;
    if (isPart && !inNumber) numbers++;
    inNumber = isPart;
    if (code === 77 || code === 109) moves++;
  }
  return { loops: Math.max(1, moves), points: Math.ceil(numbers / 2) };
}
