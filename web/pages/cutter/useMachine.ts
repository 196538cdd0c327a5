import type { Ref } from 'vue';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Cut, Drawing, NewFilmSaid, ResumeFrom } from '../../../contracts/cuts';
import { isInLane } from '../../../contracts/floor';
import type { ShopEvent } from '../../../contracts/api';
import { ApiProblem, call } from '../../stores/api';
import { useCutters } from '../../stores/cutters';
import { useListening } from '../../stores/events';
import type { CutLines, Head } from './drawCut';
import { linesOf } from './drawCut';

/** The cut that a machine is at, or that is next there. */
function onMachine(cuts: readonly Cut[], cutterId: string): Cut | undefined {
  const own = cuts.filter((cut) => cut.cutterId === cutterId && isInLane(cut));
  return own.find((cut) => cut.state !== 'queued') ?? own[0];
}

/** The cut that was done last at a machine. */
const lastDoneOf = (cuts: readonly Cut[], cutterId: string): Cut | undefined =>
  cuts
    .filter((cut) => cut.cutterId === cutterId && cut.endedAt !== null && cut.state === 'done')
    .reduce<Cut | undefined>((last, cut) => (last && last.endedAt! >= cut.endedAt! ? last : cut), undefined);

/** The cut at one machine: how far it is, what is drawn of it, and what may be said to it. */
export function useMachine(cutterId: Ref<string>) {
  const machines = useCutters();
  machines.follow(() => cutterId.value);
  const now = computed(() => onMachine(machines.cuts, cutterId.value));
  const problem = ref<ApiProblem>();
  const busy = ref(false);

  /** All cuts of the order that is on the machine, done ones too. */
  const ofOrder = ref<Cut[]>([]);
  const justDone = ref<Cut>();
  watch(
    () => machines.cuts,
    async (open) => {
      const cut = onMachine(open, cutterId.value);
      const query = cut ? { order: cut.orderId } : { lastAt: cutterId.value };
      ofOrder.value = await call('GET /api/cuts', { query }).catch(() => ofOrder.value);
      justDone.value = lastDoneOf(ofOrder.value, cutterId.value);
    },
  );

  const head = ref<Head>();
  const live = ref({ cutId: 0, linesDone: 0, secondsDone: 0 });
  function hear(event: ShopEvent): void {
    const own = event.kind === 'heads' && event.heads.find(({ cutId }) => cutId === now.value?.id);
    if (!own) return;
    head.value = own;
    live.value = own;
  }
  /** What was told last, or what is written down when that is more. */
  const furthest = (what: 'linesDone' | 'secondsDone'): number => {
    const written = now.value?.[what] ?? 0;
    return now.value?.id === live.value.cutId ? Math.max(live.value[what], written) : written;
  };
  const linesDone = computed(() => furthest('linesDone'));
  const secondsDone = computed(() => furthest('secondsDone'));

  const drawing = shallowRef<CutLines & { id: number; made: Drawing }>();
  watch(
    [
      () => now.value?.id,
      // a sheet's cut is moved to where the sheet lies once that was read
      () => now.value?.reading?.fit && JSON.stringify(now.value.reading.fit),
      // it may be replaced by what its order is by now
      () => now.value && [now.value.revision, now.value.lines, now.value.cutLength, now.value.length].join(),
    ],
    async ([id], [before]) => {
      if (id !== before) head.value = undefined;
      if (id === undefined) return void (drawing.value = undefined);
      const made = await call('GET /api/cuts/{id}/drawing', { params: { id } }).catch(() => undefined);
      if (!made || now.value?.id !== id) return;
      drawing.value = { id, made, ...linesOf(made) };
    },
    // coming from another page, the cut may be known already
    { immediate: true },
  );
  /** What is drawn of the cut on the machine, and how much of it is cut. */
  const lines = computed(() =>
    drawing.value && drawing.value.id === now.value?.id
      ? { ...drawing.value, done: linesDone.value }
      : undefined,
  );

  async function ask(say: (params: { id: number }) => Promise<unknown>): Promise<void> {
    if (!now.value || busy.value) return;
    busy.value = true;
    problem.value = undefined;
    try {
      await say({ id: now.value.id });
    } catch (error) {
      if (!(error instanceof ApiProblem)) throw error;
      problem.value = error;
    } finally {
      busy.value = false;
      await machines.fetchCuts();
    }
  }
  const say = (word: 'loaded' | 'stop' | 'cancel'): Promise<void> =>
    ask((params) => call(`POST /api/cuts/{id}/${word}`, { params }));
  const resume = (from: ResumeFrom): Promise<void> =>
    ask((params) => call('POST /api/cuts/{id}/resume', { params, body: { from } }));

  useListening(hear);
  const onNewFilm = (said: NewFilmSaid): Promise<void> =>
    ask((params) => call('POST /api/cuts/{id}/new-film', { params, body: said }));
  return {
    now,
    ofOrder,
    justDone,
    head,
    linesDone,
    secondsDone,
    lines,
    busy,
    problem,
    say,
    resume,
    onNewFilm,
  };
}
