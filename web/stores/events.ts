import { addressOf } from '../../contracts/address';
import { defineStore } from 'pinia';
import { onBeforeUnmount, onMounted, ref } from 'vue';
import type { ShopEvent } from '../../contracts/api';

/** What pages hear of. */
type Told = Exclude<ShopEvent, { kind: 'missed' }>;

const REOPEN_MS = 2000;

/** What happens in the shop, as the server tells it; says when the line to the server is gone. */
export const useEvents = defineStore('events', () => {
  const connected = ref(true);
  const listeners = new Set<(event: Told) => void>();
  const returns = new Set<() => void>();
  let source: EventSource | undefined;
  let again: ReturnType<typeof setTimeout> | undefined;
  const askAgain = (): void => {
    for (const ask of returns) ask();
  };
  function hear(message: MessageEvent<string>): void {
    const event = JSON.parse(message.data) as ShopEvent;
    if (event.kind === 'missed') return askAgain();
    for (const listener of listeners) listener(event);
  }
  /** For whoever is logged in. */
  function open(): void {
    if (source) return;
    const opened = new EventSource(addressOf('GET /api/events', {}));
    source = opened;
    opened.addEventListener('shop', hear);
    opened.onopen = () => {
      connected.value = true;
      // whatever happened before the line was there has to be asked for
      askAgain();
    };
    opened.onerror = () => {
      connected.value = false;
      // an answer that is no stream is final for it, though not for us
      if (opened.readyState !== EventSource.CLOSED) return;
      source = undefined;
      again = setTimeout(open, REOPEN_MS);
    };
  }
  function close(): void {
    clearTimeout(again);
    source?.close();
    source = undefined;
    connected.value = true;
  }
  return {
    connected,
    open,
    close,
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
