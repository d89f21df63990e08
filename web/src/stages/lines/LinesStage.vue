<script setup lang="ts">
import { useAdvice, useChecks, useForecast, useProbes, useSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import type { JobLine } from '@wick/contract/job/job';
import { isSound } from '@wick/plan/forecast/words';
import type { Point } from '@wick/core/geometry/polygon';
import { Button, Checkbox } from 'ant-design-vue';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import Board from '../../board/Board.vue';
import BandLabels from '../../board/BandLabels.vue';
import FieldBands from '../../board/FieldBands.vue';
import FieldScale from '../../board/FieldScale.vue';
import { fieldBands, fieldViews, type ViewId } from '../../board/fields.ts';
import FrontBands from '../../board/FrontBands.vue';
import { useBands } from './use-bands.ts';
import { pathOf, type Viewport } from '../../board/viewport.ts';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { isTyping } from '../../ui/typing.ts';
import VerdictPanel from './VerdictPanel.vue';
import type { Stage } from '../stage.ts';
import BoardNotes from './BoardNotes.vue';
import HoseFigures from './HoseFigures.vue';
import { lineTools, useLineGestures } from './line-gestures.ts';
import LineFigure from './LineFigure.vue';
import LineTable from './LineTable.vue';
import MeshFigures from './MeshFigures.vue';
import PlanNotes from './PlanNotes.vue';
import ResultsOut from './ResultsOut.vue';
import ViewBar from './ViewBar.vue';
import { openingsAt } from './openings.ts';
import { useReading } from './use-reading.ts';
import { useScript } from './use-script.ts';
import Choice from '../../ui/Choice.vue';
import { laterComponent } from '../../ui/later.ts';
import Tabs from '../../ui/Tabs.vue';

/** Panes are fetched when they are first opened. */
const AdviceBoard = laterComponent(() => import('./AdviceBoard.vue'));
const ChecksList = laterComponent(() => import('./ChecksList.vue'));
const DoubtPanel = laterComponent(() => import('./DoubtPanel.vue'));
const HoseTable = laterComponent(() => import('./HoseTable.vue'));
const LayoutsBoard = laterComponent(() => import('./LayoutsBoard.vue'));
const LayoutTable = laterComponent(() => import('./LayoutTable.vue'));
const ProbeList = laterComponent(() => import('./ProbeList.vue'));
const RepairList = laterComponent(() => import('./RepairList.vue'));
const SequenceTable = laterComponent(() => import('./SequenceTable.vue'));
const TemplatePicker = laterComponent(() => import('./TemplatePicker.vue'));

const props = defineProps<{ stage: Stage; minute: number | null }>();
const route = useRoute();
const router = useRouter();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const checks = useChecks();
const advice = useAdvice();
const script = useScript();
const selected = ref<string | null>(null);
const hover = ref<Point | null>(null);
const view = shallowRef<Viewport>({ scale: 300, left: 0, bottom: 0 });
const bands = useBands();
const SNAP = 9;
const gestures = useLineGestures(job, selected, () => SNAP / view.value.scale, useProbes());
const { tool, fitting, edgeOffset, draft, pointer } = gestures;

const panes = ['Lines', 'Sequence', 'Hoses', 'Checks', 'Layouts', 'Advice', 'Probes', 'Doubt'] as const;
type Pane = (typeof panes)[number];
/** The open pane lives in the address, as the minute does. */
const pane = computed<Pane>({
  get: () => panes.find((name) => name.toLowerCase() === route.query.pane) ?? 'Lines',
  set: (name) => void router.replace({ query: { ...route.query, pane: name.toLowerCase() } }),
});
/** These two show layouts side by side where the board is otherwise. */
const noteOn: Partial<Record<Pane, () => number | undefined>> = {
  Checks: () => checks.breaks.length || undefined,
  Layouts: () => job.document.layouts.length,
};
const tabs = computed(() =>
  panes.map((name) => ({
    value: name,
    label: name,
    note: noteOn[name]?.(),
    isWarning: name === 'Checks',
  })),
);
const isCompared = computed(() => pane.value === 'Layouts' || pane.value === 'Advice');

const fittings = [
  { value: 'pot', label: 'pot of resin' },
  { value: 'pump', label: 'pump' },
  { value: 'tee', label: 'tee' },
];
const hint = computed(() => lineTools.find(({ id }) => id === tool.value)!.hint);
const followsEdges = computed(() => ['feed', 'vent', 'race'].includes(tool.value));
const snapWords = {
  corner: 'on a corner',
  middle: 'in the middle of an edge',
  edge: 'on an edge',
  spacing: 'evenly spaced',
  level: 'level with a corner',
  grid: '',
  free: '',
};
const draftPath = computed(() => {
  if (!draft.value) return null;
  const [a, b] = [draft.value[0]!, draft.value[1]!];
  return gestures.isBox() ? [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] : [a, b];
});
const draftWords = computed(() => {
  if (!draft.value) return null;
  const [a, b] = [draft.value[0]!, draft.value[1]!];
  return gestures.isBox()
    ? `${shop.show(Math.abs(b.x - a.x), 'length')} × ${shop.show(Math.abs(b.y - a.y), 'length')}`
    : shop.show(Math.hypot(b.x - a.x, b.y - a.y), 'length');
});

const viewId = ref<ViewId>('front');
const field = computed(() => {
  const item = fieldViews.find(({ id }) => id === viewId.value);
  const { flow } = forecast;
  const time = props.minute === null ? NaN : forecast.runTimeAt(props.minute);
  const values = flow && item?.values(flow, time, forecast.ageAt);
  return item && flow && values ? { view: item, bands: fieldBands(flow, values, item.colour) } : null;
});
const rings = computed(() => {
  const { outline, holes } = job.laid.part;
  return [outline, ...holes.map((hole) => hole.outline)];
});
const wet = computed(() =>
  props.minute === null || !forecast.isochrones
    ? null
    : forecast.isochrones.wetBy(forecast.runTimeAt(props.minute)),
);
const hasDry = computed(() => (forecast.verdict?.fillTime ?? 0) === Infinity);
const lines = computed(() => job.laid.lines);
/** The table rests while a hand drags: sixty tables a second are more than a screen can show. */
let rested: readonly JobLine[] = [];
const tabled = computed(() => (job.isGesturing ? rested : (rested = lines.value)));
const openings = computed(() => openingsAt(lines.value, script.value, props.minute));
const hovered = useReading(
  hover,
  () => tool.value === 'select' && !job.isGesturing,
  () => props.minute,
);
const fails = computed(() => {
  const band = forecast.verdict?.band;
  return band !== undefined && !isSound(band);
});
function mend() {
  pane.value = 'Advice';
  void advice.mend();
}

function onKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || isCompared.value) return;
  const chosen = lineTools.find(({ key }) => key.toLowerCase() === event.key.toLowerCase());
  if (chosen) tool.value = chosen.id;
  else if (event.key === 'Escape') gestures.abandon();
  else if (!gestures.nudge(event)) return;
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
            v-for="item in lineTools"
            :key="item.id"
            :class="['plain', 'tool', { here: tool === item.id }]"
            :aria-pressed="tool === item.id"
            :disabled="isCompared"
            @click="tool = item.id"
          >
            {{ item.name }} <span class="quiet">{{ item.key }}</span>
          </button>
        </div>
      </div>
      <LayoutsBoard v-if="pane === 'Layouts'" :minute="minute" />
      <AdviceBoard v-else-if="pane === 'Advice'" :minute="minute" @taken="pane = 'Layouts'" />
      <template v-else>
        <Board
          :part="job.laid.part"
          :lines="lines"
          :places="[
            ...job.laid.stations.map(({ place }) => place),
            ...job.laid.tees.flatMap(({ place }) => place ?? []),
          ]"
          :frozen="job.isGesturing || draft !== null"
          :class="tool"
          label="Plan with feeds, vents and the front"
          @press="gestures.press"
          @move="(at, event) => ((hover = at), gestures.move(at, event))"
          @release="gestures.release"
          @twice="gestures.bend"
          @leave="hover = null"
          @abandon="gestures.abandon()"
          @view="view = $event"
        >
          <template #inside="{ view: at }">
            <FieldBands v-if="field" :view="at" :bands="field.bands" />
            <FrontBands
              v-else-if="forecast.flow"
              :view="at"
              :bands="bands"
              :part="rings"
              :wet="wet"
              :has-dry="hasDry"
            />
          </template>
          <template #default="{ view: at }">
            <path
              v-for="zone in job.laid.zones"
              :key="zone.id"
              :d="pathOf(at, polygonOf(zone.outline), true)"
              class="zone"
              clip-path="url(#part-clip)"
            />
            <MeshFigures :view="at" :selected="selected" @select="selected = $event" />
            <BandLabels v-if="!field" :view="at" :bands="bands" />
            <HoseFigures :view="at" :selected="selected" :open-lines="openings" @select="selected = $event" />
            <LineFigure
              v-for="line in lines"
              :key="line.id"
              :line="line"
              :view="at"
              :selected="selected === line.id"
              :opening="openings.get(line.id)"
              @focus="selected = line.id"
            />
            <PlanNotes :view="at" :selected="selected" @select="selected = $event" />
            <BoardNotes :view="at" @check="((selected = $event), (pane = 'Checks'))" />
            <path
              v-for="(guide, i) in pointer?.guides ?? []"
              :key="i"
              :d="pathOf(at, guide, false)"
              class="guide"
            />
            <path v-if="draftPath" :d="pathOf(at, draftPath, gestures.isBox())" :class="['draft', tool]" />
          </template>
        </Board>
        <div class="foot">
          <div class="quiet status" role="status">
            <template v-if="draftWords"
              ><b class="number">{{ draftWords }}</b> {{ pointer ? snapWords[pointer.kind] : '' }}</template
            >
            <template v-else-if="hovered"
              >{{ hovered.place }}: <b class="number">{{ hovered.text }}</b></template
            >
            <FieldScale v-else-if="field" :bands="field.bands" :quantity="field.view.quantity" />
            <template v-else>{{ hint }}</template>
          </div>
          <div class="tools">
            <template v-if="followsEdges">
              <Checkbox
                :checked="edgeOffset !== null"
                @change="edgeOffset = $event.target.checked ? (tool === 'feed' ? 0.04 : 0) : null"
                >along the edge clicked, in by</Checkbox
              >
              <div class="offset">
                <QuantityInput
                  hide-label
                  label="Distance from the edge"
                  quantity="length"
                  :model-value="edgeOffset ?? 0.04"
                  :refuse="(value) => (value >= 0 && value < 2 ? null : 'Between 0 and 2 m.')"
                  @update:model-value="edgeOffset = $event"
                />
              </div>
            </template>
            <Choice
              v-if="tool === 'fitting'"
              v-model:value="fitting"
              size="small"
              class="piece"
              aria-label="What to put down"
              :options="fittings"
            />
            <ResultsOut v-if="tool === 'select'" />
            <ViewBar v-model="viewId" />
          </div>
        </div>
      </template>
      <div class="panes">
        <Tabs v-model="pane" label="Details of the layout" :tabs="tabs" />
        <span class="space" />
        <TemplatePicker v-if="!isCompared" />
      </div>
      <LineTable v-if="pane === 'Lines'" :lines="tabled" :selected="selected" @select="selected = $event" />
      <SequenceTable v-else-if="pane === 'Sequence'" />
      <HoseTable v-else-if="pane === 'Hoses'" />
      <ChecksList v-else-if="pane === 'Checks'" :selected="selected" @select="selected = $event" />
      <LayoutTable v-else-if="pane === 'Layouts'" />
      <RepairList v-else-if="pane === 'Advice'" />
      <ProbeList v-else-if="pane === 'Probes'" :minute="minute" />
      <DoubtPanel v-else />
    </section>
    <aside class="answer" tabindex="0" aria-label="Answer">
      <VerdictPanel>
        <template #mend>
          <Button v-if="fails && advice.working !== 'mend'" size="small" class="mend" @click="mend"
            >What would fix it</Button
          >
        </template>
      </VerdictPanel>
    </aside>
  </div>
</template>

<style scoped>
.feed,
.vent,
.race,
.mesh,
.brake,
.fitting,
.mark,
.probe {
  cursor: crosshair;
}
.head .tools {
  gap: 1px;
  flex: none;
}
.offset {
  width: 84px;
}
.offset :deep(input) {
  padding: 1px 7px;
}
.mend {
  margin-bottom: 8px;
}
.zone {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
.guide {
  fill: none;
  stroke: var(--tide);
  stroke-width: 1;
  stroke-dasharray: 2 3;
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
.draft.mesh,
.draft.brake {
  stroke: var(--ink);
  stroke-width: 1.5;
  stroke-dasharray: 5 4;
}
.piece {
  width: 150px;
}
</style>
