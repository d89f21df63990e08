<script setup lang="ts">
import { formatQuantity } from '@wick/core/units/format';
import { volumesDisagree } from '@wick/plan/vacuum/free-volume';
import { evacuationOf, pumpDownForecast } from '@wick/plan/vacuum/reach';
import { absoluteOf } from '@wick/plan/run/gauges';
import { learnedOf } from '@wick/plan/review/mould-learning';
import { withVacuum } from '@wick/plan/job/edits';
import { slipWords } from '@wick/plan/vacuum/cautions';
import { bagOf } from '@wick/plan/bag/bag';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useReadingWindow } from '../../data/reading-window.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import CurveChart from '../../ui/curve/CurveChart.vue';
import type { ChartCurve, ChartLine, ChartMark } from '../../ui/curve/curve.ts';
import { useChoices } from '../common/use-choices.ts';
import { useBench } from './bench.ts';
import ExpansionForm from './ExpansionForm.vue';
import StageSteps from './StageSteps.vue';
import { usePressure } from './use-pressure.ts';
import { useTicking } from '../../ui/use-ticking.ts';
import { useView } from './use-view.ts';

/** How far down it can come here, how fast it should, and how it does; and the steps in which it is drawn down. */
const bench = useBench();
const job = useSession();
const run = useRun();
const shop = useShopStore();
const library = useLibraryStore();
const choices = useChoices();
const now = useTicking(run.now);

const pressure = usePressure();
const origin = computed(() => run.state.pulls[0] ?? run.run?.startedAt ?? null);
const begin = computed(() => (typeof origin.value === 'string' ? Date.parse(origin.value) : origin.value));
const view = useView(begin, now);
const curve = useReadingWindow(
  computed(() => bench.gauge?.instrument.id ?? null),
  computed(() => ({ from: view.from, to: view.to })),
);

const FORECAST = 1800;
/** As bags on this mould let in so far, Pa m3/s; of a tight one where nobody knows. */
const usualLeak = computed(() => (bench.mould && learnedOf(bench.mould, 'leak')?.value) ?? 0);
const forecast = computed(() => {
  const from = run.state.pulls.at(-1);
  if (from === undefined || bench.freeVolume === null) return null;
  const times = Array.from({ length: 121 }, (_, n) => FORECAST * (n / 120) ** 2);
  const pressures = pumpDownForecast(job.laid, shop.shop, bench.freeVolume, times, usualLeak.value);
  return { ats: times.map((time) => from + time * 1000), values: Array.from(pressures, pressure.shown) };
});
const curves = computed((): ChartCurve[] => {
  const { gauge } = bench;
  if (!gauge) return [];
  const absolute = (values: readonly number[]) =>
    values.map((value) => pressure.shown(absoluteOf(gauge.instrument, value, bench.ambient)));
  const { ats, means, lows, highs } = curve.value;
  return [
    ...(forecast.value
      ? [
          {
            id: 'forecast',
            kind: 'forecast' as const,
            label: usualLeak.value > 0 ? 'forecast of a bag as they are here' : 'forecast of a tight bag',
            ...forecast.value,
          },
        ]
      : []),
    {
      id: 'measured',
      kind: 'measured',
      label: 'measured',
      ats,
      values: absolute(means),
      lows: absolute(lows),
      highs: absolute(highs),
    },
  ];
});
const lines = computed((): ChartLine[] => {
  const limit = run.state.watch?.limits.pressure ?? null;
  const called: ChartLine[] =
    limit === null ? [] : [{ label: 'the watch is called', value: pressure.shown(limit), tone: 'ember' }];
  return [pressure.best, ...called];
});
const words = { pull: 'pull', shut: 'shut', letGo: 'let go' } as const;
const marks = computed((): ChartMark[] =>
  run.state.entries.flatMap(({ at, body }) =>
    body.kind === 'pull' || body.kind === 'shut' || body.kind === 'letGo'
      ? [{ at: Date.parse(at), label: words[body.kind] }]
      : [],
  ),
);

const evacuation = computed(() => evacuationOf(job.laid, shop.shop));
const slip = computed(() => slipWords(shop.shop, shop.show));
const pumps = computed(() => options('pump', 'none chosen'));
const pots = computed(() => options('pot', 'none'));
const valves = [
  { value: '', label: 'not said' },
  { value: 'yes', label: 'fitted' },
  { value: 'no', label: 'none' },
];
function options(kind: 'pump' | 'pot', none: string) {
  return [
    { value: '', label: none },
    ...choices(kind)
      .filter((one) => one.kind !== 'pot' || one.use === 'catch')
      .map(({ id, name }) => ({ value: id, label: name })),
  ];
}
const valve = computed(() => {
  const has = job.laid.vacuum.hasCheckValve;
  return has === null ? '' : has ? 'yes' : 'no';
});
const disagree = computed(() => {
  const [own, measured] = [bench.computedVolume.value?.total, bench.measuredVolume?.value];
  if (!own || !measured) return null;
  const how = volumesDisagree(own, measured);
  if (how === 'more')
    return 'More air than the plan knows of: a longer hose, a larger pot, or the bag stands off somewhere. Look for bridges.';
  return how === 'less'
    ? 'Less air than the plan has: is a hose clamped, or a part of the bag shut off?'
    : null;
});
const pullDown = computed(() => {
  try {
    return bagOf(job.laid, shop.shop).pullDown;
  } catch {
    return [];
  }
});
</script>

