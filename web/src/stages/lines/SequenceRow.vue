<script setup lang="ts">
import type { JobAction, JobLine, JobTrigger } from '@wick/contract/job/job';
import { formatClock } from '@wick/core/units/format';
import { removeAction, updateAction } from '@wick/plan/layout/sequence';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import JobField from '../common/JobField.vue';
import { doingWords, freshTrigger, passings, triggerKinds } from './sequence-words.ts';
import { useScript } from './use-script.ts';

/** The cells of one action: what a line does, what it waits for, and the minute it comes to. */
const props = defineProps<{ line: JobLine; action: JobAction; lines: readonly JobLine[] }>();
const job = useSession();
const forecast = useForecast();
const script = useScript();

const doings = [
  { value: 1, label: 'opens' },
  { value: 0.5, label: 'throttles to 50 %' },
  { value: 0.25, label: 'throttles to 25 %' },
  { value: 0, label: 'shuts' },
];
const offered = computed(() => {
  const { opening } = props.action;
  return doings.some(({ value }) => value === opening)
    ? doings
    : [...doings, { value: opening, label: doingWords({ opening }) }];
});
const targets = computed(() => {
  const { kind } = props.action.when;
  const asOptions = (items: readonly { id: string; name: string }[]) =>
    items.map(({ id, name }) => ({ value: id, label: name }));
  if (kind === 'zoneFull') return asOptions(job.laid.zones);
  return asOptions(kind === 'passed' ? [...props.lines, ...job.laid.marks] : props.lines);
});
const turn = computed(() => ({ lineId: props.line.id, actionId: props.action.id }));
const change = (changes: Partial<JobAction>) =>
  job.apply(updateAction(turn.value, changes), 'change of a turn');
/** One value of what it waits for. */
const setWhen = (
  changes: Partial<
    Record<'what' | 'zone' | 'at', string> & Record<'time' | 'mass' | 'distance' | 'delay', number>
  >,
) => change({ when: { ...props.action.when, ...changes } as JobTrigger });
function setKind(kind: JobTrigger['kind']) {
  const when = freshTrigger(kind, job.laid, props.line.id);
  if (when) change({ when });
}
/** It waits for a line, which is long, rather than for a mark. */
const isOfLine = computed(() => {
  const { when } = props.action;
  return (
    when.kind === 'passed' && props.lines.some(({ id, points }) => id === when.what && points.length > 1)
  );
});
/** The minute it came to. */
const happens = computed(() => {
  const time = script.value.find(({ actionId }) => actionId === props.action.id)?.time;
  if (time === null || time === undefined) return forecast.flow ? 'not in this run' : '';
  return Number.isFinite(time) ? formatClock(time) : 'not before gel';
});
</script>

<template>
  <td :class="['number', line.kind]">{{ line.name }}</td>
  <td>
    <Choice
      size="small"
      class="doing"
      :value="action.opening"
      :options="offered"
      :aria-label="`What ${line.name} does`"
      @change="change({ opening: Number($event) })"
    />
  </td>
  <td>
    <Choice
      size="small"
      class="kind"
      :value="action.when.kind"
      :options="triggerKinds.map(({ kind, label }) => ({ value: kind, label }))"
      :aria-label="`What ${line.name} waits for`"
      @change="setKind($event as JobTrigger['kind'])"
    />
  </td>
  <td>
    <Choice
      v-if="'what' in action.when"
      size="small"
      class="target"
      :value="action.when.what"
      :options="targets"
      :aria-label="`Line or mark ${line.name} waits for`"
      @change="setWhen({ what: String($event) })"
    />
    <Choice
      v-else-if="action.when.kind === 'zoneFull'"
      size="small"
      class="target"
      :value="action.when.zone"
      :options="targets"
      aria-label="Zone it waits for"
      @change="setWhen({ zone: String($event) })"
    />
    <JobField
      v-else-if="action.when.kind === 'time'"
      hide-label
      label="Minute from first mix"
      path="layouts.lines.actions.when.time"
      :model-value="action.when.time"
      @update:model-value="setWhen({ time: $event! })"
    />
    <JobField
      v-else-if="action.when.kind === 'drawn'"
      hide-label
      label="Resin drawn"
      path="layouts.lines.actions.when.mass"
      :model-value="action.when.mass"
      @update:model-value="setWhen({ mass: $event! })"
    />
    <Choice
      v-if="isOfLine && action.when.kind === 'passed'"
      size="small"
      class="where"
      :value="action.when.at ?? 'last'"
      :options="passings"
      :aria-label="`Where ${line.name} looks at it`"
      @change="setWhen({ at: String($event) })"
    />
  </td>
  <td class="small">
    <JobField
      v-if="action.when.kind === 'passed'"
      hide-label
      label="and gone so far beyond it"
      path="layouts.lines.actions.when.distance"
      :model-value="action.when.distance"
      @update:model-value="setWhen({ distance: $event! })"
    />
  </td>
  <td class="small">
    <JobField
      v-if="action.when.kind !== 'time'"
      hide-label
      label="and so long after"
      path="layouts.lines.actions.when.delay"
      :model-value="action.when.delay"
      @update:model-value="setWhen({ delay: $event! })"
    />
  </td>
  <td class="number">{{ happens }}</td>
  <td>
    <Button
      size="small"
      type="text"
      :aria-label="`Delete this action of ${line.name}`"
      @click="job.apply(removeAction(turn), 'deletion of a turn')"
      >×</Button
    >
  </td>
</template>

<style scoped>
.doing {
  width: 150px;
}
.kind {
  width: 178px;
}
.target,
.where {
  width: 150px;
}
.small {
  width: 92px;
}
td {
  vertical-align: middle !important;
}
td :deep(input) {
  padding: 1px 7px;
}
.feed {
  color: var(--resin-ink);
}
.vent {
  color: var(--tide);
}
</style>
