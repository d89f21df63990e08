<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { lineLength } from '@wick/core/geometry/polygon';
import { formatClock } from '@wick/core/units/format';
import type { JobLine } from '@wick/contract/job/job';
import Button from 'ant-design-vue/es/button';
import Checkbox from 'ant-design-vue/es/checkbox';
import { computed } from 'vue';
import { moveLinePoint, removeLine, updateLine, whenPassed, withStock } from '@wick/plan/layout/edits';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import Choice from '../../ui/Choice.vue';

defineProps<{ lines: readonly JobLine[]; selected: string | null }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();

/** The usual courses, one click each; anything else is set up under Sequence. */
const behaviour = {
  feed: [
    { value: 'atStart', label: 'opens at the start' },
    { value: 'whenPassed', label: 'opens as the front passes' },
  ],
  vent: [
    { value: 'open', label: 'stays open' },
    { value: 'clamp', label: 'clamped once resin is there' },
  ],
  race: [{ value: 'always', label: 'always open' }],
};
const passedItself = (line: JobLine, opening: number) =>
  line.actions.length === 1 &&
  line.actions[0]!.opening === opening &&
  line.actions[0]!.when.kind === 'passed' &&
  line.actions[0]!.when.what === line.id &&
  line.actions[0]!.when.distance === 0 &&
  line.actions[0]!.when.delay === 0;
function valueOf(line: JobLine): string {
  if (line.kind === 'race') return 'always';
  if (line.startsOpen && line.actions.length === 0) return line.kind === 'feed' ? 'atStart' : 'open';
  if (line.kind === 'feed' && !line.startsOpen && passedItself(line, 1)) return 'whenPassed';
  return line.kind === 'vent' && line.startsOpen && passedItself(line, 0) ? 'clamp' : 'own';
}
const options = (line: JobLine) =>
  valueOf(line) === 'own'
    ? [...behaviour[line.kind], { value: 'own', label: 'as set under Sequence' }]
    : behaviour[line.kind];
function setBehaviour(line: JobLine, value: string) {
  if (value === 'own' || value === 'always') return;
  const actions =
    value === 'whenPassed' ? [whenPassed(line.id, 1)] : value === 'clamp' ? [whenPassed(line.id, 0)] : [];
  job.apply(updateLine(line.id, { startsOpen: value !== 'whenPassed', actions }));
}
function when(line: JobLine): string {
  const own = forecast.flow?.events.filter(({ lineId }) => lineId === line.id) ?? [];
  const event = own.find(({ kind }) => kind === 'opens') ?? own.find(({ kind }) => kind === 'reached');
  if (!event) return '';
  const time = forecast.timeOf(event.time);
  const word = event.kind === 'opens' ? 'opens' : 'resin there';
  return Number.isFinite(time) ? `${word} ${formatClock(time)}` : 'not before gel';
}
const library = useLibraryStore();
const stocks = computed(() => library.ofKind('line').map(({ id, name }) => ({ value: id, label: name })));
const stockFor = (line: JobLine) => [
  { value: '', label: `bore ${shop.show(line.bore, 'thickness')}` },
  ...stocks.value,
];
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
          <th>Cut from</th>
          <th>In the sequence</th>
          <th></th>
          <th>Pin</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="line in lines"
          :key="line.id"
          v-memo="[line, selected === line.id, when(line), stocks, shop.shop]"
          :class="{ selected: selected === line.id }"
          @focusin="emit('select', line.id)"
        >
          <td :class="['number', 'name', line.kind]" :title="line.name">{{ line.name }}</td>
          <td v-for="end in 2" :key="end">
            <div v-if="ends(line)[end - 1]" class="pair">
              <JobField
                v-for="axis in ['x', 'y'] as const"
                :key="axis"
                hide-label
                :label="`${line.name}, ${end === 1 ? 'from' : 'to'} ${axis === 'x' ? 'along' : 'across'}`"
                :path="`layouts.lines.points.${axis}`"
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
            <Choice
              v-if="line.kind !== 'race'"
              size="small"
              class="stock"
              :value="line.stockId ?? ''"
              :options="stockFor(line)"
              :aria-label="`What ${line.name} is cut from`"
              @change="
                job.apply(withStock(line.id, library.ofKind('line').find(({ id }) => id === $event) ?? null))
              "
            />
          </td>
          <td>
            <Choice
              size="small"
              class="choice"
              :value="valueOf(line)"
              :options="options(line)"
              :aria-label="`${line.name} in the sequence`"
              @change="setBehaviour(line, String($event))"
            />
          </td>
          <td class="number">{{ when(line) }}</td>
          <td>
            <Checkbox
              :checked="line.pinned"
              :aria-label="`Keep ${line.name} as it is in suggestions`"
              @change="job.apply(updateLine(line.id, { pinned: $event.target.checked }))"
            />
          </td>
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
td {
  vertical-align: middle !important;
}
td.number {
  white-space: nowrap;
}
td.name {
  max-width: 84px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.pair :deep(input) {
  padding: 1px 7px;
}
.pair {
  display: grid;
  grid-template-columns: 74px 74px;
  gap: 4px;
}
.stock {
  width: 112px;
}
.choice {
  width: 196px;
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
