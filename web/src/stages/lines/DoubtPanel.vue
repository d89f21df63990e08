<script setup lang="ts">
import { doubtOf } from '@wick/contract/forecast-input';
import { needsSolving, usualScatter } from '@wick/contract/sample-job';
import { boundsOf } from '@wick/core/geometry/polygon';
import { summariseEnsemble, type EnsembleSample, type Spread } from '@wick/core/verdict/ensemble';
import { Button, Progress } from 'ant-design-vue';
import { computed, onBeforeUnmount, ref, shallowRef, toRaw, watch } from 'vue';
import { withDoubt } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { runSamples, type SampleRun } from '../../workers/sample-pool.ts';

/** What is not known, and what many runs with it drawn at random come to. */
const job = useJobStore();
const shop = useShopStore();
const COUNT = 200;

const samples = shallowRef<readonly EnsembleSample[]>([]);
const message = ref<string | null>(null);
const run = shallowRef<SampleRun | null>(null);
const of = shallowRef<object | null>(null);
const isStale = computed(() => samples.value.length > 0 && of.value !== toRaw(job.document));
const usual = computed(() =>
  doubtOf({
    ...job.document!,
    doubt: { ...job.document!.doubt, permeability: null, viscosity: null, gelTime: null, temperature: null },
  }),
);
const box = computed(() => boundsOf(job.document!.part.outline));
const summary = computed(() =>
  samples.value.length === 0
    ? null
    : summariseEnsemble(
        samples.value,
        0.08 * Math.max(box.value.maxX - box.value.minX, box.value.maxY - box.value.minY),
      ),
);
const driverWords: Record<string, string> = {
  permeability: 'how well resin runs in mesh and laminate',
  thickness: 'the laminate’s thickness',
  viscosity: 'the resin’s viscosity',
  gelTime: 'the resin’s gel time',
  temperature: 'the temperature',
  raceTracking: 'resin racing along edges',
};
const minutes = (time: number) => (Number.isFinite(time) ? `${Math.round(time / 60)}` : 'gels');
const spreadWords = ({ early, middle, late }: Spread) =>
  `${minutes(early)} · ${minutes(middle)} · ${minutes(late)}`;
const fields = [
  ['permeability', 'Permeability, times or divided by'],
  ['viscosity', 'Viscosity, times or divided by'],
  ['gelTime', 'Gel time, times or divided by'],
  ['thickness', 'Thickness, times or divided by'],
] as const;
const assumedFactor = (key: (typeof fields)[number][0]) =>
  key === 'thickness' ? usualScatter.thickness : usual.value[key];
const refuseFactor = (value: number) => (value >= 1 && value <= 20 ? null : 'A factor from 1 (sure) to 20.');

async function start() {
  cancel();
  const document = structuredClone(toRaw(job.document!));
  of.value = toRaw(job.document);
  samples.value = [];
  message.value = null;
  const started = runSamples(
    { job: document, shop: structuredClone(toRaw(shop.shop)), count: COUNT },
    (sample) => {
      samples.value = [...samples.value, sample];
    },
  );
  run.value = started;
  try {
    await started.done;
  } catch (error) {
    message.value = (error as Error).message;
  }
  if (run.value === started) run.value = null;
}
function cancel() {
  run.value?.cancel();
  run.value = null;
}
watch(() => job.id, cancel);
onBeforeUnmount(cancel);
</script>

<template>
  <div class="list doubt">
    <div class="inputs">
      <QuantityInput
        v-for="[key, label] in fields"
        :key="key"
        :label="label"
        quantity="factor"
        :model-value="job.document!.doubt[key]"
        :assumed="assumedFactor(key)"
        :refuse="refuseFactor"
        @update:model-value="job.apply(withDoubt({ [key]: $event }))"
      />
      <QuantityInput
        label="Temperature, plus or minus"
        quantity="temperatureDifference"
        :model-value="job.document!.doubt.temperature"
        :assumed="usual.temperature"
        @update:model-value="job.apply(withDoubt({ temperature: $event }))"
      />
      <QuantityInput
        label="Chance that an edge races"
        quantity="fraction"
        :model-value="job.document!.doubt.raceChance"
        :assumed="usualScatter.raceChance"
        @update:model-value="job.apply(withDoubt({ raceChance: $event }))"
      />
      <QuantityInput
        label="Gap of a racing edge"
        quantity="thickness"
        :model-value="job.document!.doubt.raceGap"
        :assumed="usualScatter.raceGap"
        @update:model-value="job.apply(withDoubt({ raceGap: $event }))"
      />
    </div>
    <div class="outcome">
      <div class="bar">
        <Button v-if="!run" type="primary" size="small" @click="start">Run it {{ COUNT }} times</Button>
        <Button v-else size="small" @click="cancel">Stop</Button>
        <Progress
          v-if="run"
          :percent="Math.round((100 * samples.length) / COUNT)"
          size="small"
          class="progress"
        />
        <span v-else class="quiet">{{
          needsSolving(job.document!)
            ? `each run is solved anew, coarsely: ${job.document!.forecast.layers ? 'some minutes with layers' : 'about half a minute'}`
            : 'only the speed of the whole is in doubt: the range beside is as good'
        }}</span>
      </div>
      <p v-if="message" class="ember" role="alert">{{ message }}</p>
      <template v-if="summary">
        <p :class="{ quiet: isStale }" data-testid="ensemble">
          <b class="number">{{ Math.round(100 * summary.chance) }}</b> in 100 fill before gel ({{
            summary.count
          }}
          runs<template v-if="isStale">, before the last change</template>).
          <template v-if="summary.drivers[0]"
            >Moved most by {{ driverWords[summary.drivers[0].input] }}.</template
          >
        </p>
        <div class="row">
          <span>Last corner: early · middle · late, min</span
          ><span class="number">{{ spreadWords(summary.fill) }}</span>
        </div>
        <div
          v-for="(mark, i) in job.document!.marks.slice(0, summary.marks.length)"
          :key="mark.id"
          class="row"
        >
          <span>{{ mark.name }}</span><span class="number">{{ spreadWords(summary.marks[i]!) }}</span>
        </div>
        <div
          v-for="worst in summary.worstPlaces.slice(0, 2)"
          :key="`${worst.place.x} ${worst.place.y}`"
          class="row"
        >
          <span
            >Last or dry near {{ shop.show(worst.place.x, 'length') }},
            {{ shop.show(worst.place.y, 'length') }}</span
          >
          <span class="number">{{ Math.round(100 * worst.share) }} %</span>
        </div>
      </template>
    </div>
  </div>
</template>

<style scoped>
.doubt {
  display: grid;
  grid-template-columns: 1.2fr 1fr;
  gap: 20px;
  padding-top: 4px;
}
.inputs {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 12px;
  align-content: start;
}
.inputs :deep(input) {
  padding: 1px 7px;
}
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
}
.progress {
  flex: 1;
  margin: 0;
}
p {
  margin: 6px 0;
}
</style>
