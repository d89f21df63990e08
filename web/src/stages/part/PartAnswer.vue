<script setup lang="ts">
import { withPart } from '@wick/plan/job/edits';
import { useSession } from '../../compute/use-desk.ts';
import { sizeRing } from '@wick/plan/part/edits';
import { partArea, partPerimeter } from '@wick/plan/part/figures';
import { processes as table } from '@wick/plan/processes/processes';
import { ringBounds } from '@wick/core/geometry/arcs';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import JobField from '../common/JobField.vue';
import { sizeLimits } from './shape-templates.ts';
import Choice from '../../ui/Choice.vue';

/** The part in numbers, and what has no place on the plan: flange and slope. */
const job = useSession();
const shop = useShopStore();
const part = computed(() => job.laid.part);
const size = computed(() => {
  const { minX, minY, maxX, maxY } = ringBounds(part.value.outline);
  return { x: maxX - minX, y: maxY - minY };
});
const processes = Object.entries(table).map(([value, { name }]) => ({ value, label: name }));
/** Common practice, no source: less flange than this leaves no room for tape and bag. */
const LEAST_FLANGE = 0.05;

/** Slope of the mould, metre per metre along its surface: resin climbs it against its weight. */
const refuseRise = (value: number) => (Math.abs(value) <= 0.7 ? null : 'From -70 % to 70 % of the length.');
function setRise(axis: 'x' | 'y', value: number | null) {
  const rise = { x: 0, y: 0, ...part.value.rise, [axis]: value ?? 0 };
  job.apply(withPart({ rise: rise.x === 0 && rise.y === 0 ? null : rise }));
}
</script>

<template>
  <div class="quiet">area to be wetted</div>
  <div class="number huge" data-testid="area">{{ shop.show(partArea(part), 'area') }}</div>
  <div class="pair">
    <QuantityInput
      v-for="axis in ['x', 'y'] as const"
      :key="axis"
      :label="axis === 'x' ? 'Over all, along' : 'Over all, across'"
      quantity="length"
      :limits="sizeLimits"
      :model-value="size[axis]"
      @update:model-value="job.apply(sizeRing({ kind: 'outline' }, axis, $event!), 'over-all size')"
    />
  </div>
  <div class="row">
    <span>Edge all round</span><span class="number">{{ shop.show(partPerimeter(part), 'length') }}</span>
  </div>
  <div class="row">
    <span>Holes, zones</span><span class="number">{{ part.holes.length }}, {{ job.laid.zones.length }}</span>
  </div>
  <label class="process">
    <span class="quiet">Made by</span>
    <Choice
      :value="job.laid.process"
      :options="processes"
      aria-label="Process"
      @change="job.apply((d) => ({ ...d, process: $event as typeof d.process }))"
    />
  </label>
  <h3>The mould under it</h3>
  <div class="pair">
    <JobField
      v-for="axis in ['x', 'y'] as const"
      :key="axis"
      :label="axis === 'x' ? 'Rises along it by' : 'Rises across it by'"
      :path="`part.rise.${axis}`"
      :model-value="part.rise ? part.rise[axis] : null"
      :assumed="0"
      :refuse="refuseRise"
      @update:model-value="setRise(axis, $event)"
    />
  </div>
  <JobField label="Flange round the part" path="part.flange" />
  <p v-if="part.flange === null" class="quiet">
    Not said. {{ shop.show(LEAST_FLANGE, 'length') }} is the least for tape and bag, twice that is easy to
    work with.
  </p>
  <p v-else-if="part.flange < LEAST_FLANGE" class="ember">
    Under {{ shop.show(LEAST_FLANGE, 'length') }} there is hardly room for tape and bag. Widen it, or tape
    outside the mould’s edge.
  </p>
</template>

<style scoped>
.huge {
  font-size: 40px;
  line-height: 1.1;
}
.process {
  display: flex;
  flex-direction: column;
  margin-top: 10px;
}
.process .quiet {
  font-size: 12px;
}
.pair {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  padding: 4px 0 8px;
}
</style>
