<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { partsText } from '@wick/plan/resin/ratio';
import { weighed } from '@wick/plan/resin/sheet';
import { computed } from 'vue';
import { useCard, useForecast, useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useAwake } from '../../ui/use-awake.ts';
import HoldPanel from '../common/HoldPanel.vue';
import RunBar from '../common/RunBar.vue';
import { provideBench } from './bench.ts';
import MixAfter from './MixAfter.vue';
import MixBegin from './MixBegin.vue';
import MixHand from './MixHand.vue';
import MixLog from './MixLog.vue';
import MixPour from './MixPour.vue';
import { provideMix } from './use-mix.ts';

/** Mixing by the sheet, tablet propped up and gloves on: one thing at a time, large. */
const job = useSession();
const run = useRun();
const shop = useShopStore();
const forecast = useForecast();
const work = useCard();
const bench = provideBench();
useAwake();
/** Nothing is mixed for a bag that has not been shown to hold, unless somebody says so by name. */
const hold = computed(() => work.heldBy('mix'));
const mix = provideMix(bench);
const show = (mass: number) => weighed(mass, shop.shop, mix.step);
const steps = computed(() => {
  const { state, mix: open } = mix;
  const at = !open
    ? 0
    : state?.at === 'tare'
      ? 1
      : state?.at === 'mixed'
        ? 4
        : open.poured.resin === 0
          ? 2
          : 3;
  return ['Containers', 'Zero', 'Resin', 'Hardener', 'Stir'].map((name, n) => ({
    name,
    state: n < at ? 'done' : n === at ? 'now' : 'later',
  }));
});
</script>

<template>
  <div class="screen" data-testid="mix">
    <header>
      <RouterLink
        class="back"
        :to="`/jobs/${job.id}/resin?pane=sheet${mix.number > 1 ? `&batch=${mix.number}` : ''}`"
        >Back to the sheet</RouterLink
      >
      <h1>{{ job.laid.name }}: batch {{ mix.number }} of {{ bench.batches.length }}</h1>
      <p v-if="mix.age !== null" class="clock" data-testid="mix-clock">
        <span class="quiet">since first drop</span> <b class="number">{{ formatClock(mix.age) }}</b>
      </p>
    </header>
    <RunBar />
    <ol class="steps" aria-label="Where this batch stands">
      <li v-for="step in steps" :key="step.name" :class="step.state">{{ step.name }}</li>
    </ol>
    <main>
      <p v-if="!mix.sheet" class="quiet">{{ forecast.message ?? 'Working out this batch …' }}</p>
      <p v-else-if="!mix.mix && !work.progress" class="quiet">
        {{ work.message ?? 'Looking whether anything holds it up …' }}
      </p>
      <HoldPanel v-else-if="!mix.mix && hold" :key="hold.id" :hold="hold" />
      <MixBegin v-else-if="!mix.mix" />
      <MixAfter v-else-if="mix.state?.at === 'mixed'" />
      <MixPour v-else />
    </main>
    <aside v-if="mix.sheet" class="side">
      <p>
        <span class="quiet">by weight</span>
        <b class="number">100 : {{ partsText(mix.sheet.parts) }}</b>
      </p>
      <p>
        <span class="quiet">this batch</span> <b class="number">{{ show(mix.sheet.batch.mass) }}</b>
      </p>
      <MixLog v-if="mix.mix" />
    </aside>
    <MixHand v-if="run.rehearsalId && !run.run?.endedAt" />
  </div>
</template>

<style scoped>
.screen {
  display: grid;
  grid-template: auto auto auto minmax(0, 1fr) auto / minmax(0, 1fr) 300px;
  gap: 6px 24px;
  height: 100%;
  padding: 12px 24px;
  font-size: 17px;
  overflow: auto;
}
header,
.screen > :deep(.bar),
.steps {
  grid-column: 1 / -1;
}
header {
  display: flex;
  gap: 24px;
  align-items: center;
}
.back {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
}
h1 {
  flex: 1;
}
.clock {
  margin: 0;
}
.clock .number {
  font-size: 36px;
}
.steps {
  display: grid;
  grid-template-columns: repeat(5, 1fr);
  gap: 6px;
  list-style: none;
  margin: 0;
  padding: 0;
  font: 500 16px var(--display);
}
.steps li {
  border-top: 5px solid var(--rule);
  padding-top: 3px;
  color: var(--quiet);
}
.steps .done {
  border-color: var(--moss);
}
.steps .now {
  border-color: var(--resin);
  color: var(--ink);
  font-weight: 600;
}
.side {
  border-left: 1px solid var(--rule);
  padding-left: 20px;
}
.side p {
  margin: 0 0 4px;
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
.side .number {
  font-size: 22px;
}
.screen :deep(button.ant-btn) {
  min-height: 48px;
  font-size: 17px;
  white-space: normal;
  height: auto;
}
.screen :deep(select),
.screen :deep(input) {
  min-height: 44px;
  font-size: 17px;
}
@media (max-width: 760px) {
  .screen {
    grid-template-columns: minmax(0, 1fr);
  }
  .side {
    border: 0;
    padding: 0;
  }
}
</style>
