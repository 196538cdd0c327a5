/** `:nth-child` and its kin (Selectors 4, 14.3 and 14.4), each element's place counted once for all selectors. */
import type { ChildNode, Element } from 'domhandler';
import { isTag } from 'domhandler';

/** Places from 1: among all siblings, among those of the same name, each from the first on and from the last. */
interface Place {
  child: number;
  lastChild: number;
  ofType: number;
  lastOfType: number;
}

type Pseudo = (element: Element, formula?: string | null) => boolean;

export class Places {
  private readonly known = new WeakMap<Element, Place>();
  private readonly formulas = new Map<string, (place: number) => boolean>();

  readonly pseudos: Record<string, Pseudo> = {
    'nth-child': (element, formula) => this.fits(formula, this.placeOf(element).child),
    'nth-last-child': (element, formula) => this.fits(formula, this.placeOf(element).lastChild),
    'nth-of-type': (element, formula) => this.fits(formula, this.placeOf(element).ofType),
    'nth-last-of-type': (element, formula) => this.fits(formula, this.placeOf(element).lastOfType),
  };

  private fits(formula: string | null | undefined, place: number): boolean {
    const text = formula ?? '';
    let check = this.formulas.get(text);
    if (!check) this.formulas.set(text, (check = parsed(text)));
    return check(place);
  }

  private placeOf(element: Element): Place {
    if (!this.known.has(element)) this.count(element.parent ? element.parent.children : [element]);
    return this.known.get(element)!;
  }

  private count(siblings: readonly ChildNode[]): void {
    const elements = siblings.filter(isTag);
    const byName = new Map<string, number>();
    const next = (name: string): number => {
      const count = (byName.get(name) ?? 0) + 1;
      byName.set(name, count);
      return count;
    };
    elements.forEach((element, i) => {
      const ofType = next(element.name);
      this.known.set(element, { child: i + 1, lastChild: elements.length - i, ofType, lastOfType: 0 });
    });
    for (const element of elements) {
      const place = this.known.get(element)!;
      place.lastOfType = byName.get(element.name)! - place.ofType + 1;
    }
  }
}

/** `2n+1`, `odd`, `-n + 3`, `4` (CSS Syntax 3, 6). @throws Error for what is none of them */
function parsed(formula: string): (place: number) => boolean {
  const text = formula.trim().toLowerCase().replace('even', '2n').replace('odd', '2n+1');
  const match = /^(?:([-+]?\d*)n)?\s*([-+]?\s*\d+)?$/.exec(text);
  if (!match || text === '') throw new Error(`no place: ${formula}`);
  const [, times, plus] = match;
  const a = times === undefined ? 0 : times === '' || times === '+' ? 1 : times === '-' ? -1 : Number(times);
  const b = Number((plus ?? '0').replace(/\s/g, ''));
  return (place) => (a === 0 ? place === b : (place - b) / a >= 0 && (place - b) % a === 0);
}
