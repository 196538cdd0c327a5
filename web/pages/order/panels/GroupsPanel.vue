<script setup lang="ts">
/** What is taken as one where it fits, and what a person has put together or lets stand alone. */
import { Trash2 } from '@lucide/vue';
import { computed } from 'vue';
import ChoiceRow from '../../../parts/ChoiceRow.vue';
import { useOrder } from '../../../stores/order';
import { useSeams } from '../../../stores/seams';
import { count } from '../runCardSections';

const store = useOrder();
const seams = useSeams();
const panels = computed(() => store.choices!.panels);
const TOGETHER = [
  { value: 'line', label: 'whole lines' },
  { value: 'word', label: 'words' },
  { value: 'letter', label: 'single shapes' },
] as const;
</script>

<template>
  <ChoiceRow
    label="Taken as one"
    :value="panels.together"
    :options="TOGETHER"
    @change="seams.place({ together: $event })"
  />
  <div class="row">
    <button class="button small" @click="seams.picking = 'group'">Put shapes together</button>
    <button class="button small" @click="seams.picking = 'alone'">Let some stand alone</button>
  </div>
  <div v-for="(group, i) in panels.groups" :key="i" class="row">
    <span>Group {{ i + 1 }}, {{ count(group.length, 'shape') }}</span>
    <button
      class="button small"
      :aria-label="`Take group ${i + 1} apart`"
      @click="seams.place({ groups: panels.groups.filter((_, k) => k !== i) })"
    >
      <Trash2 :size="15" />
    </button>
  </div>
  <div v-if="panels.alone.length" class="row">
    <span>{{ count(panels.alone.length, 'shape') }} alone</span>
    <button class="button small" aria-label="None stands alone" @click="seams.place({ alone: [] })">
      <Trash2 :size="15" />
    </button>
  </div>
</template>
