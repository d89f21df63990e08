<script setup lang="ts">
import { editMaterial } from '@wick/plan/job/edits';
import { useSession } from '../../compute/use-desk.ts';
import { fieldOf } from '@wick/contract/field';
import { materialSchema, type MaterialOf } from '@wick/contract/materials';
import type { ArrheniusFit } from '@wick/core/resin/curve-fit';
import { curveEndOf } from '@wick/core/resin/cure-law';
import { chemistryOf, viscosityFit } from '@wick/core/resin/resin-system';
import { gelFit } from '@wick/core/resin/gel-time';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { readFile } from '../../data/read-file.ts';
import { useShopStore } from '../../data/shop-store.ts';
import PointTable from './PointTable.vue';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** What the data sheet gives, as this job has it, and how far each entered point lies from the curve through them. */
const props = defineProps<{ resin: MaterialOf<'resin'>; temperature: number }>();
const job = useSession();
const shop = useShopStore();
const csvMessage = ref<string | null>(null);

const residuals = computed(() => {
  const of = (fit: () => ArrheniusFit) => {
    try {
      return fit();
    } catch {
      return null;
    }
  };
  return { viscosity: of(() => viscosityFit(props.resin)), gel: of(() => gelFit(props.resin)) };
});
const minutes = (time: number) => Math.round(time / 60);
/** What a pot life comes to in the laminate, where nothing keeps the heat. */
const filmWords = computed(() => {
  const { gel } = residuals.value;
  const [point] = props.resin.gelPoints;
  if (!gel || !point || !props.resin.gelMass) return '';
  return `A pot heats itself: ${minutes(point.time)} min there are ${minutes(gel.at(point.temperature))} min as a thin film.`;
});
const chemistries = [
  { value: 'amine', label: 'an amine: thickens from the start' },
  { value: 'radical', label: 'a peroxide cure: thin, then it sets' },
];
const thickensWords = computed(() => {
  const end = curveEndOf(props.resin);
  const usual =
    chemistryOf(props.resin) === 'radical'
      ? 'stay thin while its inhibitor lasts, then to set'
      : 'thicken evenly in the log of viscosity';
  if (!props.resin.viscosityCurve) return `None: taken to ${usual}, up to gel.`;
  return end === null
    ? ''
    : `It ends at ${Math.round(100 * end)} % of the way to gel; past that it is taken to ${usual}.`;
});
const slopeWords = (fit: { activationEnergy: number; isAssumed: boolean } | null) =>
  fit ? `slope ${(fit.activationEnergy / 1000).toFixed(0)} kJ/mol${fit.isAssumed ? ', assumed' : ''}` : '';
function setInhibitor(factor: number) {
  const { gelTable } = props.resin;
  if (gelTable && factor >= 0.2 && factor <= 20)
    change({ gelTable: { ...gelTable, inhibitorFactor: factor } });
}
function change(changes: Partial<MaterialOf<'resin'>>) {
  job.apply(editMaterial({ ...props.resin, ...changes }));
}
async function readCsv(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  const read = await readFile<'viscosity'>({ kind: 'viscosity', file });
  csvMessage.value = read.ok ? null : read.message;
  if (read.ok) change({ viscosityCurve: { temperature: props.temperature, points: read.value } });
}
</script>

