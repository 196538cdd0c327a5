<script setup lang="ts">
/** The order's name, when it is due, and whether anything keeps it back. */
import DatePicker from 'primevue/datepicker';
import { computed } from 'vue';
import DraftField from '../../parts/DraftField.vue';
import RepeatNote from './RepeatNote.vue';
import { useOrder } from '../../stores/order';

const store = useOrder();
const countOf = (severity: string): number =>
  store.plan?.findings.filter((f) => f.severity === severity).length ?? 0;
const stops = computed(() => countOf('stop'));
const checks = computed(() => countOf('check'));
const due = computed(() => (store.order?.due ? new Date(`${store.order.due}T12:00:00`) : null));
/** The day as it is where the person sits. */
function setDue(to: unknown): void {
  if (to !== null && !(to instanceof Date)) return; // half typed
  void store.setDue(to && [to.getFullYear(), two(to.getMonth() + 1), two(to.getDate())].join('-'));
}
const two = (n: number): string => String(n).padStart(2, '0');
</script>

<template>
  <div class="head">
    <DraftField
      v-if="store.order"
      class="title"
      label="Name of the order"
      :value="store.order.name"
      :read="(name) => name.slice(0, 120) || undefined"
      @change="store.rename"
    />
    <p>
      <span class="number soft">#{{ store.order?.number }}</span>
      <DatePicker
        class="due"
        size="small"
        date-format="'due' D d M"
        placeholder="no due date"
        show-button-bar
        aria-label="Due"
        :model-value="due"
        @update:model-value="setDue"
      />
      <span v-if="stops" class="tag stop">{{ stops }} to mend</span>
      <span v-else-if="checks" class="tag check">{{ checks }} to check</span>
      <span v-else-if="store.plan" class="tag good">all clear</span>
    </p>
    <RepeatNote
      v-if="store.order && store.order.repeats !== null"
      :order="store.order.id"
      :revision="store.order.revision"
    />
  </div>
</template>

<style scoped>
.head {
  padding: 10px 16px 10px;
  border-bottom: var(--line) solid var(--ink);
}
.due {
  width: 132px;
}
.due :deep(input) {
  width: 100%;
  padding: 1px 5px;
  margin-left: -6px;
  font-size: 14px;
  color: var(--ink-soft);
  background: none;
  border-color: transparent;
  box-shadow: none;
}
.due :deep(input:hover) {
  border-color: var(--rule);
}
.title {
  width: calc(100% + 12px);
  margin: 0 -6px;
  padding: 2px 5px;
  font: 700 22px/1.2 var(--heading);
  color: inherit;
  text-overflow: ellipsis;
  background: none;
  border: 1px solid transparent;
  border-radius: var(--radius-field);
  box-shadow: none;
}
.title:hover {
  border-color: var(--rule);
}
.head p {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 3px 0 0;
  font-size: 14px;
}
.head .tag {
  margin-left: auto;
}
</style>
