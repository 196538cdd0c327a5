<script setup lang="ts">
/** Whether the recipe shall have what a cut that is done was nudged to. */
import { computed } from 'vue';
import type { Cut } from '../../../contracts/cuts';
import { call } from '../../stores/api';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';
import { nudgedText } from './nudgedText';

const props = defineProps<{ cut: Cut }>();
const emit = defineEmits<{ answered: [cut: Cut] }>();
const me = useMe();
const { problem, tell } = useTold();
const text = computed(() => nudgedText(props.cut));

const answer = (keep: boolean): Promise<void> =>
  tell(async () =>
    emit(
      'answered',
      await call('POST /api/cuts/{id}/nudges-kept', { params: { id: props.cut.id }, body: { keep } }),
    ),
  );
</script>

<template>
  <div v-if="text" class="asked-of-you">
    <p>{{ cut.film.name }} was cut with {{ text }}.</p>
    <p v-if="cut.nudgesKept !== null" class="soft">
      {{ cut.nudgesKept ? 'Its recipe has that now.' : 'Its recipe stays as it was.' }}
    </p>
    <p v-else-if="!me.may('lead')" class="soft">A lead may keep that in its recipe.</p>
    <div v-else class="two">
      <button class="button main" @click="answer(true)">Keep it in the recipe</button>
      <button class="button" @click="answer(false)">Leave the recipe</button>
    </div>
    <p v-if="problem" role="alert">{{ problem }}</p>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  gap: 6px;
}
p {
  margin: 0;
}
</style>
