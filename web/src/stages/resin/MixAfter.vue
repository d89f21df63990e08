<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { weighed } from '@wick/plan/resin/sheet';
import { settledIn } from '@wick/plan/settle';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useMix } from './use-mix.ts';
import { useBench } from './bench.ts';

/** Weighed: stir by the clock, scrape, a second bucket, degas, into the pot. */
const mix = useMix();
const run = useRun();
const job = useSession();
const shop = useShopStore();
const bench = useBench();
const show = (mass: number) => weighed(mass, shop.shop, mix.step);
const reading = computed(() => (mix.state?.at === 'mixed' ? mix.state.reading : null));
const off = computed(() => {
  const share = reading.value?.off ?? 0;
  return Math.abs(share) < 0.0005
    ? 'on its ratio'
    : `${(100 * Math.abs(share)).toFixed(1)} % hardener ${share > 0 ? 'over' : 'under'}: good`;
});
const all = computed(() => {
  const degas = settledIn(job.laid, 'resin.degasDuration');
  const stir = settledIn(job.laid, 'resin.mixDuration');
  return [
    {
      step: 'stirred' as const,
      words: `Stir ${shop.show(stir, 'duration')}, scrape wall and bottom twice`,
      until: stir,
    },
    {
      step: 'secondBucket' as const,
      words: 'Pour over into a clean bucket, do not scrape, stir again',
      until: null,
    },
    ...(degas > 0
      ? [
          {
            step: 'degassed' as const,
            words: `Degas ${shop.show(degas, 'duration')}; no glass under vacuum`,
            until: stir + degas,
          },
        ]
      : []),
    { step: 'inPot' as const, words: `Into ${mix.potName}: slowly, the hose’s end covered`, until: null },
  ];
});
const steps = computed(() => {
  const done = mix.mix!.steps;
  const current = all.value.find(({ step }) => !done.has(step));
  return all.value.map((one) => ({ ...one, isDone: done.has(one.step), isNow: one === current }));
});
const left = (until: number | null) =>
  until === null || mix.age === null ? null : Math.max(0, until - mix.age);
const say = (step: (typeof all.value)[number]['step']) =>
  run.say({ kind: 'mixStep', mixId: mix.mix!.id, step });
const isDone = computed(() => steps.value.every((one) => one.isDone));
const hasNext = computed(() => mix.number < bench.batches.length);
</script>

<template>
  <section aria-label="Stir and pour">
    <p class="what moss" data-testid="mixed">{{ show(reading!.total) }} mixed, {{ off }}</p>
    <ol>
      <li v-for="one in steps" :key="one.step" :class="{ now: one.isNow, done: one.isDone }">
        <span>{{ one.words }}</span>
        <b v-if="one.isNow && left(one.until) !== null" class="number">{{ formatClock(left(one.until)!) }}</b>
        <span v-if="one.isDone" class="moss">done</span>
        <Button v-else :type="one.isNow ? 'primary' : 'default'" @click="say(one.step)">Done</Button>
      </li>
    </ol>
    <p class="ember">
      What is left in the bucket heats itself and can smoke: spread it out, or set it outside on stone.
    </p>
    <Button v-if="isDone && hasNext" type="primary" size="large" @click="mix.look(mix.number + 1)">
      On to batch {{ mix.number + 1 }}
    </Button>
  </section>
</template>

<style scoped>
.what {
  font: 600 30px/1.2 var(--display);
  margin: 12px 0;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0 0 10px;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 110px;
  gap: 16px;
  align-items: center;
  padding: 6px 0;
  border-bottom: 1px solid var(--rule);
  color: var(--quiet);
}
li.now {
  color: var(--ink);
  font-weight: 600;
}
li .number {
  font-size: 30px;
}
</style>
