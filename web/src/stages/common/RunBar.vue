<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { keepOwnName } from '../../data/own-name.ts';
import { stream } from '../../data/stream.ts';
import Choice from '../../ui/Choice.vue';

/** Which part is being made, or which rehearsal; by whom; and whether all of it has been sent. */
const run = useRun();
const options = computed(() =>
  run.runs.map(({ id, number, kind, speed, startedAt }) => ({
    value: id,
    label: `${kind === 'part' ? 'Part' : 'Rehearsal'} ${number}, ${new Date(startedAt).toLocaleDateString('sv-SE')}${speed > 1 ? `, ${speed} times as quick` : ''}`,
  })),
);
/** With gloves on a button is soon hit: a part beside one that is being made is begun by a second tap. */
const isAsked = ref(false);
const ASKED_FOR = 5000;
function beginPart() {
  if (options.value.length > 0 && !isAsked.value) {
    isAsked.value = true;
    setTimeout(() => (isAsked.value = false), ASKED_FOR);
    return;
  }
  isAsked.value = false;
  void run.begin('part');
}
const speeds = [
  { value: '', label: 'Rehearse …' },
  { value: '1', label: 'with a simulated bag' },
  { value: '10', label: 'ten times as quick' },
  { value: '60', label: 'sixty times as quick' },
];
const rehearse = (speed: string) => speed !== '' && void run.begin('rehearsal', Number(speed));
</script>

<template>
  <div class="tools bar">
    <Choice
      v-if="options.length > 0"
      class="run"
      size="small"
      aria-label="Run"
      :value="run.run?.id ?? ''"
      :options="options"
      @change="run.choose(String($event))"
    />
    <span v-else-if="run.isLoaded" class="quiet">No part of this job has been begun.</span>
    <Button size="small" @click="beginPart">{{
      options.length === 0 ? 'Begin a part' : isAsked ? 'Yes, begin the next part' : 'Next part'
    }}</Button>
    <Choice
      class="rehearse"
      size="small"
      aria-label="Rehearse"
      value=""
      :options="speeds"
      @change="rehearse(String($event))"
    />
    <label class="by">
      <span class="quiet">By</span>
      <Input
        size="small"
        :value="run.by"
        placeholder="your name"
        :maxlength="40"
        @change="keepOwnName(($event.target as HTMLInputElement).value)"
      />
    </label>
    <span v-if="run.run?.endedAt" class="rehearsal">Nobody came back to this rehearsal: it has ended.</span>
    <span v-else-if="run.rehearsalId" class="rehearsal">Rehearsal: nothing here is a real part.</span>
    <span v-if="run.waitingCount > 0" class="ember" role="status" data-testid="waiting"
      >{{ run.waitingCount }} not sent yet</span
    >
    <span v-if="stream.isLost.value" class="ember" role="status"
      >No word from the server: what is said here is kept, what others say does not come in.</span
    >
  </div>
  <p v-if="run.message ?? run.refusal" class="ember" role="alert">{{ run.message ?? run.refusal }}</p>
</template>

<style scoped>
.bar {
  margin-bottom: 8px;
}
.run {
  width: 220px;
}
.rehearse {
  width: 130px;
}
.by {
  display: flex;
  align-items: center;
  gap: 6px;
}
.by :deep(input) {
  width: 90px;
}
.rehearsal {
  color: var(--resin-ink);
  font-weight: 600;
}
</style>
