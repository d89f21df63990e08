<script setup lang="ts">
import { stepCounts, type Step, type StepCount } from '@wick/contract/steps';
import { processes, type ProcessId } from '@wick/plan/processes/processes';
import Input from 'ant-design-vue/es/input';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { countWords } from './count-words.ts';

/** One step of the library, to be changed. */
const props = defineProps<{ step: Step }>();
const emit = defineEmits<{ change: [changes: Partial<Step>] }>();
const typed = (event: Event) => (event.target as HTMLInputElement).value.trim();
const processIds = Object.keys(processes) as ProcessId[];
function toggle(id: ProcessId) {
  const { processes: own } = props.step;
  emit('change', { processes: processIds.filter((one) => own.includes(one) !== (one === id)) });
}
const usualWait = { word: 'Ready for what follows', opens: 900, closes: null, temperature: null };
const setWait = (changes: Partial<NonNullable<Step['wait']>>) =>
  emit('change', { wait: { ...(props.step.wait ?? usualWait), ...changes } });
</script>

<template>
  <div class="form">
    <label
      >What is done
      <Input :value="step.title" :maxlength="80" @change="emit('change', { title: typed($event) })"
    /></label>
    <label
      >Why <Input :value="step.why" :maxlength="300" @change="emit('change', { why: typed($event) })"
    /></label>
    <label
      >Caution
      <Input :value="step.caution" :maxlength="300" @change="emit('change', { caution: typed($event) })"
    /></label>
    <label
      >From the kit, with commas between
      <Input
        :value="step.takes.join(', ')"
        @change="
          emit('change', {
            takes: typed($event)
              .split(',')
              .map((one) => one.trim())
              .filter(Boolean),
          })
        "
    /></label>
    <label
      >Who <Input :value="step.who" :maxlength="40" @change="emit('change', { who: typed($event) })"
    /></label>
    <label
      >Done
      <Choice
        :value="step.each"
        :options="stepCounts.map((value) => ({ value, label: countWords[value] }))"
        @change="emit('change', { each: $event as StepCount })"
    /></label>
    <fieldset>
      <legend>In these processes (none ticked: in all)</legend>
      <label v-for="id in processIds" :key="id" class="tick"
        ><input type="checkbox" :checked="step.processes.includes(id)" @change="toggle(id)" />
        {{ processes[id].name }}</label
      >
    </fieldset>
    <QuantityInput
      :model-value="step.lasts"
      label="Hands on"
      quantity="duration"
      unit="min"
      optional
      :limits="{ atLeast: 0, below: 1e7 }"
      @update:model-value="emit('change', { lasts: $event })"
    />
    <label class="tick"
      ><input type="checkbox" :checked="step.photo" @change="emit('change', { photo: !step.photo })" /> a
      picture is asked for</label
    >
    <label class="tick"
      ><input
        type="checkbox"
        :checked="step.wait !== null"
        @change="emit('change', { wait: step.wait ? null : usualWait })"
      />
      starts a clock</label
    >
    <template v-if="step.wait">
      <label
        >Its name <Input :value="step.wait.word" :maxlength="60" @change="setWait({ word: typed($event) })"
      /></label>
      <QuantityInput
        :model-value="step.wait.opens"
        label="It is time after"
        quantity="duration"
        unit="min"
        :limits="{ atLeast: 0, below: 1e7 }"
        @update:model-value="setWait({ opens: $event ?? step.wait!.opens })"
      />
      <QuantityInput
        :model-value="step.wait.closes"
        label="Too late after (blank: never)"
        quantity="duration"
        unit="min"
        optional
        :limits="{ above: 0, below: 1e7 }"
        @update:model-value="setWait({ closes: $event })"
      />
      <QuantityInput
        :model-value="step.wait.temperature"
        label="Both at (blank: at any temperature)"
        quantity="temperature"
        optional
        :limits="{ above: 233, below: 473 }"
        @update:model-value="setWait({ temperature: $event })"
      />
    </template>
  </div>
</template>

<style scoped>
.form {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 20px;
  padding: 8px 0 14px 16px;
  border-left: 3px solid var(--resin);
}
label {
  font-size: 12px;
  color: var(--quiet);
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
}
legend {
  font-size: 12px;
  color: var(--quiet);
  padding: 0;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
}
</style>
