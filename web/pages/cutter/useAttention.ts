/** A sound when a machine asks for something, and a screen that stays on to be seen: each can be switched off. */
import { useLocalStorage, useTitle, useWakeLock } from '@vueuse/core';
import type { Ref } from 'vue';
import { onBeforeUnmount, onMounted, watch } from 'vue';
import { ONE_OR_NOUGHT } from '../../stores/remembered';

/** Hz, one after the other, s each: rising, when somebody is wanted. */
const [TONES, TONE_S] = [[660, 880], 0.18] as const;
const LOUDNESS = 0.25;

/** @param asks what is asked for now; undefined: nothing */
export function useAttention(asks: Ref<string | undefined>) {
  const sounds = useLocalStorage('jam-pan-sounds', true, ONE_OR_NOUGHT);
  const staysOn = useLocalStorage('jam-pan-screen-on', true, ONE_OR_NOUGHT);
  const title = useTitle();
  const plain = title.value ?? 'Jam Pan';
  const wake = useWakeLock();
  let audio: AudioContext | undefined;

  function ring(): void {
    audio ??= new AudioContext();
    // one that was made before anybody touched the page is silent until then
    void audio.resume();
    for (const [i, hertz] of TONES.entries()) {
      const [tone, loud] = [audio.createOscillator(), audio.createGain()];
      tone.frequency.value = hertz;
      loud.gain.value = LOUDNESS;
      tone.connect(loud).connect(audio.destination);
      tone.start(audio.currentTime + i * TONE_S);
      tone.stop(audio.currentTime + (i + 1) * TONE_S);
    }
  }
  watch(asks, (now, before) => {
    if (now !== undefined && now !== before && sounds.value) ring();
  });
  // seen in the row of tabs too
  watch(asks, (now) => (title.value = now === undefined ? plain : `${now} · ${plain}`), { immediate: true });

  const keepOn = (on: boolean): Promise<void> =>
    // a browser may refuse, such as with a battery that is low
    (on ? wake.request('screen') : wake.release()).catch(() => {});
  onMounted(() => keepOn(staysOn.value));
  watch(staysOn, keepOn);
  onBeforeUnmount(() => {
    title.value = plain;
    void keepOn(false);
    void audio?.close();
  });
  return { sounds, staysOn, canStayOn: wake.isSupported };
}
