<script setup lang="ts">
/** The check-over: everything that would spoil film, with its way to mend it. */
import { computed, nextTick, ref, watch } from 'vue';
import type { Finding, Fix, FixKind } from '../../../../core/findings/finding';
import FoldOut from '../../../parts/FoldOut.vue';
import { useArtwork } from '../../../stores/artwork';

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
  print: 'Send to print',
};
const open = computed(() => art.findings.filter((f) => f.ignored === undefined));
const left = computed(() => art.findings.filter((f) => f.ignored !== undefined));
const says = computed(() => {
  const n = open.value.length;
  return n === 0 ? 'nothing found' : `${n} found`;
});
const sameKind = (finding: Finding): readonly Finding[] =>
  open.value.filter((f) => f.code === finding.code && f.fixes);

function mendAll(finding: Finding, index: number): void {
  const kind = finding.fixes![index].kind;
  art.mend(
    sameKind(finding).flatMap((f) =>
      f.fixes!.filter((fix: Fix) => fix.kind === kind || f.fixes!.length === 1),
    ),
  );
}
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
    await nextTick();
    list.value?.querySelector(`[data-key="${CSS.escape(key ?? '')}"]`)?.scrollIntoView({ block: 'nearest' });
  },
);
</script>

<template>
  <FoldOut title="Check-over" name="check" open :says="says">
    <p v-if="open.length === 0" class="hint">
      Outlines close, nothing is cut twice, nothing is too thin to weed.
    </p>
    <ol v-else ref="list" class="list">
      <li
        v-for="(f, i) in open"
        :key="f.key ?? i"
        :data-key="f.key ?? `${f.code} ${i}`"
        :class="[f.severity, { now: art.finding !== undefined && art.finding === f.key }]"
      >
        <button class="what" @click="art.finding = f.key">
          <span class="pin number" :class="f.severity">{{ i + 1 }}</span>
          <span>{{ f.message }}</span>
        </button>
        <div v-if="f.fixes?.length" class="fixes">
          <template v-for="(way, w) in ways(f)" :key="way[0].kind">
            <button
              class="button small"
              @mouseenter="art.lookAt(way)"
              @focus="art.lookAt(way)"
              @mouseleave="art.lookAt(undefined)"
              @blur="art.lookAt(undefined)"
              @click="art.mend(way)"
            >
              {{ WORD[way[0].kind] }}
            </button>
            <button v-if="sameKind(f).length > 1" class="button small plain" @click="mendAll(f, w)">
              all {{ sameKind(f).length }}
            </button>
          </template>
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
          <button v-else class="link" @click="reason = { key: f.key!, text: '' }">Leave it as it is …</button>
        </template>
      </li>
    </ol>
    <div v-if="left.length" class="left">
      <p v-for="f in left" :key="f.key" class="hint">
        {{ f.message }} Left: <b>{{ f.ignored }}</b>
        <button class="link" @click="art.takeUp(f.key!)">Take it up again</button>
      </p>
    </div>
    <p v-if="open.length" class="hint"><kbd>P</kbd> goes to the next one.</p>
  </FoldOut>
</template>

<style scoped>
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
.plain {
  border-color: var(--rule);
  font-weight: 500;
}
li .hint,
.reason,
li > .link {
  margin-left: 28px !important;
}
.link {
  justify-self: start;
  padding: 0;
  font-size: 13px;
  color: var(--damson);
  text-decoration: underline;
  background: none;
  border: 0;
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
