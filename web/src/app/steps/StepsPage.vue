<script setup lang="ts">
import type { StoredSteps } from '@wick/contract/api';
import { stepLibrarySchema, type StepLibrary } from '@wick/contract/steps';
import { sentenceOf } from '@wick/plan/files/read';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { api } from '../../data/api.ts';
import { keepOwnName, ownName } from '../../data/own-name.ts';
import { useStepsStore } from '../../data/steps-store.ts';
import Tabs from '../../ui/Tabs.vue';
import PageHeader from '../PageHeader.vue';
import RecipeTable from './RecipeTable.vue';
import StepTable from './StepTable.vue';

/** The workshop's own way of working: its steps and its release systems, revision by revision. */
const steps = useStepsStore();
const draft = shallowRef<StepLibrary | null>(null);
const history = shallowRef<readonly StoredSteps[]>([]);
const pane = ref<'steps' | 'release' | 'history'>('steps');
const panes = [
  { value: 'steps' as const, label: 'Steps' },
  { value: 'release' as const, label: 'Release systems' },
  { value: 'history' as const, label: 'Revisions' },
];
const shown = computed(() => draft.value ?? steps.stored?.steps ?? null);
const fault = computed(() => {
  const read = draft.value && stepLibrarySchema.safeParse(draft.value);
  return read && !read.success ? sentenceOf(read.error) : null;
});
const isNamed = computed(() => ownName.value !== '');

async function load() {
  await steps.load();
  history.value = await api.stepsHistory().catch(() => []);
}
onMounted(load);
async function save() {
  if (!draft.value || !(await steps.save(draft.value, ownName.value))) return;
  draft.value = null;
  await load();
}
const when = (at: string) => new Date(at).toLocaleString([], { dateStyle: 'medium', timeStyle: 'short' });
</script>

<template>
  <div class="page">
    <PageHeader />
    <main>
      <div class="head">
        <h1>How is a part made here?</h1>
        <Tabs v-model="pane" class="tools" label="Steps" :tabs="panes" />
      </div>
      <p class="quiet intro">
        Each job fills in its own: every ply, corner, pleat and valve. A run keeps the steps that it began
        with.
      </p>
      <div class="save tools">
        <label>
          <span class="quiet">By</span>
          <Input
            size="small"
            :value="ownName"
            placeholder="your name"
            :maxlength="40"
            @change="keepOwnName(($event.target as HTMLInputElement).value)"
          />
        </label>
        <Button type="primary" :disabled="!draft || fault !== null || !isNamed" @click="save">{{
          steps.stored ? `Save as revision ${steps.stored.revision + 1}` : 'Save'
        }}</Button>
        <Button :disabled="!draft" @click="draft = null">Give up the changes</Button>
        <span v-if="draft && !isNamed" class="quiet">A revision has a name to it: type yours.</span>
        <span v-if="fault" class="ember" role="alert">{{ fault }}</span>
        <span v-if="steps.problem" class="ember" role="alert">{{ steps.problem }}</span>
      </div>
      <p v-if="!shown" class="quiet">Fetching the steps …</p>
      <StepTable v-else-if="pane === 'steps'" :library="shown" @change="draft = $event" />
      <RecipeTable v-else-if="pane === 'release'" :library="shown" @change="draft = $event" />
      <table v-else class="sheet">
        <tbody>
          <tr v-for="one in history" :key="one.revision">
            <td class="number">{{ one.revision }}</td>
            <td>{{ when(one.changedAt) }}</td>
            <td>{{ one.by || 'as it came' }}</td>
            <td>{{ one.steps.steps.length }} steps, {{ one.steps.recipes.length }} release systems</td>
            <td>
              <Button
                v-if="one.revision !== steps.stored?.revision"
                size="small"
                @click="
                  draft = one.steps;
                  pane = 'steps';
                "
                >Take it back</Button
              >
            </td>
          </tr>
        </tbody>
      </table>
    </main>
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  display: flex;
  flex-direction: column;
}
main {
  flex: 1;
  overflow: auto;
  padding: 14px 24px;
}
.intro {
  margin: 4px 0 10px;
}
.save {
  margin-bottom: 10px;
}
.save label {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
