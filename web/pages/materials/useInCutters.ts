/** In which cutters each film lies, by what was cut there last. */
import type { Ref } from 'vue';
import { computed, onMounted, shallowRef } from 'vue';
import type { LoadedNow } from '../../../contracts/floor';
import type { Cutter } from '../../../core/layout/cutter';
import { call } from '../../stores/api';
import { useListening } from '../../stores/events';
import { oneAtATime } from '../../stores/oneAtATime';

/** Names of cutters by film. */
export function useInCutters(cutters: Ref<readonly Cutter[]>) {
  const loaded = shallowRef<readonly LoadedNow[]>([]);
  const { ask: look } = oneAtATime(async () => {
    const now = await call('GET /api/floor').catch(() => undefined);
    if (now) loaded.value = now.loaded;
  });
  onMounted(look);
  useListening((event) => void (event.kind === 'cut' && look()), look);
  return computed(() => {
    const by = new Map<string, string[]>();
    for (const { cutter, film } of loaded.value) {
      const name = cutters.value.find(({ id }) => id === cutter)?.name;
      if (name) by.set(film, [...(by.get(film) ?? []), name]);
    }
    return by;
  });
}
