import { defineStore } from 'pinia';
import { ref, watch } from 'vue';

const KEY = 'jam-pan-shows-hidden';

/** What the stage shows beside the films themselves. */
export const useStage = defineStore('stage', () => {
  const showsHidden = ref(localStorage.getItem(KEY) === '1');
  watch(showsHidden, (now) => localStorage.setItem(KEY, now ? '1' : '0'));
  return { showsHidden };
});
