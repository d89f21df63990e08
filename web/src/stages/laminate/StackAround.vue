<script setup lang="ts">
import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import type { Stack } from '@wick/core/laminate/stack';
import type { JobLaminate } from '@wick/contract/job/job';

import { computed } from 'vue';
import { pressedPast } from '@wick/plan/laminate/stack';
import { laidOn } from '@wick/plan/stack/laid-on';
import { useShopStore } from '../../data/shop-store.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { withLaminate } from '@wick/plan/laminate/edits';
import JobField from '../common/JobField.vue';
import { useChoices } from '../common/use-choices.ts';
import Choice from '../../ui/Choice.vue';

/** What goes with the plies: core and its place, and how hard all of it is pressed. */
const props = defineProps<{ book: Book; stack: Stack | null }>();
const job = useSession();
const library = useLibraryStore();
const shop = useShopStore();
const choices = useChoices();
const laminate = computed(() => props.book.laminate);
const cores = computed(() => [
  { value: '', label: 'no core' },
  ...choices('core').map((item) => ({ value: item.id, label: item.name })),
]);
/** What lies on it is chosen with the stack. */
const over = computed(() => {
  const { peelPlies = [], films = [], flowMeshes = [] } = laidOn(job.laid, props.book.zoneId);
  return [...peelPlies, ...films, ...flowMeshes].map(({ name }) => name).join(', ');
});
const places = computed(() => [
  { value: -1, label: 'in the middle' },
  ...Array.from({ length: laminate.value.plies.length + 1 }, (_, n) => ({
    value: n,
    label: n === 0 ? 'on the mould' : `above ply ${n}`,
  })),
]);
const set = (changes: Partial<Omit<JobLaminate, 'plies'>>) =>
  job.apply(withLaminate(props.book.zoneId, changes, library.materials));
const faces = [
  { value: '', label: 'neither' },
  { value: 'mould', label: 'the mould side' },
  { value: 'bag', label: 'the bag side' },
];
const past = computed(() => pressedPast(job.laid, laminate.value, shop.shop));
const refuseFraction = (value: number) =>
  value > 0.05 && value < 0.75 ? null : 'Fibre volumes under a bag lie between 5 and 75 %.';
</script>

<template>
  <div class="fields">
    <label>
      <span class="quiet">Core</span>
      <Choice
        :value="laminate.coreId ?? ''"
        :options="cores"
        aria-label="Core"
        @change="set({ coreId: String($event) || null })"
      />
    </label>
    <label>
      <span class="quiet">Core lies</span>
      <Choice
        :value="laminate.pliesUnderCore ?? -1"
        :options="places"
        :disabled="laminate.coreId === null"
        aria-label="Place of the core"
        @change="set({ pliesUnderCore: Number($event) < 0 ? null : Number($event) })"
      />
    </label>
    <JobField
      label="Fibre volume wanted"
      path="laminate.fibreVolumeFraction"
      :model-value="laminate.fibreVolumeFraction"
      :assumed="stack?.fibreVolumeFraction"
      :refuse="refuseFraction"
      @update:model-value="
        set({ fibreVolumeFraction: $event, ...($event === null ? {} : { compactionPressure: null }) })
      "
    />
    <JobField
      label="or pressed with"
      path="laminate.compactionPressure"
      :model-value="laminate.compactionPressure"
      :assumed="stack?.compactionPressure"
      @update:model-value="
        set({ compactionPressure: $event, ...($event === null ? {} : { fibreVolumeFraction: null }) })
      "
    />
    <label v-if="book.zoneId === null">
      <span class="quiet">Show face</span>
      <Choice
        :value="job.laid.showFace ?? ''"
        :options="faces"
        aria-label="Show face"
        @change="job.apply((d) => ({ ...d, showFace: ($event || null) as 'mould' | 'bag' | null }))"
      />
    </label>
  </div>
  <p class="quiet over">
    Over it: {{ over || 'nothing yet' }}. <RouterLink :to="`/jobs/${job.id}/stack`">Stack</RouterLink>
  </p>
  <p v-if="past" class="ember past" role="alert" data-testid="pressed-past">
    {{ shop.show(past.wanted, 'fraction') }} is wanted, but a bag here presses these plies to
    {{ shop.show(past.pressed, 'fraction') }}, and that is what is reckoned with. Resin kept at
    {{ shop.show(past.resinPressure, 'absolutePressure') }} in the laminate until gel would leave it so loose,
    or plies that pack less.
  </p>
</template>

<style scoped>
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 10px 12px;
}
label {
  display: flex;
  flex-direction: column;
}
.quiet {
  font-size: 12px;
}
.over {
  margin: 8px 0 0;
}
.past {
  margin: 8px 0 0;
}
</style>
