<script setup lang="ts">
import { phases, type Phase, type Step, type StepLibrary } from '@wick/contract/steps';
import { newId } from '@wick/plan/job/ids';
import { phaseNames } from '@wick/plan/card/step';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { countWords } from './count-words.ts';
import StepForm from './StepForm.vue';

/** Steps phase by phase: one is opened to be changed. */
const props = defineProps<{ library: StepLibrary }>();
const emit = defineEmits<{ change: [library: StepLibrary] }>();
const openId = ref<string | null>(null);
const search = ref('');
const groups = computed(() =>
  phases.map((phase) => ({
    phase,
    steps: props.library.steps.filter(
      (step) =>
        step.phase === phase &&
        `${step.title} ${step.why} ${step.takes.join(' ')}`
          .toLowerCase()
          .includes(search.value.trim().toLowerCase()),
    ),
  })),
);
const withSteps = (steps: Step[]) => emit('change', { ...props.library, steps });
const update = (id: string, changes: Partial<Step>) =>
  withSteps(props.library.steps.map((step) => (step.id === id ? { ...step, ...changes } : step)));

/** Among those of its phase. */
function move(step: Step, by: -1 | 1) {
  const own = props.library.steps.filter(({ phase }) => phase === step.phase);
  const other = own[own.indexOf(step) + by];
  if (!other) return;
  withSteps(props.library.steps.map((one) => (one === step ? other : one === other ? step : one)));
}
function add(phase: Phase) {
  const step: Step = {
    ...{
      id: `own-${newId()}`,
      phase,
      title: 'New step',
      why: '',
      caution: '',
      takes: [],
      who: '',
      lasts: null,
    },
    ...{ each: 'once', processes: [], wait: null, photo: false, isUsed: true },
  };
  const last = props.library.steps.findLastIndex((one) => one.phase === phase);
  withSteps(props.library.steps.toSpliced(last + 1, 0, step));
  openId.value = step.id;
}
const isOwn = ({ id }: Step) => id.startsWith('own-');
</script>

<template>
  <Input v-model:value="search" class="search" placeholder="find" aria-label="Find a step" allow-clear />
  <section v-for="group in groups" :key="group.phase">
    <div class="top">
      <h2>{{ phaseNames[group.phase] }}</h2>
      <Button size="small" @click="add(group.phase)">Add a step</Button>
    </div>
    <ul>
      <li v-for="step in group.steps" :key="step.id" :class="{ off: !step.isUsed }">
        <div class="row">
          <button
            class="plain title"
            :aria-expanded="openId === step.id"
            @click="openId = openId === step.id ? null : step.id"
          >
            {{ step.title }}<template v-if="step.each !== 'once'"> …</template>
            <small class="quiet"
              >{{ step.each === 'once' ? '' : `${countWords[step.each]}. ` }}{{ step.why }}</small
            >
          </button>
          <label
            ><input
              type="checkbox"
              :checked="step.isUsed"
              @change="update(step.id, { isUsed: !step.isUsed })"
            />
            done here</label
          >
          <Button size="small" :aria-label="`${step.title}: sooner`" @click="move(step, -1)">↑</Button>
          <Button size="small" :aria-label="`${step.title}: later`" @click="move(step, 1)">↓</Button>
          <Button
            v-if="isOwn(step)"
            size="small"
            @click="withSteps(library.steps.filter(({ id }) => id !== step.id))"
            >Remove</Button
          >
        </div>
        <StepForm v-if="openId === step.id" :step="step" @change="update(step.id, $event)" />
      </li>
    </ul>
  </section>
</template>

<style scoped>
.search {
  width: 260px;
}
.top {
  display: flex;
  gap: 12px;
  align-items: center;
  margin-top: 12px;
}
h2 {
  font-size: 17px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.row {
  display: flex;
  gap: 10px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
  min-height: 34px;
}
.title {
  flex: 1;
}
.off .title {
  color: var(--quiet);
  text-decoration: line-through;
}
small {
  margin-left: 8px;
}
</style>
