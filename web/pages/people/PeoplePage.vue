<script setup lang="ts">
/** Who works in the shop and what they may do: for the lead. */
import { UserPlus } from '@lucide/vue';
import Column from 'primevue/column';
import DataTable from 'primevue/datatable';
import InputText from 'primevue/inputtext';
import { computed, ref } from 'vue';
import type { Person, Role } from '../../../contracts/people';
import ChoiceField from '../../parts/ChoiceField.vue';
import DraftField from '../../parts/DraftField.vue';
import ProblemNote from '../../parts/ProblemNote.vue';
import { useMe } from '../../stores/me';
import { usePeople } from './usePeople';

const store = useMe();
const { people, state, made, problem, add, change, say } = usePeople();
const ROLES: readonly { readonly value: Role; readonly label: string; readonly may: string }[] = [
  { value: 'prep', label: 'prep', may: 'prepares orders and queues them' },
  { value: 'operator', label: 'operator', may: 'that, and runs machines and calibrates them' },
  { value: 'lead', label: 'lead', may: 'that, and changes recipes, cutters, stock and people' },
];
const name = ref('');
const role = ref<Role>('prep');
async function addNow(): Promise<void> {
  if (name.value.trim() && (await add(name.value.trim(), role.value))) name.value = '';
}
const here = computed(() => people.value.filter(({ removed }) => !removed));
const gone = computed(() => people.value.filter(({ removed }) => removed));
const isMe = ({ id }: Person): boolean => id === store.me?.id;
const readName = (typed: string): string | undefined => typed.trim() || undefined;
</script>

<template>
  <div class="page">
    <h1>People</h1>
    <ul class="soft roles">
      <li v-for="one in ROLES" :key="one.value">
        <b>{{ one.label }}</b> {{ one.may }}
      </li>
    </ul>
    <ProblemNote
      v-if="problem"
      :message="problem.message"
      :ways-out="problem.waysOut"
      @close="problem = undefined"
    />
    <div v-if="made" class="made" role="status">
      <p>
        {{ made.name }} logs in with <b class="number">{{ made.password }}</b>. It is shown this once: pass it
        on, and they choose one of their own.
      </p>
      <button class="button" @click="made = null">It is passed on</button>
    </div>
    <p v-if="state === 'loading'" class="soft" role="status">Looking them up.</p>
    <p v-else-if="state === 'failed'" role="alert">They could not be looked up. Load the page again.</p>
    <template v-else>
      <DataTable :value="here" data-key="id" aria-label="People">
        <Column header="Name">
          <template #body="{ data }">
            <DraftField
              :value="data.name"
              :label="`Name of ${data.name}`"
              :read="readName"
              @change="change(data, { name: $event })"
            />
          </template>
        </Column>
        <Column header="Role">
          <template #body="{ data }">
            <ChoiceField
              :label="`Role of ${data.name}`"
              :value="data.role"
              :options="ROLES"
              @change="change(data, { role: $event })"
            />
          </template>
        </Column>
        <Column header="At machines">
          <template #body="{ data }">
            <span class="soft pin">{{ data.hasPin ? 'by PIN' : 'no PIN' }}</span>
            <span v-if="data.isDemo" class="tag check">demo, its password is shown to everybody</span>
          </template>
        </Column>
        <Column>
          <template #body="{ data }">
            <div class="acts">
              <span v-if="isMe(data)" class="soft">you</span>
              <template v-else>
                <button class="button slim" @click="say(data, 'reset')">
                  New password<span class="unseen"> for {{ data.name }}</span>
                </button>
                <button class="button slim" @click="say(data, 'remove')">
                  Remove<span class="unseen"> {{ data.name }}</span>
                </button>
              </template>
            </div>
          </template>
        </Column>
      </DataTable>
      <form aria-label="Somebody new" @submit.prevent="addNow">
        <InputText v-model="name" size="small" aria-label="Name" placeholder="Name" maxlength="60" />
        <ChoiceField label="Role" :value="role" :options="ROLES" @change="role = $event" />
        <button class="button" :disabled="!name.trim()">
          <UserPlus :size="16" aria-hidden="true" />Add them
        </button>
      </form>
      <section v-if="gone.length" aria-labelledby="gone">
        <h2 id="gone">Removed</h2>
        <p class="soft">What they did stays theirs.</p>
        <ul>
          <li v-for="one in gone" :key="one.id">
            {{ one.name }}, {{ one.role }}
            <button class="button slim" @click="say(one, 'bring-back')">
              Bring back<span class="unseen"> {{ one.name }}</span>
            </button>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.page {
  display: grid;
  gap: 16px;
  max-width: 980px;
  margin: 0 auto;
  padding: 22px 24px;
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
.roles {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 22px;
  margin: 0;
  padding: 0;
  list-style: none;
}
.roles b {
  color: var(--ink);
}
.made,
form {
  display: flex;
  gap: 12px;
  align-items: center;
}
.made {
  justify-content: space-between;
  padding: 12px 16px;
  background: var(--gooseberry-soft);
  border: var(--line) solid var(--gooseberry);
  border-radius: var(--radius-card);
}
.pin {
  margin-right: 10px;
}
.acts {
  display: flex;
  gap: 8px;
  justify-content: end;
}
section ul {
  display: grid;
  gap: 6px;
  margin: 8px 0 0;
  padding: 0;
  list-style: none;
}
section li {
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
