<script setup lang="ts">
/** The check-over: everything that would spoil film, with its way to mend it. */
import { ChevronRight, Eye, EyeOff } from '@lucide/vue';
import { computed, nextTick, reactive, ref, watch } from 'vue';
import type { Finding, Fix, FixKind } from '../../../../core/findings/finding';
import FoldOut from '../../../parts/FoldOut.vue';
import { useArtwork } from '../../../stores/artwork';
import { useStage } from '../../../stores/stage';
import type { FindingGroup } from '../../../parts/findingKinds';

const art = useArtwork();
const list = ref<HTMLElement>();
const reason = ref<{ key: string; text: string }>();

const WORD: Readonly<Record<FixKind, string>> = {
  close: 'Close it',
  weld: 'Weld',
  double: 'Remove the double',
  thicken: 'Thicken',
  simplify: 'Simplify',
  island: 'Leave it out',
  outline: 'Give it a width',
  flat: 'One colour',
  print: 'Do not cut it',
};
const left = computed(() => art.findings.filter((f) => f.ignored !== undefined));
const says = computed(() => {
  const n = art.open.length;
  return n === 0 ? 'nothing found' : `${n} found`;
});
const look = useStage();
/** Kinds that a person has folded up or out; a few findings are out by themselves. */
const turned = reactive(new Map<string, boolean>());
const FEW = 12;
const isOpen = ({ code }: FindingGroup): boolean => turned.get(code) ?? art.open.length <= FEW;
const turn = (group: FindingGroup): void => void turned.set(group.code, !isOpen(group));
/** A long kind shows its first ones until all are asked for. */
const whole = reactive(new Set<string>());
const FIRST = 8;
const shownOf = ({ code, members }: FindingGroup): FindingGroup['members'] => {
  if (whole.has(code) || members.length <= FIRST) return members;
  const now = members.findIndex(({ finding }) => finding.key === art.finding);
  return members.filter((_, i) => i < FIRST || i === now);
};
const isHidden = ({ code }: FindingGroup): boolean => look.hiddenKinds.includes(code);
function hide(group: FindingGroup): void {
  const others = look.hiddenKinds.filter((code) => code !== group.code);
  look.hiddenKinds = isHidden(group) ? others : [...others, group.code];
}

const allWays = ({ members }: FindingGroup): readonly FixKind[] => [
  ...new Set(members.flatMap(({ finding }) => finding.fixes?.map(({ kind }) => kind) ?? [])),
];
const mendAll = ({ members }: FindingGroup, kind: FixKind): void =>
  art.mend(
    members.flatMap(({ finding: { fixes = [] } }) =>
      fixes.filter((fix) => fix.kind === kind || fixes.length === 1),
    ),
  );
/** Every fix of a finding belongs to one way out, but for those that offer two. */
const ways = (finding: Finding): readonly (readonly Fix[])[] => {
  const kinds = [...new Set(finding.fixes!.map(({ kind }) => kind))];
  return kinds.map((kind) => finding.fixes!.filter((fix) => fix.kind === kind));
};
function leave(): void {
  if (!reason.value?.text.trim()) return;
  art.leave(reason.value.key, reason.value.text.trim());
  reason.value = undefined;
}
watch(
  () => art.finding,
  async (key) => {
    const group = art.groups.find(({ members }) => members.some(({ finding }) => finding.key === key));
    if (key !== undefined && group) turned.set(group.code, true);
    await nextTick();
    list.value?.querySelector(`[data-key="${CSS.escape(key ?? '')}"]`)?.scrollIntoView({ block: 'nearest' });
  },
);
</script>

