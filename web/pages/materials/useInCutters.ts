/** In which cutters each film lies, by what was cut there last. */
import { computed, onMounted, shallowRef } from 'vue';
import type { LoadedNow } from '../../../contracts/floor';
import type { Cutter } from '../../../core/layout/cutter';
import { call } from '../../stores/api';
import { useListening } from '../../stores/events';

/** Names of cutters by film. */
export function useInCutters() {
  const loaded = shallowRef<readonly LoadedNow[]>([]);
  const cutters = shallowRef<readonly Cutter[]>([]);
  async function look(): Promise<void> {
    const now = await Promise.all([call('GET /api/floor'), call('GET /api/shop')]).catch(() => undefined);
    if (!now) return;
    loaded.value = now[0].loaded;
    cutters.value = now[1].cutters;
  }
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
