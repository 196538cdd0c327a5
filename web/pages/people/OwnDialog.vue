<script setup lang="ts">
/** One's own password, and the PIN for machines' tablets. */
import Dialog from 'primevue/dialog';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import { PIN, SHORTEST_PASSWORD } from '../../../contracts/people';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';

const emit = defineEmits<{ close: [] }>();
const store = useMe();
const password = ref('');
const fresh = ref('');
const pin = ref('');
const tried = ref(false);
const { problem, tell } = useTold();
const wrong = computed(() => {
  if (!password.value) return 'Say your password as it is now.';
  if (fresh.value && fresh.value.length < SHORTEST_PASSWORD)
    return `The new password takes at least ${SHORTEST_PASSWORD} letters: three or four words are good.`;
  if (pin.value && !PIN.test(pin.value)) return 'A PIN has four to eight digits.';
  return fresh.value || pin.value ? '' : 'Say a new password, a PIN, or both.';
});

async function keep(): Promise<void> {
  tried.value = true;
  if (wrong.value) return;
  await tell(async () => {
    await store.changeOwn({
      password: password.value,
      ...(fresh.value ? { newPassword: fresh.value } : {}),
      ...(pin.value ? { pin: pin.value } : {}),
    });
    emit('close');
  });
}
const dropPin = (): Promise<void> =>
  tell(async () => {
    await store.changeOwn({ password: password.value, pin: null });
    emit('close');
  });
</script>

<template>
  <Dialog
    visible
    modal
    header="Your password and PIN"
    :style="{ width: '30rem' }"
    @update:visible="$emit('close')"
  >
    <form @submit.prevent="keep">
      <p v-if="store.me?.mustChange">A lead chose your password. Choose one that only you know.</p>
      <label
        >Password now<InputText v-model="password" type="password" autocomplete="current-password"
      /></label>
      <label>New password<InputText v-model="fresh" type="password" autocomplete="new-password" /></label>
      <label
        >PIN<InputText
          v-model="pin"
          type="password"
          inputmode="numeric"
          autocomplete="off"
          :placeholder="store.me?.hasPin ? 'as it is' : 'none yet'"
      /></label>
      <p class="soft">With the PIN you say at a machine’s tablet that it is you.</p>
      <p v-if="tried && wrong" class="problem" role="alert">{{ wrong }}</p>
      <p v-else-if="problem" class="problem" role="alert">{{ problem }}</p>
      <div class="buttons">
        <button class="button main">Keep</button>
        <button v-if="store.me?.hasPin" type="button" class="button" :disabled="!password" @click="dropPin">
          No PIN any more
        </button>
        <button type="button" class="button" @click="$emit('close')">Never mind</button>
      </div>
    </form>
  </Dialog>
</template>

<style scoped>
form {
  display: grid;
  gap: 12px;
}
label {
  display: grid;
  grid-template-columns: 130px 1fr;
  align-items: center;
}
p {
  margin: 0;
}
.problem {
  color: var(--currant);
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
