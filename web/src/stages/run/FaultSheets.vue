<script setup lang="ts">
import { faultClock, faultSheets, sheetOf } from '@wick/plan/infusion/day-faults';
import type { DayFault } from '@wick/contract/run/infusion-bodies';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useLive } from './live.ts';

/** What to do when something goes wrong, in order, one tap away; what was done is written down. */
const run = useRun();
const live = useLive();
const open = ref<DayFault | null>(null);
const sheet = computed(() => open.value && sheetOf(open.value));
/** How long there is for it. */
const clock = computed(() => open.value && faultClock(open.value, live));
/** What the run looks like having stands first. */
const ordered = computed(() => [
  ...live.faults.map(sheetOf),
  ...faultSheets.filter(({ fault }) => !live.faults.includes(fault)),
]);
async function did(step: number) {
  if (!sheet.value) return;
  const { fault, steps, mends } = sheet.value;
  await run.say({ kind: 'fault', fault, did: steps[step]!, mends: mends === step });
}
</script>

<template>
  <section aria-label="Faults on the day">
    <div v-if="!sheet" class="names">
      <Button
        v-for="one in ordered"
        :key="one.fault"
        :danger="live.faults.includes(one.fault)"
        @click="open = one.fault"
        >{{ one.name }}</Button
      >
    </div>
    <div v-else class="sheet" data-testid="fault-sheet">
      <h3>{{ sheet.name }}</h3>
      <p v-if="clock" class="clock number" data-testid="fault-clock">{{ clock }}</p>
      <p>{{ sheet.tells }}</p>
      <ol>
        <li v-for="(step, n) in sheet.steps" :key="step">
          <span>{{ step }}</span>
          <Button :disabled="!run.run" @click="did(n)">Did it</Button>
        </li>
      </ol>
      <p v-if="sheet.caution" class="ember">{{ sheet.caution }}</p>
      <Button @click="open = null">Back</Button>
    </div>
  </section>
</template>

<style scoped>
.names {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.clock {
  font: 600 22px var(--display);
}
.sheet {
  background: var(--sheet);
  border-left: 6px solid var(--ember);
  padding: 10px 16px;
}
h3 {
  font-size: 22px;
  margin: 0;
}
p {
  margin: 2px 0 6px;
}
ol {
  margin: 0 0 8px;
  padding-left: 22px;
}
li {
  min-height: 48px;
}
li span {
  display: inline-block;
  width: calc(100% - 100px);
  vertical-align: middle;
}
</style>