<template>
  <div class="data">
    <div v-if="!resin.kinetics">
      <div class="caption">
        Fresh viscosity <span class="quiet">{{ slopeWords(residuals.viscosity) }}</span>
      </div>
      <PointTable
        name="viscosity"
        value-path="viscosity"
        path="viscosityPoints"
        :points="resin.viscosityPoints"
        :residuals="residuals.viscosity?.residuals ?? []"
        @change="change({ viscosityPoints: $event as typeof resin.viscosityPoints })"
      />
    </div>
    <div v-if="!resin.kinetics && !resin.gelTable">
      <div class="caption">
        Gel time <span class="quiet">{{ slopeWords(residuals.gel) }}</span>
      </div>
      <PointTable
        name="gel time"
        value-path="time"
        path="gelPoints"
        :points="resin.gelPoints"
        :residuals="residuals.gel?.residuals ?? []"
        @change="change({ gelPoints: $event as typeof resin.gelPoints })"
      />
      <QuantityInput
        label="Measured in a pot of (0: thin film)"
        v-bind="fieldOf(materialSchema, 'gelMass')"
        :model-value="resin.gelMass ?? null"
        :assumed="0"
        @update:model-value="change({ gelMass: $event })"
      />
      <p v-if="filmWords" class="quiet small">{{ filmWords }}</p>
    </div>
    <div v-if="resin.gelTable">
      <div class="caption">
        Gel time by catalyst, read at
        {{ resin.hardenerParts }}
        %
      </div>
      <table class="sheet">
        <thead>
          <tr>
            <th></th>
            <th v-for="t in resin.gelTable.temperature" :key="t">{{ shop.show(t, 'temperature') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, i) in resin.gelTable.time" :key="i">
            <td class="number">{{ resin.gelTable.catalyst[i] }} %</td>
            <td v-for="(time, k) in row" :key="k" class="number">{{ shop.show(time, 'duration') }}</td>
          </tr>
          <tr>
            <td colspan="4">
              <label class="quiet"
                >Inhibitor makes it longer by
                <input
                  class="catalyst"
                  type="number"
                  step="0.1"
                  min="0.2"
                  max="20"
                  :value="resin.gelTable.inhibitorFactor ?? 1"
                  aria-label="Inhibitor makes it so many times longer"
                  @change="setInhibitor(Number(($event.target as HTMLInputElement).value))"
                />
                times, as its sheet or a cup test says
              </label>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="resin.kinetics" class="quiet kinetics">
      Cure by Kamal and Sourour, viscosity by Castro and Macosko: A1 {{ resin.kinetics.A1 }}/s, E1
      {{ resin.kinetics.E1 / 1000 }} kJ/mol, A2 {{ resin.kinetics.A2 }}/s, E2
      {{ resin.kinetics.E2 / 1000 }} kJ/mol, m {{ resin.kinetics.m }}, n {{ resin.kinetics.n }}, gel at
      {{ Math.round(100 * resin.kinetics.gelConversion) }} %.
    </div>
    <div v-else>
      <div class="caption">Measured thickening</div>
      <p v-if="resin.viscosityCurve" class="quiet">
        {{ resin.viscosityCurve.points.length }} points at
        {{ shop.show(resin.viscosityCurve.temperature, 'temperature') }}.
        <Button size="small" type="link" @click="change({ viscosityCurve: null })">Leave it out</Button>
      </p>
      <p v-if="thickensWords" class="quiet">{{ thickensWords }}</p>
      <Choice
        size="small"
        aria-label="How it cures"
        class="chemistry"
        :value="chemistryOf(resin)"
        :options="chemistries"
        @change="change({ chemistry: $event as 'amine' | 'radical' })"
      />
      <label class="csv">
        Read time and viscosity from a CSV, at {{ shop.show(temperature, 'temperature') }}
        <input
          type="file"
          accept=".csv,.txt,text/csv"
          aria-label="Viscosity against time from a CSV"
          @change="readCsv"
        />
      </label>
      <p v-if="csvMessage" class="ember" role="alert">{{ csvMessage }}</p>
    </div>
  </div>
</template>

<style scoped>
.chemistry {
  width: 100%;
  margin: 2px 0 6px;
}
.small {
  font-size: 12px;
  margin: 4px 0;
}
.data {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 8px 22px;
  align-items: start;
  font-size: 13px;
}
.caption {
  text-align: left;
  font: 600 14px var(--display);
  padding-bottom: 2px;
}
.csv {
  display: block;
  text-decoration: underline;
  cursor: pointer;
}
.csv input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.csv:focus-within {
  outline: 2px solid var(--tide);
}
.catalyst {
  width: 70px;
}
p {
  margin: 2px 0;
}
.kinetics {
  grid-column: span 2;
}
</style>
