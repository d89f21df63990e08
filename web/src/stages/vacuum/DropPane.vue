<script setup lang="ts">
import { formatQuantity, toUnit } from '@wick/core/units/format';
import { partsAfter } from '@wick/core/vacuum/drop-test';
import { writeCsv } from '@wick/plan/files/csv';
import { gaugeSanity, gaugesDisagree } from '@wick/plan/vacuum/reach';
import { waitWords } from '@wick/plan/vacuum/words';
import { Button } from 'ant-design-vue';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import CurveChart, { type ChartCurve, type ChartLine } from '../../ui/curve/CurveChart.vue';
import { saveFile } from '../../ui/save-file.ts';
import { useBench } from './bench.ts';
import { useView } from './use-view.ts';
import { useTicking } from './use-ticking.ts';
import TypedReading from './TypedReading.vue';

/** The reading, its curve with what is leak and what is moisture drawn apart, and the steps of the test. */
const bench = useBench();
const run = useRun();
const job = useSession();
const shop = useShopStore();
const now = useTicking(run.now);

const unit = computed(() => shop.unit('absolutePressure'));
const shown = (pressure: number) => toUnit(pressure, 'absolutePressure', unit.value);
const number = computed(() => (bench.pressure === null ? null : shown(bench.pressure)));
const reading = computed(() =>
  number.value === null ? '–' : number.value.toFixed(number.value < 20 ? 1 : number.value < 200 ? 1 : 0),
);
const others = computed(() =>
  bench.gauges.slice(1).map((one) => ({
    name: one.instrument.name,
    text: one.last ? formatQuantity(one.last.value, one.instrument.measures, one.instrument.unit) : '–',
  })),
);
const oddities = computed(() => {
  if (bench.pressure === null) return [];
  const own = gaugeSanity(bench.pressure, { ...bench.reach, ambient: bench.ambient }, shop.show);
  const relative = bench.gauges.find(({ instrument }) => instrument.measures === 'gaugePressure');
  const absolute = bench.gauges.find(({ instrument }) => instrument.measures === 'absolutePressure');
  const [a, b] = [absolute && bench.pressureOf(absolute), relative && bench.pressureOf(relative)];
  const step = relative?.instrument.resolution ?? 0;
  const apart = a && b && Math.abs(a - b) > 2 * step ? gaugesDisagree(a, b, bench.ambient, shop.show) : null;
  return [own, apart].filter((words) => words !== null);
});

/** The stretch from the shutting on; before there is one, from the pull on. */
const begin = computed(() => bench.test?.from ?? run.state.pulls.at(-1) ?? null);
const end = computed(() => bench.test?.to ?? now.value);
const view = useView(begin, end);

const curves = computed((): ChartCurve[] => {
  const { corrected, drop, test } = bench;
  if (!corrected || !test) return [];
  const { times, pressures } = corrected.readings;
  const ats = Array.from(times as ArrayLike<number>, (time) => test.from + time * 1000);
  const values = Array.from(pressures as ArrayLike<number>, shown);
  const measured: ChartCurve = { id: 'measured', kind: 'measured', label: 'measured', ats, values };
  if (!drop || times.length < 2) return [measured];
  const [first, last] = [times[0]!, times[times.length - 1]!];
  const fitted = Array.from({ length: 81 }, (_, n) => first + ((last - first) * n) / 80);
  const at = fitted.map((time) => test.from + time * 1000);
  const parts = fitted.map((time) => partsAfter(drop.rise, time));
  const { start } = drop.rise;
  return [
    measured,
    {
      id: 'sum',
      kind: 'sum',
      label: 'both together',
      ats: at,
      values: parts.map(({ leak, moisture }) => shown(start + leak + moisture)),
    },
    {
      id: 'leak',
      kind: 'leak',
      label: 'leak: goes on straight',
      ats: at,
      values: parts.map(({ leak }) => shown(start + leak)),
    },
    {
      id: 'moisture',
      kind: 'moisture',
      label: 'moisture: flattens',
      ats: at,
      values: parts.map(({ moisture }) => shown(start + moisture)),
    },
  ];
});
const lines = computed((): ChartLine[] => [
  { label: 'best reachable here', value: shown(bench.reach.best), tone: 'tide' },
]);
const elapsed = (since: number | null) =>
  since === null ? '' : waitWords(Math.max(0, (now.value - since) / 1000));
const { state } = run;

const steps = computed(() => {
  const { valve, valveSince } = run.state;
  const isShut = valve === 'shut';
  return [
    {
      id: 'pull',
      name: 'Pull',
      done: run.state.pulls.length > 0,
      here: valve === 'pull',
      note: valve === 'pull' ? `since ${elapsed(valveSince)}` : '',
    },
    {
      id: 'wait',
      name: 'Wait',
      done: isShut,
      here: valve === 'pull',
      note:
        valve === 'pull' && bench.pressure !== null
          ? `${shop.show(Math.max(0, bench.pressure - bench.reach.best), 'absolutePressure')} above the best`
          : '',
    },
    {
      id: 'shut',
      name: 'Shut',
      done: isShut,
      here: isShut,
      note: isShut ? `since ${elapsed(valveSince)}` : '',
    },
    {
      id: 'read',
      name: 'Read',
      done: bench.drop !== null,
      here: isShut,
      note: bench.drop ? `${bench.drop.count} readings` : '',
    },
    {
      id: 'judge',
      name: 'Judge',
      done: bench.test?.judged != null,
      here: false,
      note: bench.test?.judged ? 'written down' : '',
    },
  ];
});

