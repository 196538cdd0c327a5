<script setup lang="ts">
/** How the page beside a machine is heard and seen: sounds, whether its screen stays on, light or dark. */
import { MonitorCheck, MonitorOff, Moon, Sun, Volume2, VolumeX } from '@lucide/vue';
import { toRef } from 'vue';
import { useAttention } from './useAttention';

const props = defineProps<{
  /** What a person is wanted for; undefined: nothing. */
  asks: string | undefined;
}>();
const night = defineModel<boolean>('night', { required: true });
const { sounds, staysOn, canStayOn } = useAttention(toRef(() => props.asks));
</script>

<template>
  <div class="looks">
    <button :aria-label="`Sounds are ${sounds ? 'on' : 'off'}`" @click="sounds = !sounds">
      <Volume2 v-if="sounds" :size="20" /><VolumeX v-else :size="20" />
    </button>
    <button
      v-if="canStayOn"
      :aria-label="staysOn ? 'The screen stays on' : 'The screen may go dark'"
      @click="staysOn = !staysOn"
    >
      <MonitorCheck v-if="staysOn" :size="20" /><MonitorOff v-else :size="20" />
    </button>
    <button :aria-label="night ? 'Light colours' : 'Dark colours'" @click="night = !night">
      <Sun v-if="night" :size="20" /><Moon v-else :size="20" />
    </button>
  </div>
</template>

<style scoped>
.looks {
  display: flex;
  gap: 4px;
  margin: -6px 0 -4px -12px;
}
button {
  display: grid;
  place-items: center;
  width: 44px;
  height: 44px;
  border: 0;
  border-radius: 50%;
  background: none;
}
</style>
