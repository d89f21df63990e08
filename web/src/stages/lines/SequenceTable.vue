<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import Checkbox from 'ant-design-vue/es/checkbox';
import { computed, ref } from 'vue';
import { typedTimes } from '@wick/plan/layout/valve-script';
import { updateLine, whenPassed } from '@wick/plan/layout/edits';
import { addAction, closePrevious, moveTurn, type Turn } from '@wick/plan/layout/sequence';
import { useRowDrag } from '../../ui/use-row-drag.ts';
import { closesPrevious } from './sequence-words.ts';
import SequenceRow from './SequenceRow.vue';
import SequenceLanes from './SequenceLanes.vue';
import { useScript } from './use-script.ts';
import Choice from '../../ui/Choice.vue';

/** Who opens and shuts when: one row an action, with the minute it comes to. */
const job = useSession();

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
const { dragged, over, grab, drag, drop } = useRowDrag(body, {
  count: () => rows.value.length,
  onDrop: (from, to) => job.apply(moveTurn(order.value, from, to), 'order of turns'),
});
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
function add(id: string) {
  const line = lines.value.find((candidate) => candidate.id === id)!;
  job.apply(addAction(id, whenPassed(id, line.startsOpen ? 0 : 1)));
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
          <SequenceRow :line="line" :action="action" :lines="lines" />
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
.target {
  width: 150px;
}
td {
  vertical-align: middle !important;
}
</style>
