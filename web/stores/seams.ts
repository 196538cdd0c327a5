import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { rounded } from '../../core/units/rounded';
import type { PanelChoices } from '../../core/panels/choices';
import type { SeamOffers } from '../../core/panels/panelling';
import type { Axis } from '../../core/panels/axis';
import { middleOfWidest } from './middleOfWidest';
import { useOrder } from './order';

/** What seams are called by how they run. */
export const AXIS_WORDS: Readonly<Record<Axis, string>> = { upright: 'Upright', level: 'Level' };

/** What taps on the sign are for. */
export type Picking = 'whole' | 'group' | 'alone';

/** Seams of the open order as a person moves them. What is moved is set by hand from then on. */
export const useSeams = defineStore('seams', () => {
  const order = useOrder();
  /** What each way comes to, and the art that a seam would cut. */
  const offers = shallowRef<SeamOffers>();
  /** Shapes are being picked on the sign; undefined: none. */
  const picking = ref<Picking>();
  async function ask(): Promise<void> {
    const { plan } = order;
    if (!plan?.panelling) offers.value = undefined;
    await order.seamOffers((now) => {
      // what was planned meanwhile has asked for itself
      if (order.plan === plan) offers.value = now;
    });
  }

  const set = (change: Partial<PanelChoices>): void =>
    order.change({ panels: { ...order.choices!.panels, ...change } });
  /** Places seams anew: numbers of panels mean others then, so that none is left out any more. */
  const place = (change: Partial<PanelChoices>): void => set({ ...change, skip: [] });
  const tidy = (all: readonly number[]): number[] => all.map((x) => rounded(x, 2));
  /** Seams by hand, or those that stand there now. */
  function now(): Pick<PanelChoices, 'upright' | 'level'> {
    const { panels } = order.choices!;
    if (panels.way === 'by-hand') return panels;
    const { upright = [], level = [] } = order.plan?.panelling?.seams ?? {};
    return { upright: tidy(upright), level: tidy(level) };
  }
  /** The seams that stand there now are a person's own from here on. */
  const takeOver = (): void => set({ way: 'by-hand', ...now() });
  function change(axis: Axis, to: (seams: readonly number[]) => readonly number[]): void {
    const seams = now();
    place({ way: 'by-hand', ...seams, [axis]: [...to(seams[axis])].sort((a, b) => a - b) });
  }
  const move = (axis: Axis, index: number, to: number): void =>
    change(axis, (seams) => seams.map((x, i) => (i === index ? rounded(to, 2) : x)));
  function remove(axis: Axis, index: number): void {
    const { overlaps } = order.choices!.panels;
    // the others keep their own overlaps
    place({
      way: 'by-hand',
      ...now(),
      [axis]: now()[axis].filter((_, i) => i !== index),
      overlaps: { ...overlaps, [axis]: overlaps[axis].filter((_, i) => i !== index) },
    });
  }
  /** Into the middle of the widest panel. */
  function add(axis: Axis): void {
    const { width = 0, height = 0 } = order.plan ?? {};
    const box = order.plan?.panelling?.box ?? { minX: 0, minY: 0, maxX: width, maxY: height };
    const [from, to] = axis === 'upright' ? [box.minX, box.maxX] : [box.minY, box.maxY];
    change(axis, (seams) => [...seams, rounded(middleOfWidest(from, to, seams), 2)]);
  }
  /** Whether a panel is cut. */
  function cut(number: number, isCut: boolean): void {
    const { skip } = order.choices!.panels;
    set({ skip: isCut ? skip.filter((n) => n !== number) : [...skip, number].sort((a, b) => a - b) });
  }
  /** What one seam's neighbours share; null: as all. */
  function overlapOf(axis: Axis, index: number, to: number | null): void {
    const { overlaps } = order.choices!.panels;
    const own = Array.from({ length: Math.max(overlaps[axis].length, index + 1) }, (_, i): number | null =>
      i === index ? to : (overlaps[axis][i] ?? null),
    );
    while (own.at(-1) === null) own.pop();
    set({ overlaps: { ...overlaps, [axis]: own } });
  }
  return { offers, ask, picking, now, place, set, takeOver, move, remove, add, cut, overlapOf };
});
