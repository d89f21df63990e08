<script setup lang="ts">
import { resinLedger } from '@wick/core/ledger/resin-ledger';
import { formatClock } from '@wick/core/units/format';
import { assumptionsOf, materialOf, missingOf } from '@wick/contract/forecast-input';
import { partSums } from '@wick/contract/ply-book';
import { ledgerRequestOf } from '@wick/contract/resin-need';
import { Select } from 'ant-design-vue';
import { computed, defineAsyncComponent } from 'vue';
import { useForecastStore } from '../../state/forecast-store.ts';
import { withResin, withResinSystem } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useLibraryStore } from '../../state/library-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import NewerValues from '../../ui/NewerValues.vue';
import type { Stage } from '../stage.ts';
import BatchTable from './BatchTable.vue';
import PotPanel from './PotPanel.vue';
import ResinData from './ResinData.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const ResinCharts = defineAsyncComponent(() => import('./ResinCharts.vue'));
const job = useJobStore();
const shop = useShopStore();
const library = useLibraryStore();
const forecast = useForecastStore();

const resin = computed(() => job.document!.resin);
const system = computed(() => materialOf(job.document!, resin.value.materialId, 'resin'));
const temperature = computed(() => resin.value.temperature ?? shop.shop.temperature);
const lastUse = computed(() => {
  const fill = forecast.verdict?.fillTime ?? Infinity;
  return Number.isFinite(fill) ? fill : (forecast.clock?.gelTime ?? 3600);
});
const choices = computed(() => {
  const own = system.value ? [system.value] : [];
  return [...own, ...library.ofKind('resin').filter((item) => item.id !== system.value?.id)];
});
const assumed = computed(() => {
  const blank = {
    ...job.document!,
    resin: {
      ...resin.value,
      temperature: null,
      mixDuration: null,
      degasDuration: null,
      hoseFillDuration: null,
      hoseLength: null,
    },
  };
  const list = assumptionsOf(blank, shop.shop);
  return (label: string) => list.find((item) => item.label === label)?.value;
});
const ledger = computed(() => {
  if (missingOf(job.document!).some((item) => item.stage === 'laminate' || item.stage === 'resin'))
    return null;
  try {
    const request = ledgerRequestOf(job.document!, partSums(job.document!, shop.shop));
    return request && resinLedger(request);
  } catch {
    return null;
  }
});
const durations = [
  ['mixDuration', 'Mixing'],
  ['degasDuration', 'Degassing'],
  ['hoseFillDuration', 'Filling the hose'],
] as const;
const refuseDuration = (value: number) => (value >= 0 && value < 86_400 ? null : 'A time from 0 to 24 h.');
const refuseTemperature = (value: number) =>
  value > 263 && value < 373 ? null : 'Resin is worked between -10 and 100 °C.';

function choose(id: string) {
  const chosen = choices.value.find((item) => item.id === id);
  if (chosen) job.apply(withResinSystem(chosen));
}
</script>

<template>
  <div class="stage">
    <section class="bench">
      <h1>{{ stage.question }}</h1>
      <div class="fields">
        <label class="system">
          <span class="quiet">Resin system</span>
          <Select
            :value="resin.materialId ?? undefined"
            placeholder="Choose a resin from the library"
            aria-label="Resin system"
            :options="choices.map((item) => ({ value: item.id, label: item.name }))"
            @change="choose(String($event))"
          />
        </label>
        <QuantityInput
          label="Temperature"
          quantity="temperature"
          :model-value="resin.temperature"
          :assumed="assumed('Resin temperature')"
          :refuse="refuseTemperature"
          @update:model-value="job.apply(withResin({ temperature: $event }))"
        />
        <QuantityInput
          label="Mould, if different"
          quantity="temperature"
          optional
          :model-value="resin.mouldTemperature"
          :refuse="refuseTemperature"
          @update:model-value="job.apply(withResin({ mouldTemperature: $event }))"
        />
        <QuantityInput
          label="Shop warms or cools by"
          quantity="temperatureRate"
          optional
          :model-value="resin.drift"
          @update:model-value="job.apply(withResin({ drift: $event }))"
        />
        <QuantityInput
          v-for="[key, label] in durations"
          :key="key"
          :label="label"
          quantity="duration"
          :model-value="resin[key]"
          :assumed="assumed(label)"
          :refuse="refuseDuration"
          @update:model-value="job.apply(withResin({ [key]: $event }))"
        />
        <QuantityInput
          label="Feed hose"
          quantity="length"
          :model-value="resin.hoseLength"
          :assumed="assumed('Feed hose')"
          @update:model-value="job.apply(withResin({ hoseLength: $event }))"
        />
      </div>
      <BatchTable />
      <p v-if="forecast.message && !forecast.clock" class="ember" role="alert">{{ forecast.message }}</p>
      <ResinCharts v-if="system && forecast.clock" :resin="system" />
      <ResinData v-if="system" :resin="system" :temperature="temperature" />
      <p class="quiet">
        Skin and eyes: gloves and glasses from the first opened can, and never peroxide near accelerator. A
        full pot heats itself and can smoke: set it outside on stone. Follow the safety data sheet and your
        site’s rules.
      </p>
    </section>
    <aside class="answer">
      <template v-if="forecast.clock && system">
        <div class="quiet">gels, from first mix</div>
        <div class="number huge">{{ Math.round(forecast.clock.gelTime / 60) }}<small> min</small></div>
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
        <p v-if="system.gelViscosityRatio === null || system.gelPoints.length < 2" class="quiet">
          Its sheet gives
          {{
            system.gelPoints.length < 2
              ? 'one gel time only, so other temperatures follow a usual slope'
              : 'no thickening curve'
          }}<template v-if="system.gelViscosityRatio === null"
            >, and it is taken to be 20 times thicker at gel</template
          >: the range is wider for it.
        </p>
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
        <PotPanel
          v-if="system"
          :resin="system"
          :temperature="temperature"
          :mass="ledger.total"
          :until="lastUse"
        />
        <NewerValues :kinds="['resin']" />
        <p class="quiet">
          Rule of thumb, fibre weight and a kilo: {{ shop.show(ledger.quickRule, 'mass') }}.
        </p>
      </template>
    </aside>
  </div>
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