/** As it was judged: weather and warmth taken out, SI. */
function save() {
  if (!bench.corrected) return;
  const { times, pressures } = bench.corrected.readings;
  const rows = Array.from(times as ArrayLike<number>, (time, n) => [time, pressures[n]!]);
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
  <div class="reading">
    <p class="number" data-testid="reading" aria-live="off">
      {{ reading }} <small>{{ unit }} absolute</small>
    </p>
    <div class="beside">
      <p>
        <span class="quiet">Best reachable here</span>
        <b class="figure">{{ shop.show(bench.reach.best, 'absolutePressure') }}</b>
        <span class="quiet">{{ shop.show(bench.reach.onGauge, 'gaugePressure') }} on a needle</span>
      </p>
      <p v-for="other in others" :key="other.name">
        <span class="quiet">{{ other.name }}</span> <b class="figure">{{ other.text }}</b>
      </p>
      <p v-if="bench.gauge" class="quiet">
        Read by {{ bench.gauge.instrument.name }}, steps of
        {{ shop.show(bench.gauge.instrument.resolution, 'absolutePressure') }}
      </p>
    </div>
    <div class="turns">
      <Button
        :type="state.valve === 'none' || state.valve === 'letGo' ? 'primary' : 'default'"
        @click="turn('pull')"
      >
        {{ state.pulls.length > 0 ? 'Pull again' : 'Pull' }}
      </Button>
      <Button
        :type="run.state.valve === 'pull' ? 'primary' : 'default'"
        :disabled="run.state.valve !== 'pull'"
        @click="shut"
        >Shut the valve</Button
      >
      <Button :disabled="!bench.drop || bench.test?.judged != null" @click="bench.writeVerdict()"
        >Write it down</Button
      >
      <Button :disabled="run.state.valve === 'none' || run.state.valve === 'letGo'" @click="turn('letGo')"
        >Let go</Button
      >
    </div>
  </div>
  <p v-for="words in oddities" :key="words" class="ember" role="alert">{{ words }}</p>
  <ol class="steps" aria-label="Steps of the test">
    <li v-for="step in steps" :key="step.id" :class="{ done: step.done, here: step.here }">
      <b>{{ step.name }}</b> <span class="quiet">{{ step.note }}</span>
    </li>
  </ol>
  <p v-if="!bench.gauge" class="empty">
    No gauge hangs on the bag. <RouterLink :to="{ query: { pane: 'gauges' } }">Hang one on it</RouterLink>: a
    device that posts, or one that you read by eye. Or rehearse with a simulated bag and its gauges first.
  </p>
  <CurveChart
    v-else-if="bench.test"
    :curves="curves"
    :lines="lines"
    :marks="[{ at: bench.test.from, label: 'shut' }]"
    :from="view.from"
    :to="view.to"
    :origin="bench.test.from"
    :unit="unit"
    label="Pressure in the shut bag"
    @look="view.look"
    @follow="view.follow"
  />
  <p v-else class="empty">
    {{
      run.state.valve === 'pull'
        ? 'Shut the valve when the reading stands still: the test begins.'
        : 'Pull the bag down, let it stand at its best, then shut the valve: the test begins.'
    }}
  </p>
  <div v-if="bench.test" class="tools foot">
    <Button size="small" :disabled="view.isFollowing" @click="view.follow">Whole test</Button>
    <Button size="small" @click="save">Save it as CSV</Button>
    <TypedReading v-if="bench.gauge?.instrument.kind === 'hand'" :hung="bench.gauge" />
    <span v-if="bench.corrected?.weather" class="quiet">
      The weather moved by {{ shop.show(bench.corrected.weather, 'absolutePressure') }} meanwhile; taken out.
    </span>
    <span v-if="bench.corrected?.warmed && Math.abs(bench.corrected.warmed) > 0.2" class="quiet">
      It got {{ bench.corrected.warmed > 0 ? 'warmer' : 'colder' }} by
      {{ shop.show(Math.abs(bench.corrected.warmed), 'temperatureDifference') }}: the gas’s share is taken
      out; wet plies would add {{ shop.show(165 * Math.abs(bench.corrected.warmed), 'absolutePressure') }}.
    </span>
  </div>
</template>

<style scoped>
.reading {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 8px 28px;
  align-items: start;
}
.number {
  font: 600 58px/1 var(--display);
  font-variant-numeric: tabular-nums;
  color: var(--tide);
  margin: 0;
  min-width: 250px;
}
.number small {
  font: 400 15px var(--text);
  color: var(--quiet);
}
.beside p {
  margin: 0 0 2px;
}
.figure {
  font: 600 16px var(--display);
  margin: 0 6px;
}
.turns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.steps {
  display: flex;
  gap: 0;
  list-style: none;
  margin: 10px 0 6px;
  padding: 0;
  counter-reset: step;
}
.steps li {
  flex: 1;
  border-top: 3px solid var(--rule);
  padding: 3px 8px 0 0;
  counter-increment: step;
  font-size: 13px;
}
.steps b::before {
  content: counter(step) ' ';
  font-weight: 400;
  color: var(--quiet);
}
.steps li.done {
  border-top-color: var(--moss);
}
.steps li.here {
  border-top-color: var(--tide);
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
