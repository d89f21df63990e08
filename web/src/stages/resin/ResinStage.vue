<script setup lang="ts">
import type { Job } from '@wick/contract/job/job';
import { withResin, withResinSystem } from '@wick/plan/job/edits';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { materialOf } from '@wick/plan/job/material-of';
import { settle } from '@wick/plan/settle';
import { missingOf } from '@wick/plan/forecast/missing';
import { resinLedger } from '@wick/core/ledger/resin-ledger';
import { createResinClock } from '@wick/core/resin/resin-clock';
import { formatClock } from '@wick/core/units/format';
import { partSums } from '@wick/plan/laminate/ply-book';
import { ledgerRequestOf } from '@wick/plan/resin/ledger';

import { computed } from 'vue';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import NewerValues from '../common/NewerValues.vue';
import StageShell from '../../ui/StageShell.vue';
import type { Stage } from '../stage.ts';
import BatchTable from './BatchTable.vue';
import PotPanel from './PotPanel.vue';
import ResinData from './ResinData.vue';
import Choice from '../../ui/Choice.vue';
import { laterComponent } from '../../ui/later.ts';

type Reserve = Job['resin']['reserve'];
defineProps<{ stage: Stage; minute: number | null }>();
const ResinCharts = laterComponent(() => import('./ResinCharts.vue'));
const job = useSession();
const shop = useShopStore();
const library = useLibraryStore();
const forecast = useForecast();

const resin = computed(() => job.laid.resin);
const system = computed(() => materialOf(job.laid, resin.value.materialId, 'resin'));
const temperature = computed(() => settle(job.laid, shop.shop)['resin.temperature'].value);
const lastUse = computed(() => {
  const fill = forecast.verdict?.fillTime ?? Infinity;
  return Number.isFinite(fill) ? fill : (forecast.clock?.gelTime ?? 3600);
});
const choices = computed(() => {
  const own = system.value ? [system.value] : [];
  return [...own, ...library.ofKind('resin').filter((item) => item.id !== system.value?.id)];
});
const ledger = computed(() => {
  if (missingOf(job.laid).some((item) => item.stage === 'laminate' || item.stage === 'resin')) return null;
  try {
    const flow = forecast.isUpToDate ? forecast.flow : null;
    return resinLedger(ledgerRequestOf(job.laid, partSums(job.laid, shop.shop), flow));
  } catch {
    return null;
  }
});
/** Resin that has left the pot no longer warms itself. */
const filmWords = computed(() => {
  if (!system.value) return '';
  try {
    return formatClock(createResinClock(system.value, temperature.value).gelTime);
  } catch {
    return 'not known';
  }
});
const durations = [
  ['mixDuration', 'Mixing'],
  ['degasDuration', 'Degassing'],
  ['hoseFillDuration', 'Filling the hose'],
] as const;
/** The schools of it: none, so many per cent, a fixed mass. */
const reserves = computed(() => {
  const usual: Reserve[] = [
    null,
    ...[0.05, 0.1, 0.2].map((share) => ({ kind: 'share' as const, share })),
    ...[0.5, 1, 2].map((mass) => ({ kind: 'mass' as const, mass })),
  ];
  const isListed = usual.some((item) => JSON.stringify(item) === JSON.stringify(resin.value.reserve));
  return (isListed ? usual : [...usual, resin.value.reserve]).map((item) => ({
    value: JSON.stringify(item),
    label: reserveWords(item),
  }));
});
const reserveWords = (item: Reserve) => {
  if (!item) return 'none';
  return item.kind === 'share' ? `${shop.show(item.share, 'fraction')} more` : shop.show(item.mass, 'mass');
};
const refuseTemperature = (value: number) =>
  value > 263 && value < 373 ? null : 'Resin is worked between -10 and 100 °C.';

function choose(id: string) {
  const chosen = choices.value.find((item) => item.id === id);
  if (chosen) job.apply(withResinSystem(chosen));
}

/** What its sheet does not say, and what is taken instead. */
const gaps = computed(() => {
  const own = system.value;
  if (!own || own.kinetics) return [];
  return [
    own.gelPoints.length === 1 &&
      'Its sheet gives one gel time only, so other temperatures follow a usual slope.',
    own.gelViscosityRatio === null && 'It is taken to be 20 times thicker at gel.',
    own.gelPoints.length > 0 &&
      own.gelMass == null &&
      'Nobody has said whether its gel times are of a thin film or of a pot: a thin film is taken.',
  ].filter((text) => text !== false);
});
</script>

