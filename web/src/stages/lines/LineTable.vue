<script setup lang="ts">
import { lineLength } from '@wick/core/geometry/polygon';
import { formatClock } from '@wick/core/units/format';
import type { JobLine } from '@wick/contract/job';
import { Button, Select } from 'ant-design-vue';
import { moveLinePoint, removeLine, updateLine } from '../../state/job-edits.ts';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

defineProps<{ lines: readonly JobLine[]; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useJobStore();
const shop = useShopStore();
const forecast = useForecastStore();

const behaviour = {
  feed: [
    { value: 'atStart', label: 'opens at the start' },
    { value: 'whenReached', label: 'opens as the front passes' },
  ],
  vent: [
    { value: 'open', label: 'stays open' },
    { value: 'clamp', label: 'clamped once resin is there' },
  ],
};
const valueOf = (line: JobLine) =>
  line.kind === 'feed' ? line.opens : line.closesWhenReached ? 'clamp' : 'open';
function setBehaviour(line: JobLine, value: string) {
  job.apply(
    updateLine(
      line.id,
      line.kind === 'feed' ? { opens: value as JobLine['opens'] } : { closesWhenReached: value === 'clamp' },
    ),
  );
}
function when(line: JobLine): string {
  const event = forecast.flow?.events.find(
    ({ name, kind }) => name === line.name && (kind === 'opens' || kind === 'reached'),
  );
  if (!event) return '';
  const time = forecast.timeOf(event.time);
  const word = event.kind === 'opens' ? 'opens' : 'resin there';
  return Number.isFinite(time) ? `${word} ${formatClock(time)}` : 'not before gel';
}
/** Typed positions for lines of one or two points; longer ones are moved on the board. */
const ends = (line: JobLine) => (line.points.length <= 2 ? line.points : []);
</script>

<template>
  <div class="list">
    <table class="sheet">
      <thead>
        <tr>
          <th>Line</th>
          <th>From: along, across</th>
          <th>To: along, across</th>
          <th>Length</th>
          <th>In the sequence</th>
          <th></th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in lines"
          :key="line.id"
          :class="{ selected: selected === line.id }"
          @focusin="emit('select', line.id)"
        >
          <td :class="['number', line.kind]">{{ line.name }}</td>
          <td v-for="end in 2" :key="end">
            <div v-if="ends(line)[end - 1]" class="pair">
              <QuantityInput
                v-for="axis in ['x', 'y'] as const"
                :key="axis"
                hide-label
                :label="`${line.name}, ${end === 1 ? 'from' : 'to'} ${axis === 'x' ? 'along' : 'across'}`"
                quantity="length"
                :model-value="ends(line)[end - 1]![axis]"
                @update:model-value="
                  job.apply(moveLinePoint(line.id, end - 1, { ...ends(line)[end - 1]!, [axis]: $event! }))
                "
              />
            </div>
            <span v-else-if="end === 1 && line.points.length > 2" class="quiet"
              >{{ line.points.length }} points</span
            >
          </td>
          <td class="number">
            {{ line.points.length > 1 ? shop.show(lineLength(line.points), 'length') : 'point' }}
          </td>
          <td>
            <Select
              size="small"
              class="choice"
              :value="valueOf(line)"
              :options="behaviour[line.kind]"
              :aria-label="`${line.name} in the sequence`"
              @change="setBehaviour(line, String($event))"
            />
          </td>
          <td class="number">{{ when(line) }}</td>
          <td>
            <Button
              size="small"
              type="text"
              :aria-label="`Delete ${line.name}`"
              @click="job.apply(removeLine(line.id))"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.list {
  max-height: 172px;
  overflow: auto;
  flex: none;
}
td {
  vertical-align: middle !important;
}
.pair :deep(input) {
  padding: 1px 7px;
}
.pair {
  display: grid;
  grid-template-columns: 80px 80px;
  gap: 4px;
}
.choice {
  width: 218px;
}
.feed {
  color: #7a4600;
}
.vent {
  color: var(--tide);
}
.selected td {
  background: #f2e4c4;
}
</style>
