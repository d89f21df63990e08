<script setup lang="ts">
import { useForecast } from '../../compute/use-desk.ts';
import { computed } from 'vue';
import { fieldViews, type ViewId } from '../../board/fields.ts';
import Choice from '../../ui/Choice.vue';

/** What the board shows: the front, or a quantity over the plan. */
const viewId = defineModel<ViewId>({ required: true });
const forecast = useForecast();

/** Which views this forecast can show, as a word: the list is only made anew when that changes, not with every run. */
const offered = computed(() =>
  fieldViews
    .filter((view) => forecast.flow !== null && view.values(forecast.flow, NaN, forecast.ageAt) !== null)
    .map(({ id }) => id)
    .join(' '),
);
const views = computed(() => {
  const there = offered.value.split(' ');
  return [
    { value: 'front', label: 'Front' },
    ...fieldViews.map(({ id, name, needs }) => ({
      value: id,
      label: there.includes(id) ? name : `${name} (${needs})`,
      disabled: !there.includes(id),
    })),
  ];
});
const hasLayers = computed(() => (forecast.flow?.layers.length ?? 1) > 1);
const sides = [
  { value: 'mould', label: 'through to the mould' },
  { value: 'bag', label: 'on the bag side' },
];
</script>

<template>
  <Choice
    v-if="hasLayers && viewId === 'front'"
    v-model:value="forecast.side"
    size="small"
    class="view"
    aria-label="Side of the laminate"
    :options="sides"
  />
  <Choice
    v-model:value="viewId"
    size="small"
    class="view"
    aria-label="What the board shows"
    :options="views"
  />
</template>

<style scoped>
.view {
  flex: none;
  width: 190px;
}
</style>
