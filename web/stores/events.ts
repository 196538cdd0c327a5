import { addressOf } from '../../contracts/address';
import { defineStore } from 'pinia';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import type { ShopEvent } from '../../contracts/api';

/** What pages hear of. */
type Told = Exclude<ShopEvent, { kind: 'missed' }>;

/** What happens in the shop, as the server tells it; says when the line to the server is gone. */
export const useEvents = defineStore('events', () => {
  const connected = ref(true);
  const listeners = new Set<(event: Told) => void>();
  const returns = new Set<() => void>();
  const source = new EventSource(addressOf('GET /api/events', {}));
  const askAgain = (): void => {
    for (const again of returns) again();
  };
  source.addEventListener('shop', (message) => {
    const event = JSON.parse((message as MessageEvent<string>).data) as ShopEvent;
    if (event.kind === 'missed') return askAgain();
    for (const listener of listeners) listener(event);
  });
  source.onopen = () => {
    connected.value = true;
    // whatever happened before the line was there has to be asked for
    askAgain();
  };
  source.onerror = () => (connected.value = false);
  return {
    connected,
    on: (listener: (event: Told) => void, onReturn?: () => void) => {
      listeners.add(listener);
      if (onReturn) returns.add(onReturn);
      return () => {
        listeners.delete(listener);
        if (onReturn) returns.delete(onReturn);
      };
    },
  };
});

/** Hears what happens as long as the component is there. @param onReturn the line to the server is back: ask again */
export function useListening(hear: (event: Told) => void, onReturn?: () => void): void {
  let forget: (() => void) | undefined;
  onMounted(() => (forget = useEvents().on(hear, onReturn)));
  onBeforeUnmount(() => forget?.());
}
