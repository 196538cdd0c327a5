<script setup lang="ts">
/** The numbers of the cut that is on the machine, and how well the one before it came out. */
import type { Cut } from '../../../contracts/cuts';
import type { Cutter } from '../../../core/layout/cutter';
import { useUnits } from '../../stores/units';
import OnlyFor from '../../parts/OnlyFor.vue';
import AsCutNote from '../../parts/AsCutNote.vue';
import CutActs from '../../parts/CutActs.vue';
import type { Head } from './drawCut';
import CutSettings from './CutSettings.vue';
import NudgesAsked from './NudgesAsked.vue';
import HowItWas from './HowItWas.vue';
import SheetFit from './SheetFit.vue';

defineProps<{
  /** Its record, once it is known. */
  cutter?: Cutter;
  cut?: Cut;
  justDone?: Cut;
  /** The last of the same film here, if that was nudged. */
  nudgedBefore?: Cut;
  share: number;
  head?: Head;
}>();
defineEmits<{ answered: [cut: Cut] }>();
const units = useUnits();
</script>

<template>
  <aside aria-label="This cut">
    <template v-if="cut">
      <SheetFit v-if="cut.reading?.fit" :reading="cut.reading" />
      <h3>
        Cut <span class="number">{{ cut.id }}</span>
      </h3>
      <CutSettings :key="cut.id" :cut="cut" :cutter="cutter" :before="nudgedBefore" />
      <dl>
        <dt>Blade</dt>
        <dd class="number">{{ cut.recipe.blade }}</dd>
        <dt>Blade offset</dt>
        <dd class="number">{{ cut.recipe.bladeOffset.toFixed(2) }} mm</dd>
        <dt>Overcut</dt>
        <dd class="number">{{ cut.recipe.overcut.toFixed(1) }} mm</dd>
      </dl>
      <h3>On the film</h3>
      <dl>
        <dt>{{ cut.sheet ? 'Sheet' : 'Roll' }}</dt>
        <dd class="number">
          {{
            cut.sheet
              ? `${units.number(cut.sheet.width)} × ${units.length(cut.sheet.height)}`
              : units.length(cut.rollWidth)
          }}
        </dd>
        <dt>Knife reaches</dt>
        <dd class="number">{{ units.length(cut.cuttable) }}</dd>
        <dt>Copies</dt>
        <dd class="number">{{ cut.copies }}</dd>
        <dt>Cut so far</dt>
        <dd class="number">{{ ((cut.cutLength * share) / 1000).toFixed(2) }} m</dd>
        <dt>To go</dt>
        <dd class="number">{{ ((cut.cutLength * (1 - share)) / 1000).toFixed(2) }} m</dd>
        <dt>Head</dt>
        <dd class="number">
          {{ head ? `${units.number(head.x)}, ${units.number(head.y)}` : 'not moving' }}
        </dd>
      </dl>
    </template>
    <template v-if="justDone">
      <h3>{{ justDone.sheet ? `Sheet ${justDone.sheet.number}` : justDone.film.name }} is done</h3>
      <SheetFit v-if="!cut?.reading && justDone.reading?.fit" :reading="justDone.reading" />
      <p>
        It took <b class="number">{{ units.run(justDone.length) }}</b> of film.
      </p>
      <p v-if="justDone.deviation !== null">
        The blade kept within <b class="number">{{ justDone.deviation.toFixed(3) }} mm</b> of the design.
      </p>
      <AsCutNote v-if="justDone.asCut" :said="justDone.asCut" />
      <template v-if="justDone.offcuts.length > 0">
        <p>Write on what is left:</p>
        <p v-for="rest in justDone.offcuts" :key="rest.offcut" class="rest">
          <b>{{ rest.offcut }}</b>
          <span class="number">{{ units.number(rest.width) }} × {{ units.length(rest.lengthLeft) }}</span>
        </p>
      </template>
      <NudgesAsked :cut="justDone" @answered="$emit('answered', $event)" />
      <CutActs :key="justDone.id" :cut="justDone.id" />
      <OnlyFor role="operator">
        <HowItWas :key="justDone.id" :cut="justDone" />
      </OnlyFor>
      <router-link :to="{ name: 'order', params: { id: justDone.orderId } }">See it as cut</router-link>
    </template>
  </aside>
</template>

<style scoped>
aside {
  display: flex;
  flex-direction: column;
  gap: 10px;
  min-height: 0;
  padding: 14px 16px;
  overflow-y: auto;
}
.rest {
  display: flex;
  gap: 12px;
  align-items: baseline;
  font-size: 17px;
}
h3 {
  font-size: 17px;
  margin-top: 4px;
}
p {
  margin: 0;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 7px 10px;
  margin: 0 0 12px;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
  font-weight: 700;
  text-align: right;
}
a {
  color: var(--damson);
}
@media (orientation: portrait) and (max-width: 1000px) {
  dl {
    font-size: 17px;
  }
}
</style>