<template>
  <div class="tools">
    <span class="quiet">{{
      bench.gauge
        ? `Curve of ${bench.gauge.instrument.name}; drag it; click it and turn the wheel`
        : 'No gauge hangs on the bag'
    }}</span>
    <Button size="small" :disabled="view.isFollowing" @click="view.follow">All of it</Button>
  </div>
  <CurveChart
    is-log
    :height="250"
    :curves="curves"
    :lines="lines"
    :marks="marks"
    :from="view.from"
    :to="view.to"
    :origin="begin ?? view.from"
    :unit="pressure.unit"
    label="Pressure in the bag since the first pull"
    @look="view.look"
    @follow="view.follow"
  />
  <div class="columns">
    <section>
      <h3>Best reachable here now</h3>
      <div class="row">
        <span
          >Air outside,
          {{
            bench.barometer?.last
              ? 'by the barometer'
              : bench.reach.isMeasured
                ? 'as entered'
                : `standard at ${Math.round(shop.shop.altitude)} m`
          }}</span
        >
        <span class="number">{{ shop.show(bench.ambient, 'absolutePressure') }}</span>
      </div>
      <label class="row">
        <span>Pump</span>
        <Choice
          size="small"
          class="wide"
          aria-label="Pump"
          :value="job.laid.vacuum.pumpId ?? ''"
          :options="pumps"
          @change="job.apply(withVacuum({ pumpId: String($event) || null }, library.materials), 'pump')"
        />
      </label>
      <label class="row">
        <span>Catch pot</span>
        <Choice
          size="small"
          class="wide"
          aria-label="Catch pot"
          :value="job.laid.vacuum.potId ?? ''"
          :options="pots"
          @change="job.apply(withVacuum({ potId: String($event) || null }, library.materials), 'catch pot')"
        />
      </label>
      <label class="row">
        <span>Check valve at the pump</span>
        <Choice
          size="small"
          class="wide"
          aria-label="Check valve"
          :value="valve"
          :options="valves"
          @change="
            job.apply(withVacuum({ hasCheckValve: $event === '' ? null : $event === 'yes' }), 'check valve')
          "
        />
      </label>
      <div class="row">
        <span>Hose to it{{ evacuation.isHoseOnPlan ? '' : ', assumed' }}</span>
        <span class="number"
          >{{ shop.show(evacuation.hose.bore, 'length') }} bore,
          {{ shop.showLong(evacuation.hose.length) }}</span
        >
      </div>
      <div class="row">
        <span>Least pressure of a tight bag</span>
        <span class="number">{{ shop.show(bench.reach.best, 'absolutePressure') }}</span>
      </div>
      <div class="row">
        <span>A relative gauge then shows</span>
        <span class="number"
          >{{ shop.show(bench.reach.onGauge, 'gaugePressure') }},
          {{ formatQuantity(bench.reach.onGauge, 'gaugePressure', 'inHg') }}</span
        >
      </div>
      <p v-if="slip" class="ember">{{ slip }}</p>
      <p v-if="bench.reach.regime !== 'viscous'" class="quiet">
        Air is so thin in this hose by then that the forecast is a little too good.
      </p>
    </section>
    <section>
      <h3>Free volume</h3>
      <p v-if="bench.computedVolume.message" class="ember">{{ bench.computedVolume.message }}</p>
      <template v-if="bench.computedVolume.value">
        <div v-for="row in bench.computedVolume.value.rows" :key="row.id" class="row">
          <span>{{ row.label }}</span><span class="number">{{ shop.show(row.volume, 'volume') }}</span>
        </div>
        <div class="row">
          <b>Computed, behind the valve at the pump</b
          ><b class="number">{{ shop.show(bench.computedVolume.value.total, 'volume') }}</b>
        </div>
      </template>
      <div v-if="bench.measuredVolume?.value" class="row">
        <b>Measured; it counts</b><b class="number">{{ shop.show(bench.measuredVolume.value, 'volume') }}</b>
      </div>
      <p v-if="bench.measuredVolume?.message" class="ember">{{ bench.measuredVolume.message }}</p>
      <p v-if="disagree" class="ember">{{ disagree }}</p>
      <ExpansionForm />
    </section>
  </div>
  <StageSteps :advice="pullDown" />
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 0 28px;
}
.wide {
  width: 200px;
}
p {
  margin: 4px 0;
  font-size: 13px;
}
</style>
