<script setup lang="ts">
/** One big sentence, and one big button when something is asked. */
import type { Cut, ResumeFrom } from '../../../contracts/cuts';
import { useMe } from '../../stores/me';
import type { Sentence } from './sentence';

defineProps<{
  /** What is known of the queue; before that nothing is said of it. */
  ready: boolean;
  sentence: Sentence;
  now?: Cut;
  busy: boolean;
  /** It would be cut otherwise by now, and nobody has said which. */
  outdated: boolean;
  /** Its machine reads marks by itself, so that a person may choose. */
  hasSensor: boolean;
  byHand: boolean;
  canHaveSlipped: boolean;
}>();
defineEmits<{ loaded: []; resume: [from: ResumeFrom]; byHand: []; slipped: [] }>();
const me = useMe();
</script>

<template>
  <div class="say" aria-live="polite">
    <div>
      <h2>{{ ready ? sentence.big : 'Asking the server' }}</h2>
      <p>{{ ready ? sentence.small : 'One moment.' }}</p>
    </div>
    <p v-if="now && !me.may('operator')" class="soft">Machines are run by operators and leads.</p>
    <template v-else-if="now?.state === 'wants-film'">
      <button v-if="now.sheet && hasSensor" class="big way" @click="$emit('byHand')">
        {{ byHand ? 'By sensor' : 'By hand' }}
      </button>
      <button v-if="!byHand && !outdated" class="big main" :disabled="busy" @click="$emit('loaded')">
        {{ now.sheet ? 'The sheet is loaded' : `${now.film.name} is loaded` }}
      </button>
    </template>
    <div v-else-if="now?.state === 'stopped'" class="ways" :class="{ asked: now.inDoubt }">
      <template v-if="now.inDoubt">
        <button class="big main" :disabled="busy" @click="$emit('resume', 'head')">
          It is cut: go on there
        </button>
        <button class="big" :disabled="busy" @click="$emit('resume', now.inDoubt)">
          It is not: cut line {{ now.inDoubt }}
        </button>
      </template>
      <button v-else class="big main" :disabled="busy" @click="$emit('resume', 'next-line')">Go on</button>
      <button class="big" :disabled="busy" @click="$emit('resume', 'start')">Start this film again</button>
      <button v-if="canHaveSlipped" class="big" @click="$emit('slipped')">The film slipped</button>
    </div>
    <router-link v-else-if="!now && ready" class="button" to="/orders">To the orders</router-link>
  </div>
</template>

<style scoped>
.say {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 20px;
  min-height: 98px;
  padding: 14px 20px;
  background: var(--card);
  border-bottom: var(--line) solid var(--ink);
}
h2 {
  font-size: 29px;
}
p {
  margin: 5px 0 0;
  color: var(--ink-soft);
}
.main {
  white-space: nowrap;
}
.way {
  flex: none;
  white-space: nowrap;
  margin-left: auto;
}
.ways {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
/* what there is to choose from stands beneath the sentence where it has no room beside it */
.say:has(.ways) {
  flex-wrap: wrap;
}
.say:has(.ways) > :first-child {
  flex: 1 1 14rem;
}
.ways .big {
  padding-inline: 16px;
}
.ways.asked {
  display: grid;
  grid-template-columns: auto auto;
}
@media (orientation: portrait) and (max-width: 1000px) {
  h2 {
    font-size: 32px;
  }
  p {
    font-size: 17px;
  }
  .big {
    flex: none;
  }
}
</style>
