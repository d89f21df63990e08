<script setup lang="ts">
import { withVacuum } from '@wick/plan/job/edits';
import {
  causeWords,
  dropSentence,
  dropTones,
  leakWords,
  rangeWords,
  shareWords,
  twoTestWords,
  waitWords,
} from '@wick/plan/vacuum/words';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { useBench } from './bench.ts';
import StrikeButton from './StrikeButton.vue';

/** Whether the bag is tight enough for this part, how sure that is, and what it rests on. */
const bench = useBench();
const job = useSession();
const run = useRun();
const shop = useShopStore();

const budget = computed(() => bench.budget.value);
const reading = computed(() => (budget.value ? bench.drop : null));
const headline = computed(() => {
  if (reading.value && budget.value) return dropSentence(reading.value, budget.value);
  if (bench.test && bench.gauge) return 'Reading. Half a minute and three readings are the least.';
  if (bench.test?.judged)
    return { passes: 'It was tight.', leaks: 'It leaked.', cannotTell: 'The test could not tell.' }[
      bench.test.judged.verdict
    ];
  return 'Not tested yet.';
});
/** Before moisture has told its tale the leak's share is a guess. */
const isTold = computed(() => {
  const judgement = reading.value?.judgement;
  return judgement !== undefined && (judgement.verdict !== 'cannotTell' || judgement.isSettled);
});
const tone = computed(() => {
  const verdict = reading.value?.judgement.verdict ?? (bench.gauge ? undefined : bench.test?.judged?.verdict);
  return verdict ? dropTones[verdict] : 'quiet';
});
const classes = [
  { value: 'yes', label: 'carries load' },
  { value: 'no', label: 'does not' },
];
const timeWords = {
  fill: 'its forecast fill',
  gel: 'the time to gel',
  none: 'an hour, for there is no forecast',
};
const tests = computed(() =>
  bench.tests.map((test, n) => ({
    ...test,
    number: n + 1,
    at: new Date(test.from).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' }),
    lasted: test.to === null ? 'shut now' : waitWords((test.to - test.from) / 1000),
    words: { passes: 'passes', leaks: 'leaks', cannotTell: 'cannot tell' },
  })),
);
/** Pressure at the vents as it was measured at its best, with half of what it is in doubt by. */
const measured = computed(() => {
  if (!reading.value || !bench.gauge) return null;
  const { resolution, noise } = bench.gauge.instrument;
  return { pressure: Math.max(0, reading.value.rise.start), spread: Math.hypot(resolution / 2, 2 * noise) };
});
const isTaken = computed(
  () =>
    measured.value !== null && Math.abs((job.laid.vacuum.ventPressure ?? -1) - measured.value.pressure) < 1,
);
function takeOver() {
  if (!measured.value) return;
  const { pressure, spread } = measured.value;
  job.apply(
    withVacuum({ ventPressure: Math.round(pressure), ventSpread: Math.round(spread) }),
    'vacuum as measured',
  );
}
</script>

<template>
  <section aria-label="Verdict of the drop test" aria-live="polite">
    <h2 :class="tone" data-testid="drop-verdict">{{ headline }}</h2>
    <p
      v-if="bench.dropMessage ?? bench.computedVolume.message ?? bench.budget.message"
      class="ember"
      role="alert"
    >
      {{ bench.dropMessage ?? bench.computedVolume.message ?? bench.budget.message }}
    </p>
    <template v-if="reading && budget">
      <p>{{ causeWords(reading) }}</p>
      <p v-if="bench.twoTests">{{ twoTestWords(bench.twoTests) }}</p>
      <div class="row">
        <span>Leak</span>
        <span class="number">{{ isTold ? rangeWords(reading.throughput, leakWords) : 'not told yet' }}</span>
      </div>
      <div class="row">
        <span>This part takes</span><span class="number">{{ leakWords(reading.throughputLimit) }}</span>
      </div>
      <div class="row">
        <span>Voids by it</span>
        <span class="number">
          <template v-if="isTold">{{ rangeWords(reading.voids, shareWords) }}, </template
          >{{ shareWords(budget.voidLimit) }} taken
        </span>
      </div>
      <div class="row">
        <span>Shut for</span><span class="number">{{ waitWords(reading.duration) }}</span>
      </div>
      <p v-if="measured && !isTaken">
        <Button size="small" class="wrapping" @click="takeOver">
          Take {{ shop.show(measured.pressure, 'absolutePressure') }} ±
          {{ shop.show(measured.spread, 'absolutePressure') }}
          into the forecast
        </Button>
      </p>
      <p v-else-if="measured" class="quiet">The forecast runs on the vacuum that was measured here.</p>
    </template>
    <h3>It rests on</h3>
    <label class="row">
      <span>The part</span>
      <Choice
        class="class"
        size="small"
        aria-label="What the part is for"
        :value="(job.laid.vacuum.isStructural ?? true) ? 'yes' : 'no'"
        :options="classes"
        @change="job.apply(withVacuum({ isStructural: $event === 'yes' }), 'what the part is for')"
      />
    </label>
    <div v-if="budget" class="row">
      <span>Air is let in for</span>
      <span class="number">{{ waitWords(budget.fillTime) }}, {{ timeWords[budget.timeFrom] }}</span>
    </div>
    <div v-if="bench.freeVolume !== null" class="row">
      <span>Free volume{{ bench.measuredVolume?.value ? ', measured' : '' }}</span>
      <span class="number">{{ shop.show(bench.freeVolume, 'volume') }}</span>
    </div>
    <div class="row">
      <span>Half of the air stays in wet laminate</span><span class="number">common practice</span>
    </div>
    <template v-if="tests.length > 0">
      <h3>Tests of this part</h3>
      <div v-for="test in tests" :key="test.id" class="row">
        <button
          :class="['plain', 'link', { here: test.id === bench.test?.id }]"
          @click="bench.chosenId = test.id"
        >
          {{ test.number }}. at {{ test.at }}
        </button>
        <span class="number">
          {{ test.lasted }}<template v-if="test.judged">, {{ test.words[test.judged.verdict] }}</template>
          <StrikeButton v-if="test.to !== null" :entry-id="test.id" :what="`test ${test.number}`" />
        </span>
      </div>
    </template>
    <p v-if="run.run && bench.tests.length === 0" class="quiet">
      A test of two minutes says nothing of a large part; 15 to 20 min are usual, an hour for large or
      complicated ones.
    </p>
  </section>
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
  margin-bottom: 8px;
}
h2.resin {
  color: var(--resin-ink);
}
p {
  margin: 6px 0;
}
.class {
  width: 130px;
}
.wrapping {
  height: auto;
  white-space: normal;
  text-align: left;
}
.link.here {
  font-weight: 600;
}
</style>
