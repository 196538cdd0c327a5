<script setup lang="ts">
/** Who is at the machine's tablet: a name, and digits large enough for dirty hands. */
import { Delete } from '@lucide/vue';
import Dialog from 'primevue/dialog';
import { computed, ref } from 'vue';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';

const store = useMe();
const MOST = 8;
const FEWEST = 4;
const KEYS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'] as const;
const hands = computed(() => store.session?.hands ?? []);
const picked = ref<number>();
const pin = ref('');
const { problem, tell } = useTold();

const person = computed(() => hands.value.find(({ id }) => id === picked.value) ?? only.value);
const only = computed(() => (hands.value.length === 1 ? hands.value[0] : undefined));
function pick(id: number): void {
  picked.value = id;
  pin.value = '';
}
const type = (digit: string): void => void (pin.value = (pin.value + digit).slice(0, MOST));
async function enter(): Promise<void> {
  if (!person.value || pin.value.length < FEWEST) return;
  await tell(() => store.comeHere(person.value!.id, pin.value));
  pin.value = '';
}
function onKey(event: KeyboardEvent): void {
  if (/^\d$/.test(event.key)) type(event.key);
  else if (event.key === 'Backspace') pin.value = pin.value.slice(0, -1);
  else if (event.key === 'Enter' && (event.target as HTMLElement).tagName !== 'BUTTON') void enter();
}
</script>

<template>
  <Dialog
    visible
    modal
    header="Who is at the machine?"
    :style="{ width: '27rem' }"
    @update:visible="store.neverMind()"
  >
    <div class="pad" @keydown="onKey">
      <p v-if="hands.length === 0">
        Nobody has a PIN yet. Log in on another screen, and choose one under your name.
      </p>
      <div v-else role="radiogroup" aria-label="Person" class="people">
        <button
          v-for="one in hands"
          :key="one.id"
          role="radio"
          :aria-checked="person?.id === one.id"
          @click="pick(one.id)"
        >
          <strong>{{ one.name }}</strong><span>{{ one.role }}</span>
        </button>
      </div>
      <template v-if="person">
        <output class="number" :aria-label="`${pin.length} digits typed`"
          ><i v-for="n in Math.max(FEWEST, pin.length)" :key="n" :class="{ typed: n <= pin.length }"></i
        ></output>
        <p v-if="problem" role="alert">{{ problem }}</p>
        <div class="keys">
          <button v-for="key in KEYS" :key="key" class="number" @click="type(key)">{{ key }}</button>
          <button aria-label="Take the last digit back" @click="pin = pin.slice(0, -1)">
            <Delete :size="22" aria-hidden="true" />
          </button>
          <button class="number" @click="type('0')">0</button>
          <button class="enter" :disabled="pin.length < FEWEST" @click="enter">It is me</button>
        </div>
      </template>
    </div>
  </Dialog>
</template>

<style scoped>
.pad {
  display: grid;
  gap: 14px;
}
.pad p {
  margin: 0;
}
p[role='alert'] {
  color: var(--currant);
}
.people {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
button {
  min-height: 56px;
  padding: 0 14px;
  color: var(--ink);
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-card);
}
.people button {
  display: grid;
  align-content: center;
  flex: 1;
}
.people span {
  font-size: 13px;
  color: var(--ink-soft);
}
.people [aria-checked='true'] {
  background: var(--damson-soft);
  border-color: var(--damson);
}
output {
  display: flex;
  gap: 14px;
  justify-content: center;
  min-height: 18px;
}
i {
  width: 16px;
  height: 16px;
  border: var(--line) solid var(--ink-soft);
  border-radius: 50%;
}
i.typed {
  background: var(--ink);
}
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
}
.keys button {
  display: grid;
  place-items: center;
  min-height: 62px;
  font-size: 22px;
  font-weight: 650;
}
.keys .enter {
  font-size: 16px;
  color: var(--card);
  background: var(--damson);
  border-color: var(--damson);
}
.keys .enter:disabled {
  opacity: 0.5;
}
</style>
