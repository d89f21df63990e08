<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import type { EntryBody } from '@wick/contract/run/run';
import { mostThroughput } from '@wick/core/vacuum/drop-test';
import { useRun } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import { useBench } from './bench.ts';

/** What the simulated bag is made to suffer. */
const bench = useBench();
const run = useRun();
const placeId = ref<string>('');
const places = computed(() => [
  { value: '', label: 'at the likeliest place' },
  ...(bench.places.value ?? []).map(({ id, name }) => ({ value: id, label: name })),
]);
const limit = computed(() => (bench.budget.value ? mostThroughput(bench.budget.value) : 1e-3));
/** A wet core gives off so much in the end, Pa; the weather falls by so much an hour, Pa. */
const [WET, WEATHER] = [1500, -300];
type What = Extract<EntryBody, { kind: 'trouble' }>['what'];
const suffer = (what: What, amount = 0) =>
  run.say({ kind: 'trouble', what, placeId: what === 'leak' ? placeId.value || null : null, amount });
</script>

<template>
  <h3>Trouble for the rehearsal</h3>
  <div class="tools wrap">
    <Choice
      v-model:value="placeId"
      size="small"
      class="place"
      :options="places"
      aria-label="Where it leaks"
    />
    <Button size="small" @click="suffer('leak', 6 * limit)">A leak</Button>
    <Button size="small" @click="suffer('leak', 0.6 * limit)">A small leak</Button>
    <Button size="small" @click="suffer('wetCore', WET)">A wet core</Button>
    <Button size="small" @click="suffer('pumpDies')">The pump dies</Button>
    <Button size="small" @click="suffer('silent')">The gauge falls silent</Button>
    <Button size="small" @click="suffer('heaterOff')">The heater cuts out</Button>
    <Button size="small" @click="suffer('weather', WEATHER)">The weather turns</Button>
    <Button size="small" @click="suffer('drawn', Math.floor(Math.random() * 1e6))">Surprise me</Button>
    <Button size="small" @click="suffer('none')">All well again</Button>
  </div>
</template>

<style scoped>
.place {
  width: 240px;
}
.wrap {
  flex-wrap: wrap;
}
</style>
