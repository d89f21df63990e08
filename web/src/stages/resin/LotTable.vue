<script setup lang="ts">
import { fieldOf } from '@wick/contract/field';
import type { Lot } from '@wick/contract/material/resin';
import { materialSchema, type MaterialOf } from '@wick/contract/materials';
import { lotStatesOf, lotToTake, lotWords } from '@wick/plan/resin/storage';
import { newId } from '@wick/plan/job/ids';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed } from 'vue';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Containers of this system on the shelf: batch number, date, warming, rolling. They belong to the workshop, not to the job. */
const props = defineProps<{ resin: MaterialOf<'resin'> }>();
const library = useLibraryStore();
const shop = useShopStore();
const stored = computed(() => {
  const found = library.find(props.resin.id)?.material;
  return found?.kind === 'resin' ? found : null;
});
const states = computed(() =>
  stored.value ? lotStatesOf(stored.value, { day: Date.now(), room: shop.shop.temperature }) : [],
);
const toTake = computed(() => [lotToTake(states.value, 'resin'), lotToTake(states.value, 'hardener')]);
const parts = [
  { value: 'resin', label: 'resin' },
  { value: 'hardener', label: 'hardener' },
] as const;
const cares = [
  { value: 'plain', label: 'as it is' },
  { value: 'stir', label: 'stir it up' },
  { value: 'roll', label: 'roll it' },
] as const;
const keep = (lots: readonly Lot[]) => stored.value && library.save({ ...stored.value, lots: [...lots] });
const lots = computed(() => stored.value?.lots ?? []);
const change = (id: string, changes: Partial<Lot>) =>
  keep(lots.value.map((lot) => (lot.id === id ? { ...lot, ...changes } : lot)));
const add = () =>
  keep([
    ...lots.value,
    {
      ...{
        id: `lot-${newId()
          .toLowerCase()
          .replaceAll(/[^a-z0-9]/g, 'x')}`,
        part: 'resin',
        number: 'new',
      },
      ...{ expires: null, mass: null, storeTemperature: null, care: 'plain' },
    },
  ]);
const valueOf = (event: Event) => (event.target as HTMLInputElement).value.trim();
</script>

<template>
  <section aria-label="Containers" data-testid="lots">
    <h3>Containers of {{ resin.name }} on the shelf</h3>
    <table v-if="states.length > 0" class="sheet">
      <thead>
        <tr>
          <th>What</th>
          <th>Batch number</th>
          <th>Good to</th>
          <th>Holds</th>
          <th>Kept at</th>
          <th>Before use</th>
          <th>To do</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="state in states" :key="state.lot.id" :class="{ past: state.expiry === 'past' }">
          <td>
            <Choice
              size="small"
              :aria-label="`What ${state.lot.number} is`"
              :value="state.lot.part"
              :options="parts"
              @change="change(state.lot.id, { part: $event })"
            />
          </td>
          <td>
            <Input
              size="small"
              :value="state.lot.number"
              :aria-label="`Batch number of ${state.lot.number}`"
              @change="valueOf($event) && change(state.lot.id, { number: valueOf($event) })"
            />
          </td>
          <td>
            <input
              class="date"
              type="date"
              :value="state.lot.expires ?? ''"
              :aria-label="`Date of ${state.lot.number}`"
              @change="change(state.lot.id, { expires: valueOf($event) || null })"
            />
          </td>
          <td>
            <QuantityInput
              hide-label
              :label="`What ${state.lot.number} holds`"
              v-bind="fieldOf(materialSchema, 'lots.mass')"
              :model-value="state.lot.mass"
              @update:model-value="change(state.lot.id, { mass: $event })"
            />
          </td>
          <td>
            <QuantityInput
              hide-label
              :label="`Where ${state.lot.number} is kept`"
              v-bind="fieldOf(materialSchema, 'lots.storeTemperature')"
              :model-value="state.lot.storeTemperature"
              :assumed="shop.shop.temperature"
              @update:model-value="change(state.lot.id, { storeTemperature: $event })"
            />
          </td>
          <td>
            <Choice
              size="small"
              :aria-label="`Care of ${state.lot.number}`"
              :value="state.lot.care"
              :options="cares"
              @change="change(state.lot.id, { care: $event })"
            />
          </td>
          <td>
            <b v-if="toTake.includes(state)" class="moss">Take this one.</b>
            {{ lotWords(state).join(' ') }}
          </td>
          <td>
            <Button
              size="small"
              type="text"
              :aria-label="`Delete ${state.lot.number}`"
              @click="keep(lots.filter(({ id }) => id !== state.lot.id))"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <p v-else class="quiet">
      None written down. With batch numbers and dates the sheet says which to take, and when to take it out of
      the cold.
    </p>
    <p v-if="library.problem" class="ember" role="alert">{{ library.problem }}</p>
    <Button v-if="stored" size="small" type="link" @click="add">Add a container</Button>
  </section>
</template>

<style scoped>
td {
  vertical-align: middle;
}
td :deep(input) {
  padding: 1px 6px;
}
td :deep(.ant-input) {
  width: 78px;
}
td :deep(select) {
  width: 96px;
}
.past td:nth-child(7) {
  color: var(--ember);
}
.date {
  font: inherit;
  border: 1px solid #bdb6a6;
  border-radius: 3px;
  background: var(--sheet);
  padding: 1px 4px;
  width: 124px;
}
</style>
