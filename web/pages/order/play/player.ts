/** The clock of what is played: run, stopped, set, faster and slower. */
import { useLocalStorage, useRafFn } from '@vueuse/core';
import type { Ref } from 'vue';
import { ref, watch } from 'vue';

/** Times as fast as the cutter. */
export const PACES = [1, 4, 16, 64] as const;

/** s: a slider rounds to hundredths, and its end is the end. */
const ROUNDED = 0.01;

/** @param seconds how long what is played takes */
export function usePlayer(seconds: Ref<number>) {
  /** s from the start */
  const at = ref(0);
  const isPlaying = ref(false);
  const pace = useLocalStorage<number>('jam-pan-play-pace', 4);
  const { pause, resume } = useRafFn(
    ({ delta }) => {
      at.value = Math.min(seconds.value, at.value + (delta / 1000) * pace.value);
      if (at.value >= seconds.value) stop();
    },
    { immediate: false },
  );
  function stop(): void {
    isPlaying.value = false;
    pause();
  }
  /** Plays on, from the start again where it is over; or stops. */
  function toggle(): void {
    if (isPlaying.value) return stop();
    if (at.value >= seconds.value) at.value = 0;
    isPlaying.value = true;
    resume();
  }
  function goTo(moment: number): void {
    stop();
    at.value = moment > seconds.value - ROUNDED ? seconds.value : Math.max(0, moment);
  }
  // another cut begins anew
  watch(seconds, () => goTo(0));
  return { at, isPlaying, pace, toggle, goTo };
}

/** Minutes and seconds on the clock. */
export const clock = (seconds: number): string => {
  const whole = Math.floor(seconds + 1e-6);
  const [h, m, s] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  const two = (n: number): string => String(n).padStart(2, '0');
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`;
};
