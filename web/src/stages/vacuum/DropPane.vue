<script setup lang="ts">
import { writeCsv } from '@wick/plan/files/csv';
import { WATER_RISE } from '@wick/plan/vacuum/corrected';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import CurveChart from '../../ui/curve/CurveChart.vue';
import { saveFile } from '../../ui/save-file.ts';
import { useBench } from './bench.ts';
import { dropCurves } from './drop-curves.ts';
import GaugeReading from './GaugeReading.vue';
import MouldLeak from './MouldLeak.vue';
import TestSteps from './TestSteps.vue';
import TypedReading from './TypedReading.vue';
import { usePressure } from './use-pressure.ts';
import { useTicking } from '../../ui/use-ticking.ts';
import { useView } from './use-view.ts';

/** The reading, the valve, and the curve with what is leak and what is moisture drawn apart. */
const bench = useBench();
const run = useRun();
const job = useSession();
const shop = useShopStore();
const pressure = usePressure();
const now = useTicking(run.now);

/** The stretch from the shutting on; before there is one, from the pull on. */
const view = useView(
  computed(() => bench.test?.from ?? run.state.pulls.at(-1) ?? null),
  computed(() => bench.test?.to ?? now.value),
);
const curves = computed(() =>
  bench.corrected && bench.test
    ? dropCurves(bench.corrected.readings, bench.drop, bench.test.from, pressure.shown)
    : [],
);
const isOpen = computed(() => run.state.valve === 'none' || run.state.valve === 'letGo');
const isPulling = computed(() => run.state.valve === 'pull');
/** Less than this is lost in what a thermometer shows, K. */
const SEEN = 0.2;
const warmed = computed(() => {
  const by = bench.corrected?.warmed ?? 0;
  return Math.abs(by) > SEEN ? by : null;
});

/** As it was judged: weather and warmth taken out, SI. */
function save() {
  if (!bench.corrected) return;
  const { times, pressures } = bench.corrected.readings;
  const rows = Array.from(times, (time, n) => [time, pressures[n]!]);
  const text = writeCsv([['s since shut', 'Pa absolute'], ...rows]);
  saveFile(`${job.laid.name} drop test.csv`, new Blob([text], { type: 'text/csv' }));
}
/** What a test came to is written down before the valve is turned. */
async function turn(kind: 'pull' | 'letGo') {
  if (run.state.valve === 'shut' && bench.drop && !bench.test?.judged) await bench.writeVerdict();
  await run.say({ kind });
}
async function shut() {
  bench.chosenId = null;
  await run.say({ kind: 'shut' });
}
</script>

<template>
  <GaugeReading>
    <div class="turns">
      <Button :type="isOpen ? 'primary' : 'default'" @click="turn('pull')">
        {{ run.state.pulls.length > 0 ? 'Pull again' : 'Pull' }}
      </Button>
      <Button :type="isPulling ? 'primary' : 'default'" :disabled="!isPulling" @click="shut">
        Shut the valve
      </Button>
      <Button :disabled="!bench.drop || Boolean(bench.test?.judged)" @click="bench.writeVerdict()">
        Write it down
      </Button>
      <Button :disabled="isOpen" @click="turn('letGo')">Let go</Button>
    </div>
  </GaugeReading>
  <TestSteps :now="now" />
  <MouldLeak />
  <p v-if="!bench.gauge" class="empty">
    No gauge hangs on the bag. <RouterLink :to="{ query: { pane: 'gauges' } }">Hang one on it</RouterLink>: a
    device that posts, or one that you read by eye. Or rehearse with a simulated bag and its gauges first.
  </p>
  <CurveChart
    v-else-if="bench.test"
    :curves="curves"
    :lines="[pressure.best]"
    :marks="[{ at: bench.test.from, label: 'shut' }]"
    :from="view.from"
    :to="view.to"
    :origin="bench.test.from"
    :unit="pressure.unit"
    label="Pressure in the shut bag"
    @look="view.look"
    @follow="view.follow"
  />
  <p v-else class="empty">
    {{
      isPulling
        ? 'Shut the valve when the reading stands still: the test begins.'
        : 'Pull the bag down, let it stand at its best, then shut the valve: the test begins.'
    }}
  </p>
  <div class="tools foot">
    <template v-if="bench.test">
      <Button size="small" :disabled="view.isFollowing" @click="view.follow">Whole test</Button>
      <Button size="small" @click="save">Save it as CSV</Button>
    </template>
    <TypedReading v-if="bench.gauge?.instrument.kind === 'hand'" :hung="bench.gauge" />
    <span v-if="bench.corrected?.weather" class="quiet">
      The weather moved by {{ shop.show(bench.corrected.weather, 'absolutePressure') }} meanwhile; taken out.
    </span>
    <span v-if="warmed !== null" class="quiet">
      It got {{ warmed > 0 ? 'warmer' : 'colder' }} by
      {{ shop.show(Math.abs(warmed), 'temperatureDifference') }}: the gas’s share is taken out; wet plies
      would add {{ shop.show(WATER_RISE * Math.abs(warmed), 'absolutePressure') }}.
    </span>
  </div>
</template>

<style scoped>
.turns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.empty {
  max-width: 520px;
  font-size: 16px;
  margin: 40px 0;
}
.foot {
  margin-top: 4px;
}
</style>
