import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import type { PackStep } from '../../core/layout/packCloser';
import type { LayoutChoices, Pack } from '../../core/layout/strip';
import type { PackOffer } from '../../core/plan/offers';
import { useOrder } from './order';

/** Rounds that one go takes at the most. */
const ROUNDS = 2000;
/** What each way would come to is asked for once changes have settled, ms. */
export const SETTLED = 350;
/** Better places are shown no more often than this, ms. */
const SHOW_MS = 900;

/** The search for less film in the open order: better while it runs, kept when it ends. */
export const usePacking = defineStore('packing', () => {
  const order = useOrder();
  /** mm of film that each way comes to, as far as it is known. */
  const offers = shallowRef<Readonly<Partial<Record<Pack, number>>>>({});
  /** Where the search stands; undefined: none is on. */
  const now = shallowRef<PackStep>();
  /** s since it began. */
  const seconds = ref(0);
  let askedFor: typeof order.plan;
  /** Counts searches: what one tells after it is over is not heard. */
  let newest = 0;

  async function ask(): Promise<void> {
    const { plan } = order;
    // whoever shows it asks
    if (now.value || plan === askedFor) return;
    askedFor = plan;
    let told: Partial<Record<Pack, number>> = {};
    await order.packOffers((offer: PackOffer) => {
      if (order.plan !== plan) return;
      told = { ...told, [offer.pack]: offer.length };
      offers.value = told;
    });
  }

  const withPlaces = (found: LayoutChoices['packed']): LayoutChoices => {
    const { layout } = order.choices!;
    return { ...layout, packed: { ...layout.packed, ...found } };
  };

  /** Packs until all rounds are over or {@link stop}; a change that is made meanwhile ends it too. */
  async function start(): Promise<void> {
    if (now.value || !order.choices) return;
    const mine = ++newest;
    const { choices } = order;
    const isSame = (): boolean => order.choices === choices;
    const show = shower();
    now.value = { film: '', share: 0, packed: [], length: 0, used: 0 };
    seconds.value = 0;
    const found = await order.pack({ rounds: ROUNDS, seed: 1 }, (step) => {
      if (mine !== newest) return;
      if (isSame()) show(step);
      else stop();
    });
    if (isSame() && found && Object.keys(found).length > 0) order.change({ layout: withPlaces(found) });
    else order.look(undefined);
    now.value = undefined;
    newest++;
  }

  /** Shows better places while a search is on. */
  function shower(): (step: PackStep) => void {
    const began = performance.now();
    let shown = began;
    let length = Infinity;
    let found: LayoutChoices['packed'] = {};
    return (step) => {
      if (now.value?.film !== step.film) length = Infinity;
      now.value = step;
      seconds.value = (performance.now() - began) / 1000;
      found = { ...found, [step.film]: step.packed };
      if (performance.now() - shown < SHOW_MS || step.length >= length - 0.5) return;
      shown = performance.now();
      length = step.length;
      order.look({ layout: withPlaces(found) });
    };
  }

  const stop = (): void => void order.stopPacking();
  return { offers, ask, now, seconds, start, stop };
});
