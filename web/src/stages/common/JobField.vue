<script setup lang="ts">
import { fieldOf } from '@wick/contract/field';
import { jobSchema } from '@wick/contract/job/job';
import { withValueAt } from '@wick/plan/job/edits';
import { isSettled, usualFor } from '@wick/plan/settle';
import { valueAt } from '@wick/plan/value-at';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/**
 * A number of the job by its path in the schema, which says what it measures and what it may be. With a value of its own it
 * is one of a row, and tells what it is changed to; without one it is the job's, and changes it.
 */
const props = defineProps<{
  /** "resin.hoseLength"; of a row "layouts.lines.bore". */
  path: string;
  label: string;
  modelValue?: number | null;
  /** What is taken while it is blank, where the job's own rules do not say. */
  assumed?: number;
  hideLabel?: boolean;
  /** Unit to show instead of the shop's. */
  unit?: string;
  refuse?: (value: number) => string | null;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: number | null] }>();
const job = useSession();
const shop = useShopStore();

const field = computed(() => fieldOf(jobSchema, props.path));
const isOfRow = computed(() => props.modelValue !== undefined);
const value = computed(() =>
  isOfRow.value ? props.modelValue! : (valueAt(job.document, props.path) as number | null),
);
const taken = computed(
  () => props.assumed ?? (isSettled(props.path) ? usualFor(props.path, job.laid, shop.shop) : undefined),
);

function change(to: number | null) {
  if (isOfRow.value) emit('update:modelValue', to);
  else job.apply(withValueAt(props.path, to), props.label.toLowerCase());
}
</script>

<template>
  <QuantityInput
    v-bind="field"
    :label="label"
    :hide-label="hideLabel"
    :model-value="value"
    :assumed="taken"
    :refuse="refuse"
    :unit="unit"
    @update:model-value="change"
  />
</template>
