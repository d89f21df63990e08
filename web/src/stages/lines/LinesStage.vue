<script setup lang="ts">
import { valueAt } from '@wick/core/flow/probe';
import type { Point } from '@wick/core/geometry/polygon';
import { formatClock } from '@wick/core/units/format';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import Board from '../../board/Board.vue';
import BandLabels from '../../board/BandLabels.vue';
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
import VentVacuum from './VentVacuum.vue';
import { useLineGestures } from './line-gestures.ts';

defineProps<{ stage: Stage; minute: number | null }>();
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
] as const;
const lines = computed(() => job.document!.lines);
const hovered = computed(() => {
  if (!hover.value || !forecast.flow || tool.value !== 'select') return null;
  const arrival = valueAt(forecast.flow.mesh, forecast.flow.arrival, hover.value);
  const time = forecast.timeOf(arrival);
  const place = `${shop.show(hover.value.x, 'length')}, ${shop.show(hover.value.y, 'length')}`;
  if (Number.isNaN(arrival)) return null;
  return { place, text: Number.isFinite(time) ? `wet at ${formatClock(time)}` : 'not before gel' };
});
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
        <template #inside="{ view }"><FrontBands :view="view" :minute="minute" :bands="bands" /></template>
        <template #default="{ view }">
          <BandLabels :view="view" :bands="bands" />
          <g
            v-for="(region, i) in regions"
            :key="`dry${i}`"
            class="dry"
            :transform="`translate(${toScreen(view, region.place).x} ${toScreen(view, region.place).y})`"
          >
            <circle r="9" />
            <text x="14" y="5">air trapped {{ formatClock(forecast.timeOf(region.time)) }}</text>
          </g>
          <LineFigure
            v-for="line in lines"
            :key="line.id"
            :line="line"
            :view="view"
            :selected="selected === line.id"
            @focus="selected = line.id"
          />
          <path v-if="draft" :d="pathOf(view, draft, false)" :class="['draft', tool]" />
        </template>
      </Board>
      <div class="foot">
        <p class="quiet status" role="status">
          <template v-if="hovered"
            >{{ hovered.place }}: <b class="number">{{ hovered.text }}</b></template
          >
          <template v-else-if="tool === 'select'"
            >Drag a line or its ends; point anywhere to read when the front is there.</template
          >
          <template v-else>Drag to draw a {{ tool }} line, or click for a {{ tool }} point.</template>
        </p>
        <VentVacuum />
      </div>
      <LineTable :lines="lines" :selected="selected" @select="selected = $event" />
    </section>
    <aside class="answer"><VerdictPanel /></aside>
  </div>
</template>

<style scoped>
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
.vent {
  cursor: crosshair;
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
