/** The run card's sections: the answer and the state of each. */
import { computed } from 'vue';
import type { Finding } from '../../../core/findings/finding';
import { useOrder } from '../../stores/order';
import { useUnits } from '../../stores/units';
import type { PlanView } from '../../workers/packed';
import { cutsOf } from '../../workers/packed';

export type SectionName = 'artwork' | 'films' | 'panels' | 'layout' | 'print' | 'cut' | 'cutter';
export type SectionState = 'good' | 'check' | 'stop' | 'none';

export const STATE_WORD: Readonly<Record<SectionState, string>> = {
  good: 'all clear',
  check: 'to check',
  stop: 'keeps the order from the cutter',
  none: 'not needed',
};

export const count = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

function panelsAnswer({ panelling }: PlanView): string {
  if (!panelling) return 'none needed';
  const { upright, level } = panelling.seams;
  const panels = new Set(panelling.panels.map(({ number }) => number)).size;
  return `${count(panels, 'panel')}, ${count(upright.length + level.length, 'seam')}`;
}

/** Marks and sheets; of what is all cut from film none. */
function printAnswer({ printed, colours }: PlanView): string {
  if (!printed) return colours.some(({ goesTo }) => goesTo === 'print') ? 'no sheet yet' : 'none needed';
  const marks = printed.sheets[0]?.marks.length ?? 0;
  return `${count(marks, 'mark')} · ${count(printed.sheets.length, 'sheet')}`;
}

/** Films that are cut, and colours that are printed. */
function filmsAnswer({ colours }: PlanView): string {
  const films = new Set(colours.flatMap((c) => (c.goesTo === 'film' ? [c.film?.id] : []))).size;
  const printed = colours.filter((colour) => colour.goesTo === 'print' && !colour.isCutLine).length;
  if (printed === 0) return count(films, 'film');
  return films === 0 ? `${printed} printed` : `${count(films, 'film')} · ${printed} printed`;
}

export function useSections() {
  const store = useOrder();
  const units = useUnits();
  const findingsOf = (name: SectionName): readonly Finding[] =>
    store.plan?.findings.filter(({ stage }) => (stage ?? 'artwork') === name) ?? [];
  function stateOf(name: SectionName): SectionState {
    if (!store.plan) return 'none';
    const own = findingsOf(name);
    if (own.some((f) => f.severity === 'stop')) return 'stop';
    if (name === 'print' && !store.plan.printed) return 'none';
    return own.some((f) => f.severity === 'check') ? 'check' : 'good';
  }
  /** An order of which all is cut with another lies on that one's film; one that is all printed, on sheets. */
  const laidSays = computed(() => {
    const { strips = [], printed } = store.plan ?? {};
    if (store.cutWith) return `with #${store.cutWith.number}`;
    if (strips.length === 0 && printed) return `${printed.sheets[0]?.places.length ?? 0} a sheet`;
    return `${Math.round(usedShare.value * 100)} % used`;
  });
  /** Share of the film that the strips take up which is cut, all films together. */
  const usedShare = computed(() => {
    const strips = store.plan?.strips ?? [];
    const area = strips.reduce((sum, s) => sum + s.length * s.roll.width, 0);
    return area > 0 ? strips.reduce((sum, s) => sum + s.used * s.length * s.roll.width, 0) / area : 0;
  });
  const answers = computed<Readonly<Record<SectionName, string>>>(() => {
    const p = store.plan;
    if (!p) return { artwork: '', films: '', panels: '', layout: '', print: '', cut: '', cutter: '' };
    return {
      artwork: `${units.number(p.width)} × ${units.length(p.height)}`,
      films: filmsAnswer(p),
      panels: panelsAnswer(p),
      layout: `${count(store.choices?.layout.copies ?? 1, 'copy', 'copies')} · ${laidSays.value}`,
      print: printAnswer(p),
      cut: count(new Set(cutsOf(p).map(({ film }) => film.id)).size, 'recipe'),
      cutter: p.cutter ? `${p.cutter.name} ${units.length(p.cutter.widest)}` : '',
    };
  });
  const sections = computed(() =>
    (
      [
        ['artwork', 'Artwork'],
        ['films', 'Films'],
        ['panels', 'Panels'],
        ['layout', 'Layout'],
        ['print', 'Print marks'],
        ['cut', 'Cut settings'],
        ['cutter', 'Cutter'],
      ] as const
    ).map(([name, title]) => ({ name, title, answer: answers.value[name] })),
  );
  return { sections, findingsOf, stateOf };
}
