<script setup lang="ts">
import { valueAt } from '@wick/core/flow/probe';
import type { Point } from '@wick/core/geometry/polygon';
import { formatClock } from '@wick/core/units/format';
import { Select } from 'ant-design-vue';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import Board from '../../board/Board.vue';
import BandLabels from '../../board/BandLabels.vue';
import FieldBands from '../../board/FieldBands.vue';
import FieldScale from '../../board/FieldScale.vue';
import { fieldBands, fieldViews, pressureAt, type ViewId } from '../../board/fields.ts';
import FrontBands from '../../board/FrontBands.vue';
import { useBands } from '../../board/use-bands.ts';
import { pathOf, toScreen } from '../../board/viewport.ts';
import { isTyping } from '../../pages/shortcuts.ts';
import { useForecastStore } from '../../state/forecast-store.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import VerdictPanel from '../../ui/VerdictPanel.vue';
import type { Stage } from '../stage.ts';
import LineFigure from './LineFigure.vue';
import LineTable from './LineTable.vue';
import DoubtPanel from './DoubtPanel.vue';
import ForecastSettings from './ForecastSettings.vue';
import HoseTable from './HoseTable.vue';
import ResultsOut from './ResultsOut.vue';
import SequenceTable from './SequenceTable.vue';
import VentVacuum from './VentVacuum.vue';
import { useLineGestures } from './line-gestures.ts';

const props = defineProps<{ stage: Stage; minute: number | null }>();
const job = useJobStore();
const shop = useShopStore();
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
const hovered = computed(() => {
  const { flow } = forecast;
  if (!hover.value || !flow || tool.value !== 'select') return null;
  const read = (values: ArrayLike<number>) => valueAt(flow.mesh, values, hover.value!);
  const arrival = read(flow.arrival);
  const place = `${shop.show(hover.value.x, 'length')}, ${shop.show(hover.value.y, 'length')}`;
  if (Number.isNaN(arrival)) return flow.isFilled ? null : { place, text: 'stays dry' };
  const time = forecast.timeOf(arrival);
  const words = [Number.isFinite(time) ? `wet at ${formatClock(time)}` : 'not before gel'];
  const age = flow.ageAtArrival ? read(flow.ageAtArrival) : forecast.clock?.ageAt(time);
  if (Number.isFinite(time) && age !== undefined)
    words.push(`${Math.round(100 * age)} % of the resin’s life used`);
  const frame = pressureAt(flow, props.minute === null ? NaN : forecast.runTimeAt(props.minute));
  if (frame)
    words.push(
      `${shop.show(read(frame), 'absolutePressure')} ${props.minute === null ? 'at the end' : 'now'}`,
    );
  if (flow.lag) {
    const lag = forecast.timeOf(arrival) - forecast.timeOf(read(flow.layers[0]!.arrival));
    if (Number.isFinite(lag)) words.push(`mould side ${formatClock(Math.max(0, lag))} after the bag side`);
  }
  return { place, text: words.join(' · ') };
});
function markTime(id: string): string {
  const arrival = forecast.flow?.marks.find((mark) => mark.id === id)?.arrival;
  if (arrival === undefined) return '';
  const time = forecast.timeOf(arrival);
  return Number.isFinite(time) ? formatClock(time) : 'not before gel';
}
const regions = computed(() => forecast.flow?.dryRegions ?? []);

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
      >
        <template #inside="{ view }">
          <FieldBands v-if="field" :view="view" :bands="field.bands" />
          <FrontBands v-else :view="view" :minute="minute" :bands="bands" />
        </template>
        <template #default="{ view }">
          <path
            v-for="zone in job.document!.zones"
            :key="zone.id"
            :d="pathOf(view, zone.outline, true)"
            class="zone"
            clip-path="url(#part-clip)"
          />
          <BandLabels v-if="!field" :view="view" :bands="bands" />
          <g
            v-for="(region, i) in regions"
            :key="`dry${i}`"
            class="dry"
            :transform="`translate(${toScreen(view, region.place).x} ${toScreen(view, region.place).y})`"
          >
            <circle r="9" />
            <text x="14" y="5">
              dry {{ i + 1 }}: {{ shop.show(region.area, 'area') }} cut off
              {{ formatClock(forecast.timeOf(region.time)) }}
            </text>
          </g>
          <LineFigure
            v-for="line in lines"
            :key="line.id"
            :line="line"
            :view="view"
            :selected="selected === line.id"
            @focus="selected = line.id"
          />
          <g
            v-for="mark in job.document!.marks"
            :key="mark.id"
            :class="['mark', { selected: selected === mark.id }]"
            :data-mark="mark.id"
            :transform="`translate(${toScreen(view, mark).x} ${toScreen(view, mark).y})`"
            tabindex="0"
            role="button"
            :aria-label="mark.name"
            @focus="selected = mark.id"
          >
            <circle r="11" class="reach" />
            <path d="M -7 0 H 7 M 0 -7 V 7" />
            <text x="10" y="-8">{{ mark.name }} {{ markTime(mark.id) }}</text>
          </g>
          <path v-if="draft" :d="pathOf(view, draft, false)" :class="['draft', tool]" />
        </template>
      </Board>
      <div class="foot">
        <p class="quiet status" role="status">
          <template v-if="hovered"
            >{{ hovered.place }}: <b class="number">{{ hovered.text }}</b></template
          >
          <template v-else-if="!field">{{ hints[tool] }}</template>
        </p>
        <div class="tools">
          <ResultsOut />
          <FieldScale v-if="field" :bands="field.bands" :quantity="field.view.quantity" />
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
.stage :deep(.list) {
  height: 172px;
  overflow: auto;
  flex: none;
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: 16px;
}
.tool {
  font: 500 15px var(--display);
  padding: 4px 6px;
  border-bottom: 3px solid transparent;
}
.tool.here {
  border-bottom-color: var(--resin);
  font-weight: 600;
}
.feed,
.vent,
.race,
.mark-tool {
  cursor: crosshair;
}
.view {
  min-width: 130px;
}
.panes {
  display: flex;
  gap: 14px;
  align-items: end;
  border-bottom: 1px solid var(--rule);
}
.space {
  flex: 1;
}
.zone {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
.mark {
  cursor: move;
}
.mark path {
  stroke: var(--ink);
  stroke-width: 2.5;
}
.mark .reach {
  fill: transparent;
}
.mark.selected path {
  stroke-width: 4;
}
.mark text {
  font: 600 13px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3.5px;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: end;
  gap: 16px;
  padding-bottom: 6px;
}
.status {
  margin: 0;
  min-height: 20px;
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
.dry circle {
  fill: #fbfaf6;
  stroke: var(--ember);
  stroke-width: 2.5;
}
.dry text {
  font: 600 13px var(--display);
  fill: var(--ember);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
}
</style>
