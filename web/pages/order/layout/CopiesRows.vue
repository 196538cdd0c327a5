<script setup lang="ts">
/** How many copies: by number, in rows, or as many as there is room for. */
import { computed, ref } from 'vue';
import type { LayoutChoices } from '../../../../core/layout/strip';
import NumberField from '../../../parts/NumberField.vue';
import { useOrder } from '../../../stores/order';

const { layout, hasRows } = defineProps<{
  layout: LayoutChoices;
  /** Some film is laid as one, copies in rows. */
  hasRows: boolean;
}>();
const emit = defineEmits<{ change: [change: Partial<LayoutChoices>] }>();
const store = useOrder();

const MOST = 1000;
const rows = computed(() => Math.ceil(layout.copies / (layout.abreast ?? 1)));
function setAbreast(abreast: number): void {
  if (abreast === 0) return emit('change', { abreast: null });
  const kept = layout.abreast === null ? Math.ceil(layout.copies / abreast) : rows.value;
  emit('change', { abreast, copies: Math.min(MOST, abreast * kept) });
}
/** Copies that there is room for, as far as is known, while it is looked for. */
const filling = ref<number>();
async function fill(): Promise<void> {
  filling.value = 0;
  const copies = await store.mostCopies((known) => (filling.value = known));
  filling.value = undefined;
  if (copies > 0) emit('change', { copies });
}
</script>

<template>
  <div class="row">
    <span>Copies</span>
    <span class="fields">
      <button
        class="button slim"
        title="As many copies as one strip of every film has room for"
        :disabled="store.planning || filling !== undefined"
        @click="fill"
      >
        {{ filling === undefined ? 'As many as fit' : `${filling} fit …` }}
      </button>
      <NumberField
        class="copies"
        label="Copies"
        :min="1"
        :max="MOST"
        :value="layout.copies"
        @change="emit('change', { copies: $event })"
      />
    </span>
  </div>
  <div v-if="hasRows" class="row">
    <span>Side by side{{ layout.abreast === null ? ', 0: as fit' : ' × rows' }}</span>
    <span class="fields">
      <NumberField
        class="few"
        label="Copies side by side"
        :min="0"
        :max="MOST"
        :value="layout.abreast ?? 0"
        @change="setAbreast"
      />
      <template v-if="layout.abreast !== null"
        >×
        <NumberField
          class="few"
          label="Rows of copies"
          :min="1"
          :max="Math.floor(MOST / layout.abreast)"
          :value="rows"
          @change="emit('change', { copies: layout.abreast * $event })"
      /></template>
    </span>
  </div>
</template>

<style scoped>
.fields {
  display: flex;
  gap: 7px;
  align-items: center;
}
.copies {
  width: 5em;
  font-weight: 650;
  text-align: right;
}
.few {
  width: 4em;
  text-align: right;
}
</style>
