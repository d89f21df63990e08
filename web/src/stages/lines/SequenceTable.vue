<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { formatClock } from '@wick/core/units/format';
import type { JobAction, JobLine, JobTrigger } from '@wick/contract/job/job';
import { Button, Checkbox } from 'ant-design-vue';
import { computed, ref } from 'vue';
import { typedTimes } from '@wick/plan/layout/valve-script';
import { updateLine, whenPassed } from '@wick/plan/layout/edits';
import {
  addAction,
  closePrevious,
  moveTurn,
  removeAction,
  updateAction,
  type Turn,
} from '@wick/plan/layout/sequence';
import JobField from '../common/JobField.vue';
import { closesPrevious, doingWords, freshTrigger, triggerKinds } from './sequence-words.ts';
import SequenceLanes from './SequenceLanes.vue';
import { useScript } from './use-script.ts';
import Choice from '../../ui/Choice.vue';

/** Who opens and shuts when: one row an action, with the minute it comes to. */
const job = useSession();
const forecast = useForecast();

const lines = computed(() => job.laid.lines.filter((line) => line.kind !== 'race'));
const script = useScript();
/** In the order in which the forecast comes to them; while a row is dragged in the order it had. */
const order = computed<Turn[]>(() =>
  script.value.flatMap(({ lineId, actionId }) => (actionId === null ? [] : [{ lineId, actionId }])),
);
const rows = computed(() =>
  order.value.flatMap(({ lineId, actionId }) => {
    const line = lines.value.find(({ id }) => id === lineId);
    const action = line?.actions.find(({ id }) => id === actionId);
    return line && action ? [{ line, action }] : [];
  }),
);
const body = ref<HTMLElement | null>(null);
const dragged = ref<number | null>(null);
const over = ref<number | null>(null);
let grabbedAt = 0;
function grab(row: number, event: PointerEvent) {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  dragged.value = over.value = row;
  grabbedAt = event.clientY;
}
function drag(event: PointerEvent) {
  if (dragged.value === null) return;
  const height = body.value?.querySelector('tr')?.getBoundingClientRect().height ?? 34;
  const to = dragged.value + Math.round((event.clientY - grabbedAt) / height);
  over.value = Math.max(0, Math.min(rows.value.length - 1, to));
}
function drop() {
  if (dragged.value !== null && over.value !== null)
    job.apply(moveTurn(order.value, dragged.value, over.value));
  dragged.value = over.value = null;
}
function onGripKey(row: number, event: KeyboardEvent) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[event.key];
  if (by === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  job.apply(moveTurn(order.value, row, row + by));
}
const canType = computed(() =>
  script.value.some(({ time, actionId }) => actionId !== null && Number.isFinite(time ?? NaN)),
);
const doings = [
  { value: 1, label: 'opens' },
  { value: 0.5, label: 'throttles to 50 %' },
  { value: 0.25, label: 'throttles to 25 %' },
  { value: 0, label: 'shuts' },
];
const doingsFor = ({ opening }: JobAction) =>
  doings.some(({ value }) => value === opening)
    ? doings
    : [...doings, { value: opening, label: doingWords({ opening }) }];
const targets = (kind: JobTrigger['kind']) => {
  const feeds = lines.value.map(({ id, name }) => ({ value: id, label: name }));
  const marks = job.laid.marks.map(({ id, name }) => ({ value: id, label: name }));
  if (kind === 'zoneFull') return job.laid.zones.map(({ id, name }) => ({ value: id, label: name }));
  return kind === 'passed' ? [...feeds, ...marks] : feeds;
};

const turnOf = (line: JobLine, action: JobAction): Turn => ({ lineId: line.id, actionId: action.id });
function change(line: JobLine, action: JobAction, changes: Partial<JobAction>) {
  job.apply(updateAction(turnOf(line, action), changes));
}
function setKind(line: JobLine, action: JobAction, kind: JobTrigger['kind']) {
  const when = freshTrigger(kind, job.laid, line.id);
  if (when) change(line, action, { when });
}
function add(id: string) {
  const line = lines.value.find((candidate) => candidate.id === id)!;
  job.apply(addAction(id, whenPassed(id, line.startsOpen ? 0 : 1)));
}
/** The minute an action came to. */
function happens({ id }: JobAction): string {
  const time = script.value.find(({ actionId }) => actionId === id)?.time;
  if (time === null || time === undefined) return forecast.flow ? 'not in this run' : '';
  return Number.isFinite(time) ? formatClock(time) : 'not before gel';
}
</script>

