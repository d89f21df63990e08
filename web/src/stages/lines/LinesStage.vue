<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import { Select } from 'ant-design-vue';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import Board from '../../board/Board.vue';
import BandLabels from '../../board/BandLabels.vue';
import FieldBands from '../../board/FieldBands.vue';
import FieldScale from '../../board/FieldScale.vue';
import { fieldBands, fieldViews, type ViewId } from '../../board/fields.ts';
import FrontBands from '../../board/FrontBands.vue';
import { useBands } from '../../board/use-bands.ts';
import { pathOf } from '../../board/viewport.ts';
import { isTyping } from '../../pages/shortcuts.ts';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import VerdictPanel from '../../ui/VerdictPanel.vue';
import type { Stage } from '../stage.ts';
import LineFigure from './LineFigure.vue';
import LineTable from './LineTable.vue';
import DoubtPanel from './DoubtPanel.vue';
import ForecastSettings from './ForecastSettings.vue';
import HoseTable from './HoseTable.vue';
import ResultsOut from './ResultsOut.vue';
import PlanNotes from './PlanNotes.vue';
import SequenceTable from './SequenceTable.vue';
import VentVacuum from './VentVacuum.vue';
import { useLineGestures } from './line-gestures.ts';
import { useReading } from './use-reading.ts';

const props = defineProps<{ stage: Stage; minute: number | null }>();
const job = useJobStore();
const forecast = useForecastStore();
const selected = ref<string | null>(null);
const hover = ref<Point | null>(null);
const bands = useBands();
const { tool, draft, press, move, release, abandon, nudge } = useLineGestures(selected);

const tools = [
  { id: 'select', key: 'S', name: 'Move' },
  { id: 'feed', key: 'F', name: 'Feed' },
  { id: 'vent', key: 'V', name: 'Vent' },
  { id: 'race', key: 'E', name: 'Race' },
  { id: 'mark', key: 'M', name: 'Mark' },
] as const;
const hints = {
  select: 'Drag a line or its ends; point to read the front.',
  feed: 'Drag to draw a feed line, or click for a feed point.',
  vent: 'Drag to draw a vent line, or click for a vent point.',
  race: 'Drag along an edge where resin runs ahead in a gap.',
  mark: 'Click where the front is to be timed.',
};
const panes = ['Lines', 'Sequence', 'Hoses', 'Doubt'] as const;
const pane = ref<(typeof panes)[number]>('Lines');
const viewId = ref<ViewId>('front');
const views = computed(() => [
  { value: 'front', label: 'Front' },
  ...fieldViews
    .filter((view) => forecast.flow && view.values(forecast.flow, NaN))
    .map(({ id, name }) => ({ value: id, label: name })),
]);
const field = computed(() => {
  const view = fieldViews.find(({ id }) => id === viewId.value);
  const { flow } = forecast;
  const values = flow && view?.values(flow, props.minute === null ? NaN : forecast.runTimeAt(props.minute));
  return view && flow && values ? { view, bands: fieldBands(flow, values, view.colour) } : null;
});
const hasLayers = computed(() => (forecast.flow?.layers.length ?? 1) > 1);
const lines = computed(() => job.document!.lines);
const hovered = useReading(
  hover,
  () => tool.value === 'select',
  () => props.minute,
);
function onKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const chosen = tools.find(({ key }) => key.toLowerCase() === event.key.toLowerCase());
  if (chosen) tool.value = chosen.id;
  else if (event.key === 'Escape') abandon();
  else if (!nudge(event)) return;
  event.preventDefault();
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <div class="stage">
    <section class="bench">
      <div class="head">
        <h1>{{ stage.question }}</h1>
        <div class="tools" role="toolbar" aria-label="Tools">
          <button
            v-for="item in tools"
            :key="item.id"
            :class="['plain', 'tool', { here: tool === item.id }]"
            :aria-pressed="tool === item.id"
            @click="tool = item.id"
          >
            {{ item.name }} <span class="quiet">{{ item.key }}</span>
          </button>
        </div>
      </div>
      <Board
        :part="job.document!.part"
        :lines="lines"
        :frozen="job.isGesturing || draft !== null"
        :class="tool"
        label="Plan with feeds, vents and the front"
        @press="press"
        @move="(at, event) => ((hover = at), move(at, event))"
        @release="release"
        @leave="hover = null"
        @abandon="abandon()"
      >
        <template #inside="{ view }">
          <FieldBands v-if="field" :view="view" :bands="field.bands" />
          <FrontBands v-else :view="view" :minute="minute" :bands="bands" />
        </template>
        <template #default="{ view }">
          <path
            v-for="zone in job.document!.zones"
            :key="zone.id"
            :d="pathOf(view, polygonOf(zone.outline), true)"
            class="zone"
            clip-path="url(#part-clip)"
          />
          <BandLabels v-if="!field" :view="view" :bands="bands" />
          <LineFigure
            v-for="line in lines"
            :key="line.id"
            :line="line"
            :view="view"
            :selected="selected === line.id"
            @focus="selected = line.id"
          />
          <PlanNotes :view="view" :selected="selected" @select="selected = $event" />
          <path v-if="draft" :d="pathOf(view, draft, false)" :class="['draft', tool]" />
        </template>
      </Board>
      <div class="foot">
        <div class="quiet status" role="status">
          <template v-if="hovered"
            >{{ hovered.place }}: <b class="number">{{ hovered.text }}</b></template
          >
          <FieldScale v-else-if="field" :bands="field.bands" :quantity="field.view.quantity" />
          <template v-else>{{ hints[tool] }}</template>
        </div>
        <div class="tools">
          <ResultsOut />
          <Select
            v-if="hasLayers && viewId === 'front'"
            v-model:value="forecast.side"
            size="small"
            aria-label="Side of the laminate"
            :options="[
              { value: 'mould', label: 'through to the mould' },
              { value: 'bag', label: 'on the bag side' },
            ]"
          />
          <Select
            v-model:value="viewId"
            size="small"
            class="view"
            aria-label="What the board shows"
            :options="views"
          />
        </div>
      </div>
      <div class="panes" role="tablist" aria-label="Details of the layout">
        <button
          v-for="name in panes"
          :key="name"
          role="tab"
          :aria-selected="pane === name"
          :class="['plain', 'tool', { here: pane === name }]"
          @click="pane = name"
        >
          {{ name }}
        </button>
        <span class="space" />
        <ForecastSettings />
        <VentVacuum />
      </div>
      <LineTable v-if="pane === 'Lines'" :lines="lines" :selected="selected" @select="selected = $event" />
      <SequenceTable v-else-if="pane === 'Sequence'" />
      <HoseTable v-else-if="pane === 'Hoses'" />
      <DoubtPanel v-else />
    </section>
    <aside class="answer"><VerdictPanel /></aside>
  </div>
</template>

<style scoped>
.feed,
.vent,
.race,
.view {
  min-width: 130px;
}
.zone {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
.draft {
  fill: none;
  stroke: var(--resin);
  stroke-width: 5;
  stroke-linecap: round;
}
.draft.race {
  stroke: var(--ember);
}
.draft.vent {
  stroke: var(--tide);
}
</style>