<template>
  <FoldOut title="Check-over" name="check" open :says="says">
    <p v-if="art.open.length === 0" class="hint">
      Outlines close, nothing is cut twice, nothing is too thin to weed.
    </p>
    <div v-else ref="list" class="kinds">
      <section v-for="group in art.groups" :key="group.code" class="kind">
        <div class="head">
          <button class="turner" :aria-expanded="isOpen(group)" @click="turn(group)">
            <ChevronRight :size="15" class="arrow" :class="{ shown: isOpen(group) }" aria-hidden="true" />
            <span class="dot" :class="group.severity" aria-hidden="true"></span>
            <span>{{ group.name }}</span>
            <b class="number">{{ group.members.length }}</b>
          </button>
          <button
            class="eye"
            :aria-label="`Pins of ${group.name}`"
            :aria-pressed="!isHidden(group)"
            :title="isHidden(group) ? 'Show their pins' : 'Hide their pins'"
            @click="hide(group)"
          >
            <EyeOff v-if="isHidden(group)" :size="16" /><Eye v-else :size="16" />
          </button>
        </div>
        <div v-if="group.members.length > 1 && allWays(group).length > 0" class="fixes all">
          <button
            v-for="kind in allWays(group)"
            :key="kind"
            class="button small"
            @click="mendAll(group, kind)"
          >
            {{ WORD[kind] }}: all {{ group.members.length }}
          </button>
        </div>
        <ol v-if="isOpen(group)" class="list">
          <li
            v-for="{ n, finding: f } in shownOf(group)"
            :key="f.key ?? n"
            :data-key="f.key ?? `${f.code} ${n}`"
            :class="[f.severity, { now: art.finding !== undefined && art.finding === f.key }]"
          >
            <button class="what" @click="art.finding = f.key">
              <span class="pin number" :class="f.severity">{{ n }}</span>
              <span>{{ f.message }}</span>
            </button>
            <div v-if="f.fixes?.length" class="fixes">
              <button
                v-for="way in ways(f)"
                :key="way[0].kind"
                class="button small"
                @mouseenter="art.lookAt(way)"
                @focus="art.lookAt(way)"
                @mouseleave="art.lookAt(undefined)"
                @blur="art.lookAt(undefined)"
                @click="art.mend(way)"
              >
                {{ WORD[way[0].kind] }}
              </button>
            </div>
            <p v-else-if="f.waysOut" class="hint">{{ f.waysOut.join(' · ') }}</p>
            <template v-if="f.key && f.severity !== 'stop'">
              <form v-if="reason?.key === f.key" class="reason" @submit.prevent="leave">
                <input
                  v-model="reason.text"
                  aria-label="Why it stays"
                  placeholder="Why it stays"
                  maxlength="300"
                />
                <button class="button small" :disabled="!reason.text.trim()">Leave it</button>
              </form>
              <button v-else class="link" @click="reason = { key: f.key!, text: '' }">
                Leave it as it is …
              </button>
            </template>
          </li>
        </ol>
        <button
          v-if="isOpen(group) && group.members.length > shownOf(group).length"
          class="link more"
          @click="whole.add(group.code)"
        >
          Show all {{ group.members.length }}
        </button>
      </section>
    </div>
    <div v-if="left.length" class="left">
      <p v-for="f in left" :key="f.key" class="hint">
        {{ f.message }} Left: <b>{{ f.ignored }}</b>
        <button class="link" @click="art.takeUp(f.key!)">Take it up again</button>
      </p>
    </div>
    <p v-if="art.open.length" class="hint"><kbd>P</kbd> goes to the next one.</p>
  </FoldOut>
</template>

<style scoped>
.kinds {
  display: grid;
  gap: 8px;
}
.kind {
  display: grid;
  gap: 6px;
}
.head {
  display: flex;
  gap: 4px;
}
.turner {
  display: flex;
  flex: 1;
  gap: 7px;
  align-items: center;
  min-height: 30px;
  padding: 0 4px 0 0;
  font-size: 14px;
  font-weight: 620;
  text-align: left;
  background: none;
  border: 0;
}
.turner b {
  margin-left: auto;
}
.arrow.shown {
  transform: rotate(90deg);
}
.dot {
  flex: none;
  width: 10px;
  height: 10px;
  background: var(--bilberry);
  border-radius: 50%;
}
.dot.check {
  background: var(--quince);
}
.dot.stop {
  background: var(--currant);
}
.eye {
  display: grid;
  place-items: center;
  width: 30px;
  height: 30px;
  background: none;
  border: 0;
  border-radius: var(--radius-field);
}
.fixes.all {
  padding-left: 22px;
}
.more {
  justify-self: start;
  margin-left: 22px;
  min-height: 24px;
}
.list {
  display: grid;
  gap: 7px;
  margin: 0;
  padding: 0;
  list-style: none;
}
li {
  display: grid;
  gap: 5px;
  padding: 6px 8px;
  background: var(--card);
  border-left: 3px solid var(--bilberry);
}
li.check {
  border-color: var(--quince);
}
li.stop {
  border-color: var(--currant);
}
li.now {
  outline: 2px solid var(--damson);
}
.what {
  display: flex;
  gap: 8px;
  padding: 0;
  font-size: 13.5px;
  line-height: 1.35;
  text-align: left;
  background: none;
  border: 0;
}
.pin {
  display: grid;
  flex: none;
  place-items: center;
  width: 20px;
  height: 20px;
  font-size: 11.5px;
  font-weight: 700;
  color: #fff;
  background: var(--bilberry);
  border-radius: 50%;
}
.pin.check {
  background: var(--quince-text);
}
.pin.stop {
  background: var(--currant);
}
.fixes {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
  padding-left: 28px;
}
li .hint,
.reason,
li > .link {
  margin-left: 28px !important;
}
.link {
  justify-self: start;
  font-size: 13px;
}
.reason {
  display: flex;
  gap: 5px;
}
.reason input {
  flex: 1;
  min-width: 0;
  min-height: 28px;
  padding: 0 7px;
  font-size: 13.5px;
  border: 1px solid var(--rule);
  border-radius: var(--radius-field);
}
.left p {
  margin: 0 0 4px;
}
kbd {
  padding: 0 5px;
  font: 12px var(--numbers);
  border: 1px solid var(--rule);
  border-radius: 4px;
}
</style>
