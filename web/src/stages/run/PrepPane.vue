<script setup lang="ts">
import { setPrep, usualGelCoat } from '@wick/plan/card/edits';
import { coatsOf, recipeOf, releaseDuration, releaseFaults } from '@wick/plan/card/release';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed } from 'vue';
import { useCard, useSession } from '../../compute/use-desk.ts';
import { useMouldStore } from '../../data/mould-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useStepsStore } from '../../data/steps-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** What the mould gets before the first ply, in the plan: release, gel coat, skin coat. */
const job = useSession();
const work = useCard();
const shop = useShopStore();
const steps = useStepsStore();
const moulds = useMouldStore();
const prep = computed(() => job.document.prep);
const library = computed(() => steps.stored?.steps ?? null);
const mould = computed(() => (job.document.mould && moulds.find(job.document.mould.id)?.mould) ?? null);
const recipe = computed(() => library.value && recipeOf(library.value, prep.value.releaseId));
const coats = computed(() => (recipe.value ? coatsOf(recipe.value, mould.value) : []));
const duration = (value: number) => shop.show(value, 'duration');
const set = (changes: Parameters<typeof setPrep>[0], label: string) => job.apply(setPrep(changes), label);
const setGel = (changes: Partial<typeof usualGelCoat>) =>
  set({ gelCoat: { ...(prep.value.gelCoat ?? usualGelCoat), ...changes } }, 'gel coat');
function setFilm(end: 'low' | 'high', value: number | null) {
  if (value === null || !prep.value.gelCoat) return;
  setGel({ film: { ...prep.value.gelCoat.film, [end]: value } });
}
const BACKWARD = 'A film ranges from less to more.';
const passes = Array.from({ length: 10 }, (_, n) => ({ value: n + 1, label: String(n + 1) }));
</script>

<template>
  <div class="prep">
    <section aria-label="Release">
      <h2>Release</h2>
      <Choice
        v-if="library"
        :value="recipe?.id"
        :options="library.recipes.map(({ id, name }) => ({ value: id, label: name }))"
        aria-label="Release system"
        @change="set({ releaseId: String($event) }, 'release')"
      />
      <p class="quiet">{{ recipe?.note }}</p>
      <p v-for="fault in recipe ? releaseFaults(recipe, mould) : []" :key="fault" class="ember">
        {{ fault }}
      </p>
      <table class="sheet" data-testid="coats">
        <thead>
          <tr>
            <th>after</th>
            <th>coat</th>
            <th>then</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="coat in coats" :key="`${coat.name} ${coat.number}`">
            <td class="number">{{ duration(coat.at) }}</td>
            <td>{{ coat.name }} {{ coat.number }} of {{ coat.count }}</td>
            <td>
              <template v-if="coat.haze !== null">hazes {{ duration(coat.haze) }}, wiped; </template
              ><template v-if="coat.opens > 0">{{ duration(coat.opens) }}</template
              ><template v-if="coat.closes !== null"> and then within {{ duration(coat.closes) }}</template>
            </td>
          </tr>
          <tr>
            <td class="number">{{ duration(releaseDuration(coats)) }}</td>
            <td colspan="2"><b>the mould may be used</b></td>
          </tr>
        </tbody>
      </table>
      <p class="quiet">
        {{
          mould
            ? `As the record of ${mould.name} has it.`
            : 'No mould is chosen under Part: taken as a used one.'
        }}
      </p>
    </section>
    <section aria-label="Gel coat">
      <h2>Gel coat</h2>
      <template v-if="prep.gelCoat">
        <Input
          :value="prep.gelCoat.name"
          :maxlength="60"
          aria-label="Name of the gel coat"
          @change="setGel({ name: ($event.target as HTMLInputElement).value.trim() || usualGelCoat.name })"
        />
        <div class="fields">
          <label>
            <span class="quiet">Passes</span>
            <Choice
              :value="prep.gelCoat.passes"
              :options="passes"
              aria-label="Passes"
              @change="setGel({ passes: Number($event) })"
            />
          </label>
          <QuantityInput
            :model-value="prep.gelCoat.film.low"
            label="Wet film, from"
            quantity="thickness"
            :limits="{ above: 0, below: 0.02 }"
            :refuse="(value) => (value < prep.gelCoat!.film.high ? null : BACKWARD)"
            @update:model-value="setFilm('low', $event)"
          />
          <QuantityInput
            :model-value="prep.gelCoat.film.high"
            label="to"
            quantity="thickness"
            :limits="{ above: 0, below: 0.02 }"
            :refuse="(value) => (value > prep.gelCoat!.film.low ? null : BACKWARD)"
            @update:model-value="setFilm('high', $event)"
          />
        </div>
        <Button @click="set({ gelCoat: null }, 'gel coat')">No gel coat</Button>
      </template>
      <Button v-else @click="setGel({})">With a gel coat</Button>
      <h2>Skin coat</h2>
      <Input
        :value="prep.barrier ?? ''"
        :maxlength="120"
        placeholder="none; or what it is made of"
        aria-label="Skin coat"
        @change="set({ barrier: ($event.target as HTMLInputElement).value.trim() || null }, 'skin coat')"
      />
      <p class="more">
        <RouterLink to="/steps">Steps and release systems of this workshop</RouterLink>
        <span v-if="work.plan" class="quiet">
          · this run: plan {{ work.plan.number }}, steps {{ work.plan.stepsRevision }}</span
        >
      </p>
    </section>
  </div>
</template>

<style scoped>
.prep {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 0 32px;
}
h2 {
  font-size: 18px;
  margin: 8px 0 4px;
}
.fields {
  display: flex;
  gap: 12px;
  align-items: end;
  margin: 8px 0;
}
.fields label span {
  display: block;
  font-size: 12px;
}
p {
  margin: 6px 0;
}
@media (max-width: 760px) {
  .prep {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
