<script setup lang="ts">
import type { Coat, ReleaseRecipe, StepLibrary } from '@wick/contract/steps';
import { coatsOf, releaseDuration, releaseFaults } from '@wick/plan/card/release';
import { newId } from '@wick/plan/job/ids';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Release systems: coats in order, with their waits. */
const props = defineProps<{ library: StepLibrary }>();
const emit = defineEmits<{ change: [library: StepLibrary] }>();
const shop = useShopStore();
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim();
const limits = { atLeast: 0, below: 1e7 };
const withRecipes = (recipes: ReleaseRecipe[]) => emit('change', { ...props.library, recipes });
const update = (id: string, changes: Partial<ReleaseRecipe>) =>
  withRecipes(props.library.recipes.map((recipe) => (recipe.id === id ? { ...recipe, ...changes } : recipe)));
const updateCoat = (recipe: ReleaseRecipe, n: number, changes: Partial<Coat>) =>
  update(recipe.id, { coats: recipe.coats.map((coat, i) => (i === n ? { ...coat, ...changes } : coat)) });
const freshCoat: Coat = { name: 'Coat', count: 1, onNew: null, apart: 900, haze: null, after: 900 };
const add = () =>
  withRecipes([
    ...props.library.recipes,
    {
      id: `own-${newId()}`,
      name: 'New system',
      kind: 'semiPermanent',
      coats: [freshCoat],
      within: null,
      pulls: null,
      note: '',
    },
  ]);
const counts = Array.from({ length: 20 }, (_, n) => ({ value: n + 1, label: String(n + 1) }));
const kinds = [
  { value: 'wax' as const, label: 'wax' },
  { value: 'semiPermanent' as const, label: 'semi-permanent' },
  { value: 'film' as const, label: 'film' },
];
const inAll = (recipe: ReleaseRecipe) => shop.show(releaseDuration(coatsOf(recipe, null)), 'duration');
</script>

<template>
  <section v-for="recipe in library.recipes" :key="recipe.id" class="recipe">
    <div class="top">
      <Input
        :value="recipe.name"
        :maxlength="60"
        aria-label="Name"
        @change="update(recipe.id, { name: typed($event) })"
      />
      <Choice
        :value="recipe.kind"
        :options="kinds"
        aria-label="Kind"
        @change="update(recipe.id, { kind: $event })"
      />
      <QuantityInput
        :model-value="recipe.within"
        label="What follows within (blank: any time)"
        quantity="duration"
        unit="min"
        optional
        :limits="{ above: 0, below: 1e7 }"
        @update:model-value="update(recipe.id, { within: $event })"
      />
      <span class="quiet">{{ inAll(recipe) }} in all on a used mould</span>
      <Button
        size="small"
        :disabled="library.recipes.length === 1"
        @click="withRecipes(library.recipes.filter(({ id }) => id !== recipe.id))"
        >Remove</Button
      >
    </div>
    <p v-for="words in releaseFaults(recipe, null)" :key="words" class="ember">{{ words }}</p>
    <table class="sheet">
      <thead>
        <tr>
          <th>coat</th>
          <th>how many</th>
          <th>on a new mould</th>
          <th>apart</th>
          <th>hazes</th>
          <th>after the last</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(coat, n) in recipe.coats" :key="n">
          <td>
            <Input
              :value="coat.name"
              :maxlength="60"
              aria-label="Coat"
              @change="updateCoat(recipe, n, { name: typed($event) })"
            />
          </td>
          <td>
            <Choice
              :value="coat.count"
              :options="counts"
              aria-label="How many"
              @change="updateCoat(recipe, n, { count: $event })"
            />
          </td>
          <td>
            <Choice
              :value="coat.onNew ?? coat.count"
              :options="counts"
              aria-label="On a new mould"
              @change="updateCoat(recipe, n, { onNew: $event })"
            />
          </td>
          <td v-for="key in ['apart', 'haze', 'after'] as const" :key="key">
            <QuantityInput
              :model-value="coat[key]"
              :label="{ apart: 'Apart', haze: 'Hazes for', after: 'After the last' }[key]"
              hide-label
              quantity="duration"
              unit="min"
              optional
              :limits="limits"
              @update:model-value="updateCoat(recipe, n, { [key]: key === 'haze' ? $event : ($event ?? 0) })"
            />
          </td>
          <td>
            <Button
              size="small"
              :disabled="recipe.coats.length === 1"
              @click="update(recipe.id, { coats: recipe.coats.toSpliced(n, 1) })"
              >Remove</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div class="top">
      <Button
        size="small"
        :disabled="recipe.coats.length >= 8"
        @click="update(recipe.id, { coats: [...recipe.coats, freshCoat] })"
        >Add a coat</Button
      >
      <Input
        class="note"
        :value="recipe.note"
        :maxlength="300"
        aria-label="Note"
        placeholder="note"
        @change="update(recipe.id, { note: typed($event) })"
      />
    </div>
  </section>
  <Button :disabled="library.recipes.length >= 40" @click="add">Add a release system</Button>
</template>

<style scoped>
.recipe {
  margin-bottom: 22px;
}
.top {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: auto;
  justify-content: start;
  gap: 12px;
  align-items: end;
  margin: 6px 0;
}
input.note {
  width: min(620px, 50vw);
}
.recipe .top :deep(input) {
  min-width: 220px;
}
</style>
