/** A cutter's calibrations: all that were run, and what is done with them. */
import { computed, onMounted, ref, watch } from 'vue';
import type { ShopEvent } from '../../../../contracts/api';
import type { Calibration } from '../../../../contracts/calibrations';
import type { Setup } from '../../../../core/calibration/run';
import { call } from '../../../stores/api';
import { useListening } from '../../../stores/events';
import { useInTurn } from '../../../stores/inTurn';

type Progress = ShopEvent & { readonly kind: 'calibration-progress' };

export function useCalibrations(cutter: () => string) {
  /** The newest first. */
  const runs = ref<readonly Calibration[]>([]);

  const show = (run: Calibration): void => {
    const isKnown = runs.value.some(({ id }) => id === run.id);
    runs.value = isKnown ? runs.value.map((one) => (one.id === run.id ? run : one)) : [run, ...runs.value];
  };
  /** How far one is at its machine: nothing else of it is another. */
  const advance = ({ calibrationId, lines, linesDone }: Progress): void => {
    runs.value = runs.value.map((one) => (one.id === calibrationId ? { ...one, lines, linesDone } : one));
  };
  const { state, problem, underWay, keep, again } = useInTurn(
    () => call('GET /api/cutters/{cutter}/calibrations', { params: { cutter: cutter() } }),
    (all) => (runs.value = all),
    show,
  );
  const load = (): void => void (cutter() && again());
  watch(cutter, () => {
    runs.value = [];
    state.value = 'loading';
    load();
  });
  useListening((event) => {
    if (event.kind === 'calibration-progress') advance(event);
    else if (event.kind === 'calibration' && event.cutterId === cutter()) load();
  }, load);
  onMounted(load);

  const setUp = async (setup: Setup, isCut: boolean): Promise<void> => {
    let made: Calibration | undefined;
    await keep(async () => {
      made = await call('POST /api/cutters/{cutter}/calibrations', {
        params: { cutter: cutter() },
        body: setup,
      });
      return made;
    });
    // what it took the place of is dropped
    await again();
    if (isCut && made) await step('cut', made.id);
  };
  const step = (what: 'cut' | 'stop' | 'keep' | 'drop', id: number): Promise<void> =>
    keep(() => call(`POST /api/calibrations/{id}/${what}`, { params: { id } }));
  function measure(run: Calibration, measured: Calibration['measured']): Promise<void> {
    const body = { was: run.measured, now: measured };
    show({ ...run, measured });
    return keep(() => call('PATCH /api/calibrations/{id}', { params: { id: run.id }, body }));
  }
  const print = (run: Calibration): Promise<void> =>
    keep(async () => {
      await call('POST /api/calibrations/{id}/print', { params: { id: run.id } });
      return run;
    });
  return { runs, state, problem, isBusy: computed(() => underWay.value > 0), setUp, step, measure, print };
}