<template>
  <StageShell :question="stage.question">
    <div class="fields">
      <label class="system">
        <span class="quiet">Resin system</span>
        <Choice
          :value="resin.materialId ?? undefined"
          placeholder="Choose a resin from the library"
          aria-label="Resin system"
          :options="choices.map((item) => ({ value: item.id, label: item.name }))"
          @change="choose(String($event))"
        />
      </label>
      <JobField label="Temperature" path="resin.temperature" :refuse="refuseTemperature" />
      <JobField label="Mould, if different" path="resin.mouldTemperature" :refuse="refuseTemperature" />
      <JobField label="Shop warms or cools by" path="resin.drift" />
      <JobField v-for="[key, label] in durations" :key="key" :label="label" :path="`resin.${key}`" />
      <JobField label="Feed hose" path="resin.hoseLength" />
      <JobField label="Heel in the pot" path="resin.heel" />
      <label class="system">
        <span class="quiet">Reserve</span>
        <Choice
          :value="JSON.stringify(resin.reserve)"
          aria-label="Reserve"
          :options="reserves"
          @change="job.apply(withResin({ reserve: JSON.parse(String($event)) }))"
        />
      </label>
    </div>
    <BatchTable />
    <p v-if="forecast.message && !forecast.clock" class="ember" role="alert">{{ forecast.message }}</p>
    <ResinCharts v-if="system && forecast.clock" :resin="system" />
    <ResinData v-if="system" :resin="system" :temperature="temperature" />
    <p class="quiet">
      Skin and eyes: gloves and glasses from the first opened can, and never peroxide near accelerator. A full
      pot heats itself and can smoke: set it outside on stone. Follow the safety data sheet and your site’s
      rules.
    </p>
    <template #answer>
      <template v-if="forecast.clock && system">
        <div class="quiet">
          {{
            forecast.clock.endsUnknown ? 'its pot leaves the data, from first mix' : 'gels, from first mix'
          }}
        </div>
        <div class="number huge">{{ Math.round(forecast.clock.gelTime / 60) }}<small> min</small></div>
        <div class="row">
          <span>A thin film of it gels</span><span class="number">{{ filmWords }}</span>
        </div>
        <div class="row">
          <span>Feed opens</span><span class="number">{{ formatClock(forecast.before!.open) }}</span>
        </div>
        <div class="row">
          <span>Viscosity when fresh</span
          ><span class="number">{{ shop.show(forecast.clock.viscosityAt(0), 'viscosity') }}</span>
        </div>
        <div class="row">
          <span>When the feed opens</span
          ><span class="number">{{
            shop.show(forecast.clock.viscosityAt(forecast.before!.open), 'viscosity')
          }}</span>
        </div>
        <div v-if="forecast.verdict && Number.isFinite(forecast.verdict.fillTime)" class="row">
          <span>At the last corner</span
          ><span class="number">{{
            shop.show(forecast.clock.viscosityAt(forecast.verdict.fillTime), 'viscosity')
          }}</span>
        </div>
        <p v-if="gaps.length > 0" class="quiet">{{ gaps.join(' ') }} The range is wider for it.</p>
      </template>
      <template v-if="ledger">
        <h3>Resin to mix</h3>
        <div class="number huge" data-testid="resin-mass">{{ shop.show(ledger.total, 'mass') }}</div>
        <div class="row">
          <span>Resin</span><span class="number">{{ shop.show(ledger.resin, 'mass') }}</span>
        </div>
        <div class="row">
          <span>Hardener, by weight</span><span class="number">{{ shop.show(ledger.hardener, 'mass') }}</span>
        </div>
        <h3>Where it goes</h3>
        <div v-for="row in ledger.rows" :key="row.label" class="row">
          <span>{{ row.label }}</span><span class="number">{{ shop.show(row.mass, 'mass') }}</span>
        </div>
        <PotPanel v-if="forecast.run?.pot" :run="forecast.run" :pot="forecast.run.pot" :until="lastUse" />
        <NewerValues :kinds="['resin']" />
        <p class="quiet">
          Rule of thumb, fibre weight and a kilo: {{ shop.show(ledger.quickRule, 'mass') }}.
        </p>
      </template>
    </template>
  </StageShell>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1.7fr repeat(3, 1fr);
  gap: 12px;
  margin: 10px 0;
}
.system {
  display: flex;
  flex-direction: column;
}
.system .quiet {
  font-size: 12px;
}
.huge {
  font-size: 40px;
  line-height: 1.1;
}
.huge small {
  font-size: 20px;
}
</style>
