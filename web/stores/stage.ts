import { defineStore } from 'pinia';
import { useLocalStorage } from '@vueuse/core';
import { ref } from 'vue';
import { ONE_OR_NOUGHT } from './remembered';

const KEY = 'jam-pan-shows-hidden';
const DARK = 'jam-pan-dark-ground';

/** What the stage shows beside the films themselves. */
export const useStage = defineStore('stage', () => {
  const showsHidden = useLocalStorage(KEY, false, ONE_OR_NOUGHT);
  /** Pale film is seen on a dark surface. */
  const darkGround = useLocalStorage(DARK, false, ONE_OR_NOUGHT);
  /** The film of which pieces are being picked to be cut again. */
  const again = ref<string>();
  /** The cut line, from 0, for which shapes are being picked on the sheet. */
  const lineFor = ref<number>();
  /** Kinds of findings, by code, that have no pins on the sign. */
  const hiddenKinds = useLocalStorage<readonly string[]>('jam-pan-hidden-kinds', []);
  return { showsHidden, darkGround, again, lineFor, hiddenKinds };
});
