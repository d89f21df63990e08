<script setup lang="ts">
import { fieldOf } from '@wick/contract/field';
import { jobSchema, type Job } from '@wick/contract/job/job';
import { withResin } from '@wick/plan/job/edits';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** The schools of it: none, so many per cent of all the rest, a fixed mass, or a depth of each pot in place of a heel. */
type Reserve = Job['resin']['reserve'];
const job = useSession();
const reserve = computed(() => job.laid.resin.reserve);
const kind = computed(() => reserve.value?.kind ?? 'none');
const schools = [
  { value: 'none', label: 'none: the heel and no more' },
  { value: 'share', label: 'per cent of all the rest' },
  { value: 'mass', label: 'a fixed mass' },
  { value: 'depth', label: 'computed: so deep over the hose’s end' },
] as const;
const first: Readonly<Record<(typeof schools)[number]['value'], Reserve>> = {
  none: null,
  share: { kind: 'share', share: 0.1 },
  mass: { kind: 'mass', mass: 0.5 },
  depth: { kind: 'depth', depth: 0.05 },
};
const value = computed(() => {
  const own = reserve.value;
  if (!own) return null;
  return own.kind === 'share' ? own.share : own.kind === 'mass' ? own.mass : own.depth;
});
const change = (to: Reserve) => job.apply(withResin({ reserve: to }), 'reserve');
function retype(to: number | null) {
  if (to === null || !reserve.value) return;
  const { kind: own } = reserve.value;
  change(
    own === 'share'
      ? { kind: own, share: to }
      : own === 'mass'
        ? { kind: own, mass: to }
        : { kind: own, depth: to },
  );
}
</script>

<template>
  <div class="reserve">
    <label>
      <span class="quiet">Reserve</span>
      <Choice :value="kind" aria-label="Reserve" :options="schools" @change="change(first[$event])" />
    </label>
    <QuantityInput
      v-if="reserve"
      :key="reserve.kind"
      label="Of it"
      v-bind="fieldOf(jobSchema, `resin.reserve.${reserve.kind}`)"
      :model-value="value"
      @update:model-value="retype"
    />
  </div>
</template>

<style scoped>
.reserve {
  display: grid;
  grid-template-columns: 2fr 1fr;
  gap: 12px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
}
.quiet {
  font-size: 12px;
}
</style>
