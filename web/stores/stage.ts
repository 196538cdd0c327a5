import { defineStore } from 'pinia';
import { ref, watch } from 'vue';

const KEY = 'jam-pan-shows-hidden';
const DARK = 'jam-pan-dark-ground';

/** What the stage shows beside the films themselves. */
export const useStage = defineStore('stage', () => {
  const showsHidden = ref(localStorage.getItem(KEY) === '1');
  watch(showsHidden, (now) => localStorage.setItem(KEY, now ? '1' : '0'));
  /** Pale film is seen on a dark surface. */
  const darkGround = ref(localStorage.getItem(DARK) === '1');
  watch(darkGround, (now) => localStorage.setItem(DARK, now ? '1' : '0'));
  /** The film of which pieces are being picked to be cut again. */
  const again = ref<string>();
  return { showsHidden, darkGround, again };
});
