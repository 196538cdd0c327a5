<script setup lang="ts">
/** Who is there? All that a stranger sees. */
import InputText from 'primevue/inputtext';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useMe } from '../../stores/me';
import { useTold } from '../../stores/told';

const store = useMe();
const name = ref('');
const password = ref('');
const isBusy = ref(false);
const { problem, tell } = useTold();
const demo = computed(() => store.session?.demo ?? []);
const form = useTemplateRef('form');
onMounted(() => form.value?.querySelector('input')?.focus());

async function logIn(): Promise<void> {
  isBusy.value = true;
  await tell(() => store.logIn(name.value, password.value));
  isBusy.value = false;
}
function as(one: { readonly name: string; readonly password: string }): Promise<void> {
  [name.value, password.value] = [one.name, one.password];
  return logIn();
}
</script>

<template>
  <main class="door">
    <form ref="form" aria-labelledby="who" @submit.prevent="logIn">
      <p class="shop"><img src="/pan.svg" alt="" width="40" height="34" />Jam Pan</p>
      <h1 id="who">{{ store.wasIn ? 'Log in again' : 'Who is there?' }}</h1>
      <p v-if="store.wasIn" class="soft">
        You were logged out. What you changed is kept, and saved once you are back.
      </p>
      <label>Name<InputText v-model="name" autocomplete="username" autocapitalize="none" /></label>
      <label>Password<InputText v-model="password" type="password" autocomplete="current-password" /></label>
      <p v-if="problem" class="problem" role="alert">{{ problem }}</p>
      <button class="button main" :disabled="isBusy || !name.trim() || !password">Log in</button>
      <p class="soft small">A lead gives you a name, and a new password when yours is forgotten.</p>
    </form>
    <section v-if="demo.length" aria-labelledby="demo">
      <h2 id="demo">The demo shop’s people</h2>
      <p class="soft">They are shown here until somebody changes their passwords or a lead removes them.</p>
      <ul>
        <li v-for="one in demo" :key="one.name">
          <div>
            <strong>{{ one.name }}</strong> <span class="tag">{{ one.role }}</span>
            <span class="number soft">{{ one.password }} · PIN {{ one.pin }}</span>
          </div>
          <button class="button" :disabled="isBusy" @click="as(one)">
            Log in<span class="unseen"> as {{ one.name }}</span>
          </button>
        </li>
      </ul>
    </section>
  </main>
</template>

<style scoped>
.door {
  display: grid;
  align-content: center;
  justify-content: center;
  grid-template-columns: minmax(0, 500px);
  gap: 18px;
  min-height: 100%;
  padding: 24px;
  background: var(--bench);
}
form,
section {
  display: grid;
  gap: 12px;
  padding: 22px 26px;
  background: var(--card);
  border: var(--line) solid var(--ink);
  border-radius: var(--radius-label);
}
section {
  gap: 8px;
  border-color: var(--rule);
}
.shop {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0;
  padding: 10px 26px;
  margin: -22px -26px 4px;
  font: 700 22px/1 var(--heading);
  color: #fffdf7;
  background: #5e2750;
  border-radius: 10px 10px 0 0;
}
h1 {
  font-size: 26px;
}
h2 {
  font-size: 17px;
}
p {
  margin: 0;
}
.small {
  font-size: 14px;
}
label {
  display: grid;
  grid-template-columns: 92px 1fr;
  align-items: center;
}
.main {
  min-height: 44px;
}
.problem {
  color: var(--currant);
}
ul {
  display: grid;
  gap: 8px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: flex;
  gap: 12px;
  align-items: center;
  justify-content: space-between;
}
li .number {
  display: block;
  font-size: 13px;
}
</style>
