<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import PlanFigure from '../common/PlanFigure.vue';
import { useReview } from './review.ts';

/** What is weighed, gauged, burned off or read, one at a time. */
const run = useRun();
const review = useReview();
const shop = useShopStore();
const ways = [
  { value: 'weigh', label: 'Weigh the part' },
  { value: 'gauge', label: 'Gauge its thickness' },
  { value: 'left', label: 'Weigh the resin that is left' },
  { value: 'coupon', label: 'Burn off a coupon' },
  { value: 'cup', label: 'Read fresh resin' },
  { value: 'gel', label: 'Say that it gelled' },
] as const;
type Way = (typeof ways)[number]['value'];
const way = ref<Way>('weigh');
const mass = ref<number | null>(null);
const flange = ref<'on' | 'off'>('off');
const isTrimmed = ref(true);
const place = ref<Point | null>(null);
const left = ref<number | null>(null);
const density = ref<number | null>(null);
const how = ref<'burned' | 'dissolved'>('burned');
const viscosity = ref<number | null>(null);
const temperature = ref<number | null>(null);
const gelPlaces = [
  { value: 'part', label: 'in the part' },
  { value: 'cup', label: 'in a cup' },
  { value: 'pot', label: 'in the pot' },
] as const;
const gelPlace = ref<'pot' | 'cup' | 'part'>('part');
const gauged = computed(() =>
  run.state.entries.flatMap(({ id, body }) => (body.kind === 'gauged' ? [{ id, ...body }] : [])),
);
const flanges = [
  { value: 'off', label: 'without its flange' },
  { value: 'on', label: 'flange on' },
] as const;
const manners = [
  { value: 'burned', label: 'burned off' },
  { value: 'dissolved', label: 'dissolved' },
] as const;

async function weigh(what: 'part' | 'resinLeft') {
  if (mass.value === null) return;
  const isPart = what === 'part';
  await run.say({
    ...{ kind: 'weighed', what, mass: mass.value },
    ...{ flange: isPart ? flange.value : null, isTrimmed: isPart && isTrimmed.value },
  });
  mass.value = null;
}
async function gauge(thickness: number | null) {
  if (thickness === null || !place.value) return;
  const { x, y } = place.value;
  place.value = null;
  await run.say({ kind: 'gauged', x, y, thickness });
}
async function burn() {
  if (mass.value === null || left.value === null || density.value === null) return;
  await run.say({
    ...{ kind: 'burned', how: how.value, mass: mass.value, left: left.value, density: density.value },
  });
  mass.value = left.value = density.value = null;
}
async function readCup() {
  if (viscosity.value === null || temperature.value === null) return;
  await run.say({ kind: 'cupRead', viscosity: viscosity.value, temperature: temperature.value });
  viscosity.value = null;
}
const say = () => run.say({ kind: 'gelled', where: gelPlace.value });
const positive = { above: 0, below: 10_000 };
</script>

<template>
  <fieldset :disabled="!run.run">
    <div class="tools form">
      <label
        ><span class="quiet">Measure</span
        ><Choice v-model:value="way" :options="[...ways]" aria-label="What is measured"
      /></label>
      <template v-if="way === 'weigh'">
        <QuantityInput v-model="mass" label="Weight" quantity="mass" optional :limits="positive" />
        <label
          ><span class="quiet">Weighed</span
          ><Choice v-model:value="flange" :options="[...flanges]" aria-label="Flange"
        /></label>
        <label class="check"><input v-model="isTrimmed" type="checkbox" /> trimmed</label>
        <Button :disabled="mass === null" @click="weigh('part')">Keep the weight</Button>
      </template>
      <template v-else-if="way === 'left'">
        <QuantityInput v-model="mass" label="Left of the mix" quantity="mass" optional :limits="positive" />
        <Button :disabled="mass === null" @click="weigh('resinLeft')">Keep the weight</Button>
      </template>
      <template v-else-if="way === 'gauge'">
        <QuantityInput
          v-if="place"
          :model-value="null"
          label="Thickness there"
          quantity="thickness"
          optional
          :limits="{ above: 0, below: 1 }"
          @update:model-value="gauge"
        />
        <span v-else class="quiet told">Tap the plan where it is gauged.</span>
      </template>
      <template v-else-if="way === 'coupon'">
        <QuantityInput v-model="mass" label="Coupon" quantity="mass" optional :limits="positive" />
        <QuantityInput v-model="left" label="Left of it" quantity="mass" optional :limits="positive" />
        <QuantityInput
          v-model="density"
          label="Its density"
          quantity="density"
          optional
          :limits="{ above: 100, below: 20_000 }"
        />
        <label
          ><span class="quiet">Resin</span
          ><Choice v-model:value="how" :options="[...manners]" aria-label="How the resin was taken off"
        /></label>
        <Button :disabled="mass === null || left === null || density === null" @click="burn"
          >Keep the coupon</Button
        >
      </template>
      <template v-else-if="way === 'cup'">
        <QuantityInput
          v-model="viscosity"
          label="Viscosity"
          quantity="viscosity"
          optional
          :limits="{ above: 0, below: 1000 }"
        />
        <QuantityInput
          v-model="temperature"
          label="At"
          quantity="temperature"
          optional
          :limits="{ above: 233, below: 473 }"
        />
        <Button :disabled="viscosity === null || temperature === null" @click="readCup"
          >Keep the reading</Button
        >
      </template>
      <template v-else>
        <label
          ><span class="quiet">It gelled</span
          ><Choice v-model:value="gelPlace" :options="[...gelPlaces]" aria-label="Where it gelled"
        /></label>
        <Button @click="say">It gels now</Button>
      </template>
    </div>
    <p v-if="way === 'coupon'" class="quiet caution">
      A furnace and solvents: fumes and fire. Follow the safety data sheets and your site’s rules.
    </p>
  </fieldset>
  <PlanFigure
    v-if="way === 'gauge' && review.job"
    :job="review.job"
    label="Thickness on the plan: tap where it is gauged"
    :is-tappable="run.run !== null"
    @tap="place = $event"
  >
    <template #default="{ at }">
      <g v-for="(one, n) in gauged" :key="one.id" class="gauged">
        <circle :cx="at(one).x" :cy="at(one).y" r="7" />
        <text :x="at(one).x + 11" :y="at(one).y + 5"
          >{{ n + 1 }}: {{ shop.show(one.thickness, 'thickness') }}</text
        >
      </g>
      <circle v-if="place" :cx="at(place).x" :cy="at(place).y" r="10" class="here" />
    </template>
  </PlanFigure>
</template>

<style scoped>
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
}
.form {
  align-items: end;
  gap: 12px;
  min-height: 56px;
}
.form label > span {
  display: block;
  font-size: 13px;
}
.check,
.told {
  min-height: 32px;
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.caution {
  margin: 4px 0;
}
.gauged circle {
  fill: var(--tide);
}
.gauged text {
  font: 600 14px var(--display);
  fill: var(--ink);
}
.here {
  fill: none;
  stroke: var(--resin);
  stroke-width: 3;
}
</style>