<template>
  <div class="list">
    <div class="rowline">
      <span v-for="line in lines" :key="line.id" class="start">
        <Checkbox
          :checked="line.startsOpen"
          @change="job.apply(updateLine(line.id, { startsOpen: $event.target.checked }))"
          >{{ line.name }} open from the start</Checkbox
        >
      </span>
    </div>
    <table class="sheet">
      <tbody ref="body">
        <tr
          v-for="({ line, action }, row) in rows"
          :key="action.id"
          :class="{ dragged: dragged === row, over: over === row && dragged !== row }"
        >
          <td>
            <button
              class="plain grip"
              :aria-label="`Move the turn of ${line.name}; arrows up and down`"
              @pointerdown="grab(row, $event)"
              @pointermove="drag"
              @pointerup="drop"
              @pointercancel="drop"
              @keydown="onGripKey(row, $event)"
            >
              ≡
            </button>
          </td>
          <td :class="['number', line.kind]">{{ line.name }}</td>
          <td>
            <Choice
              size="small"
              class="doing"
              :value="action.opening"
              :options="doingsFor(action)"
              :aria-label="`What ${line.name} does`"
              @change="change(line, action, { opening: Number($event) })"
            />
          </td>
          <td>
            <Choice
              size="small"
              class="kind"
              :value="action.when.kind"
              :options="triggerKinds.map(({ kind, label }) => ({ value: kind, label }))"
              :aria-label="`What ${line.name} waits for`"
              @change="setKind(line, action, $event as JobTrigger['kind'])"
            />
          </td>
          <td>
            <Choice
              v-if="'what' in action.when"
              size="small"
              class="target"
              :value="action.when.what"
              :options="targets(action.when.kind)"
              :aria-label="`Line or mark ${line.name} waits for`"
              @change="change(line, action, { when: { ...action.when, what: String($event) } as JobTrigger })"
            />
            <Choice
              v-else-if="action.when.kind === 'zoneFull'"
              size="small"
              class="target"
              :value="action.when.zone"
              :options="targets('zoneFull')"
              aria-label="Zone it waits for"
              @change="change(line, action, { when: { ...action.when, zone: String($event) } as JobTrigger })"
            />
            <JobField
              v-else-if="action.when.kind === 'time'"
              hide-label
              label="Minute from first mix"
              path="layouts.lines.actions.when.time"
              :model-value="action.when.time"
              @update:model-value="change(line, action, { when: { kind: 'time', time: $event! } })"
            />
            <JobField
              v-else-if="action.when.kind === 'drawn'"
              hide-label
              label="Resin drawn"
              path="layouts.lines.actions.when.mass"
              :model-value="action.when.mass"
              @update:model-value="
                change(line, action, { when: { ...action.when, mass: $event! } as JobTrigger })
              "
            />
          </td>
          <td class="small">
            <JobField
              v-if="action.when.kind === 'passed'"
              hide-label
              label="and gone so far beyond it"
              path="layouts.lines.actions.when.distance"
              :model-value="action.when.distance"
              @update:model-value="
                change(line, action, { when: { ...action.when, distance: $event! } as JobTrigger })
              "
            />
          </td>
          <td class="small">
            <JobField
              v-if="action.when.kind !== 'time'"
              hide-label
              label="and so long after"
              path="layouts.lines.actions.when.delay"
              :model-value="action.when.delay"
              @update:model-value="
                change(line, action, { when: { ...action.when, delay: $event! } as JobTrigger })
              "
            />
          </td>
          <td class="number">{{ happens(action) }}</td>
          <td>
            <Button
              size="small"
              type="text"
              :aria-label="`Delete this action of ${line.name}`"
              @click="job.apply(removeAction(turnOf(line, action)))"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div class="rowline">
      <Choice
        size="small"
        class="target"
        placeholder="Add an action for …"
        aria-label="Add an action"
        :value="undefined"
        :options="lines.map(({ id, name }) => ({ value: id, label: name }))"
        @change="add(String($event))"
      />
      <Checkbox :checked="closesPrevious(job.laid)" @change="job.apply(closePrevious($event.target.checked))"
        >Shut each feed as the next one opens</Checkbox
      >
      <Button size="small" :disabled="!canType" @click="job.apply(typedTimes(script))"
        >Set these minutes</Button
      >
      <RouterLink :to="`/jobs/${job.id}/script`">Valve script to read aloud</RouterLink>
    </div>
    <Teleport defer to="#fuse-lanes"><SequenceLanes /></Teleport>
  </div>
</template>

<style scoped>
.rowline {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  padding: 4px 0;
  font-size: 13px;
}
.grip {
  cursor: grab;
  font-size: 17px;
  padding: 0 6px;
  touch-action: none;
}
.dragged td {
  opacity: 0.5;
}
.over td {
  border-bottom: 2px solid var(--resin);
}
.doing {
  width: 150px;
}
.kind {
  width: 178px;
}
.target {
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
