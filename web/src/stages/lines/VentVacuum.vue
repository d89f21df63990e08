<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { availablePressure } from '@wick/plan/laminate/stack';
import { formatQuantity } from '@wick/core/units/format';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { withVacuum } from '@wick/plan/job/edits';
import { useLibraryStore } from '../../data/library-store.ts';
import { useChoices } from '../common/use-choices.ts';
import Choice from '../../ui/Choice.vue';
import JobField from '../common/JobField.vue';

/** Absolute pressure at the vents, with what a gauge here would show for it. */
const job = useSession();
const shop = useShopStore();
const gauge = computed(() => formatQuantity(availablePressure(job.laid, shop.shop), 'gaugePressure', 'inHg'));
const library = useLibraryStore();
const choices = useChoices();
const pumps = computed(() => [
  { value: '', label: 'not chosen' },
  ...choices('pump').map(({ id, name, ultimatePressure }) => ({
    value: id,
    label: `${name}, to ${shop.show(ultimatePressure, 'absolutePressure')}`,
  })),
]);
const refuse = (value: number) =>
  value >= 0 && value < shop.ambient
    ? null
    : `The air outside has only ${shop.show(shop.ambient, 'absolutePressure')}.`;
</script>

<template>
  <div class="vacuum">
    <JobField
      :label="`Vacuum at the vents, absolute (${gauge} on a gauge)`"
      path="vacuum.ventPressure"
      :refuse="refuse"
    />
    <label>
      <span class="quiet">Pump</span>
      <Choice
        :value="job.laid.vacuum.pumpId ?? ''"
        aria-label="Pump"
        :options="pumps"
        @change="job.apply(withVacuum({ pumpId: String($event) || null }, library.materials), 'pump')"
      />
    </label>
  </div>
</template>

<style scoped>
.vacuum {
  display: grid;
  grid-template-columns: 330px 260px;
  gap: 16px;
  margin: 4px 0 8px;
}
label {
  display: flex;
  flex-direction: column;
}
.quiet {
  font-size: 12px;
}
</style>
