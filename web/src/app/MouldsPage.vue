<script setup lang="ts">
import { pullsSinceCoat, openLeaks } from '@wick/plan/mould/words';
import { mouldWords } from '@wick/plan/review/mould-learning';
import { mouldSides, type Mould } from '@wick/contract/mould';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import InputNumber from 'ant-design-vue/es/input-number';
import Popconfirm from 'ant-design-vue/es/popconfirm';
import { computed, onMounted, ref } from 'vue';
import { useMouldStore } from '../data/mould-store.ts';
import MouldHistory from '../ui/MouldHistory.vue';
import PageHeader from './PageHeader.vue';
import Choice from '../ui/Choice.vue';

/** The workshop's moulds and what has happened to each. */
const store = useMouldStore();
const chosenId = ref<string | null>(null);
onMounted(store.load);
const moulds = computed(() => (store.moulds ?? []).map(({ mould }) => mould));
const chosen = computed(
  () => moulds.value.find(({ id }) => id === chosenId.value) ?? moulds.value[0] ?? null,
);
const conditions = ['sound', 'worn', 'damaged'].map((value) => ({ value, label: value }));

async function create() {
  let n = moulds.value.length + 1;
  while (store.find(`mould-${n}`)) n += 1;
  const id = `mould-${n}`;
  if (
    await store.save({ id, name: `Mould ${n}`, material: '', plies: null, condition: 'sound', history: [] })
  )
    chosenId.value = id;
}
const set = (changes: Partial<Mould>) => chosen.value && void store.save({ ...chosen.value, ...changes });
const learned = computed(() =>
  mouldSides.flatMap((side) => (chosen.value && mouldWords(chosen.value, side)) ?? []),
);
const textOf = (event: Event) => (event.target as HTMLInputElement).value;
const lastEvent = ({ history }: Mould) =>
  history
    .map(({ date }) => date)
    .sort()
    .at(-1) ?? '';
</script>

<template>
  <PageHeader />
  <main>
    <div class="tools">
      <h1>Is the mould fit for the next part?</h1>
      <Button type="primary" @click="create">New mould</Button>
    </div>
    <p v-if="store.problem" class="ember" role="alert">{{ store.problem }}</p>
    <p v-if="store.moulds === null && !store.problem" class="quiet">Fetching the moulds …</p>
    <p v-else-if="moulds.length === 0" class="quiet">No moulds yet. Add one; jobs can then be made on it.</p>
    <div v-else class="columns">
      <table class="sheet" aria-label="Moulds">
        <thead>
          <tr>
            <th>Mould</th>
            <th>Condition</th>
            <th>Pulls since coat</th>
            <th>Open leaks</th>
            <th>Last entry</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="mould in moulds" :key="mould.id" :class="{ here: mould === chosen }">
            <td>
              <button class="plain name" @click="chosenId = mould.id">{{ mould.name }}</button>
            </td>
            <td :class="{ ember: mould.condition === 'damaged' }">{{ mould.condition }}</td>
            <td class="number">{{ pullsSinceCoat(mould.history) ?? 'no coat' }}</td>
            <td :class="['number', { ember: openLeaks(mould.history).length > 0 }]">
              {{ openLeaks(mould.history).length || '' }}
            </td>
            <td class="number">{{ lastEvent(mould) }}</td>
          </tr>
        </tbody>
      </table>
      <section v-if="chosen" :key="chosen.id">
        <div class="fields">
          <label
            ><span class="quiet">Name</span
            ><Input
              :value="chosen.name"
              aria-label="Name of the mould"
              :maxlength="80"
              @change="set({ name: textOf($event).trim() || chosen.name })"
          /></label>
          <label
            ><span class="quiet">Made of</span
            ><Input
              :value="chosen.material"
              aria-label="Material of the mould"
              :maxlength="80"
              @change="set({ material: textOf($event).trim() })"
          /></label>
          <label
            ><span class="quiet">Plies</span
            ><InputNumber
              :value="chosen.plies ?? undefined"
              :min="1"
              :max="200"
              :precision="0"
              aria-label="Plies of the mould"
              @change="set({ plies: $event ? Number($event) : null })"
          /></label>
          <label
            ><span class="quiet">Condition</span
            ><Choice
              :value="chosen.condition"
              :options="conditions"
              aria-label="Condition"
              @change="set({ condition: $event as Mould['condition'] })"
          /></label>
          <Popconfirm
            :title="`Delete “${chosen.name}” and its history?`"
            ok-text="Delete"
            cancel-text="Keep"
            @confirm="store.remove(chosen.id)"
          >
            <Button danger>Delete</Button>
          </Popconfirm>
        </div>
        <p v-if="learned.length > 0" data-testid="mould-learned">{{ learned.join('. ') }}.</p>
        <MouldHistory :mould="chosen" @change="store.save($event)" />
        <p class="quiet small">
          Release agents and solvents: air the room, no flames, gloves. Follow the safety data sheet and your
          site’s rules.
        </p>
      </section>
    </div>
  </main>
</template>

<style scoped>
main {
  padding: 14px 24px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(380px, 0.8fr) minmax(460px, 1fr);
  gap: 32px;
  margin-top: 12px;
  align-items: start;
}
.name {
  font: 600 15px var(--display);
}
.here td {
  background: #f2e4c4;
}
td {
  padding: 6px 8px 6px 4px !important;
}
.fields {
  display: flex;
  gap: 10px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
}
.small {
  font-size: 12px;
}
</style>
