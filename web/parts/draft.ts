import { ref, watch } from 'vue';

/** A text that is being edited: a value that arrives while somebody types does not take the typing away. */
export function useDraft(shown: () => string) {
  const text = ref(shown());
  let settled = text.value;
  /** Takes a text for what is shown: nobody is typing. */
  function settle(to = shown()): void {
    text.value = settled = to;
  }
  watch(shown, (now) => {
    if (text.value === settled) text.value = now;
    settled = now;
  });
  return { text, settle, isSettled: () => text.value === settled };
}
