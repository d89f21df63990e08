<script setup lang="ts">
import { hardenerWord } from '@wick/plan/resin/ratio';
import { lotWords } from '@wick/plan/resin/storage';
import { DEFER, weighed } from '@wick/plan/resin/sheet';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref, watch } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { useMix } from './use-mix.ts';

/** Before anything is opened: which containers, and what can hurt. */
const mix = useMix();
const shop = useShopStore();
const used = ref({ resin: '', hardener: '' });
watch(
  () => [mix.lots.resin, mix.lots.hardener] as const,
  ([resin, hardener]) => (used.value = { resin, hardener }),
  { immediate: true },
);
const show = (mass: number) => weighed(mass, shop.shop, mix.step);
const other = computed(() => hardenerWord(mix.sheet!.resin));
const caution = computed(() => mix.sheet!.steps[0]!.caution);
/** Of the containers that are named. */
const todo = computed(() =>
  mix.lots.states
    .filter(({ lot }) => lot.number === used.value[lot.part])
    .flatMap((state) => lotWords(state).map((words) => `${state.lot.number}: ${words}`)),
);
const done = ref<ReadonlySet<string>>(new Set());
function tick(words: string) {
  const next = new Set(done.value);
  if (!next.delete(words)) next.add(words);
  done.value = next;
}
const begin = () =>
  mix.begin(
    used.value,
    todo.value.filter((words) => done.value.has(words)),
  );
const tooSmall = computed(() => mix.sheet!.batch.mass < mix.sheet!.smallest);
</script>

<template>
  <section aria-label="Containers">
    <p class="large">
      {{ show(mix.sheet!.masses.resin) }} of {{ mix.sheet!.resin.name }} and
      {{ show(mix.sheet!.masses.hardener) }} of {{ other }}
    </p>
    <div class="lots">
      <label>
        <span class="quiet">Batch number of the resin</span>
        <Input v-model:value="used.resin" :maxlength="40" placeholder="from its label" />
      </label>
      <label>
        <span class="quiet">of the {{ other }}</span>
        <Input v-model:value="used.hardener" :maxlength="40" placeholder="from its label" />
      </label>
    </div>
    <label v-for="words in todo" :key="words" class="todo">
      <input type="checkbox" :checked="done.has(words)" @change="tick(words)" />
      <span>{{ words }}</span>
    </label>
    <p v-if="todo.some((words) => !done.has(words))" class="quiet">
      Tick what has been done; it is written down with the batch.
    </p>
    <p v-if="tooSmall" class="ember" role="alert">
      This scale weighs {{ show(mix.sheet!.smallest) }} and more closely enough. Take a finer one, or mix
      more.
    </p>
    <p class="ember">{{ caution }} {{ DEFER }}</p>
    <Button type="primary" size="large" @click="begin">Begin this batch</Button>
  </section>
</template>

<style scoped>
.large {
  font: 600 30px/1.2 var(--display);
  margin: 12px 0;
}
.lots {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 16px;
  max-width: 560px;
  margin-bottom: 10px;
}
.lots label {
  display: flex;
  flex-direction: column;
}
.todo {
  display: grid;
  grid-template-columns: 44px 1fr;
  align-items: center;
  min-height: 44px;
}
.todo input {
  width: 26px;
  height: 26px;
  min-height: 0;
}
</style>
