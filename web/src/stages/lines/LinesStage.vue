<script setup lang="ts">
import type { JobLine } from '@wick/contract/job/job';
import type { Point } from '@wick/core/geometry/polygon';
import { isSound } from '@wick/plan/forecast/words';
import Button from 'ant-design-vue/es/button';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { fieldBands, fieldViews, type ViewId } from '../../board/fields.ts';
import { toolByKey } from '../../board/tool.ts';
import Toolbar from '../../board/Toolbar.vue';
import type { Viewport } from '../../board/viewport.ts';
import { atRest } from '../../compute/at-rest.ts';
import { useAdvice, useChecks, useForecast, useProbes, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { laterComponent } from '../../ui/later.ts';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import { isTyping } from '../../ui/typing.ts';
import type { Stage } from '../stage.ts';
import BoardFoot from './BoardFoot.vue';
import { useLineGestures } from './line-gestures.ts';
import { lineTools } from './line-tools.ts';
import LinesBoard from './LinesBoard.vue';
import LineTable from './LineTable.vue';
import VerdictPanel from './VerdictPanel.vue';

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
const forecast = useForecast();
const checks = useChecks();
const advice = useAdvice();
const shop = useShopStore();
const selected = ref<string | null>(null);
const hover = ref<Point | null>(null);
const view = shallowRef<Viewport>({ scale: 300, left: 0, bottom: 0 });
/** How far a snap pulls, pixels. */
const SNAP = 9;
const gestures = useLineGestures(job, selected, () => SNAP / view.value.scale, useProbes());
const { tool } = gestures;

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

const viewId = ref<ViewId>('front');
const field = computed(() => {
  const item = fieldViews.find(({ id }) => id === viewId.value);
  const { flow } = forecast;
  const time = props.minute === null ? NaN : forecast.runTimeAt(props.minute);
  const values = flow && item?.values(flow, time, forecast.ageAt);
  return item && flow && values
    ? { view: item, bands: fieldBands(flow, values, item, shop.unit(item.quantity)) }
    : null;
});
/** The table rests while a hand drags: sixty tables a second are more than a screen can show. */
const tabled = atRest(
  () => job.isGesturing,
  () => job.laid.lines,
  [] as readonly JobLine[],
);
const fails = computed(() => {
  const band = forecast.verdict?.band;
  return band !== undefined && !isSound(band);
});
function mend() {
  pane.value = 'Advice';
  void advice.mend();
}
function openCheck(id: string) {
  selected.value = id;
  pane.value = 'Checks';
}

/** A slider's arrows are its own. */
const isOnSlider = ({ target }: KeyboardEvent) => (target as Element).closest('[role="slider"]') !== null;

function onKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey || isCompared.value) return;
  const chosen = toolByKey(lineTools, event);
  if (chosen) tool.value = chosen;
  else if (event.key === 'Escape') gestures.abandon();
  else if (event.defaultPrevented || isOnSlider(event) || !gestures.onKey(event)) return;
  event.preventDefault();
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools><Toolbar v-model="tool" :tools="lineTools" :disabled="isCompared" /></template>
    <LayoutsBoard v-if="pane === 'Layouts'" :minute="minute" />
    <AdviceBoard v-else-if="pane === 'Advice'" :minute="minute" @taken="pane = 'Layouts'" />
    <template v-else>
      <LinesBoard
        v-model:view="view"
        :gestures="gestures"
        :selected="selected"
        :minute="minute"
        :field="field?.bands ?? null"
        @select="selected = $event"
        @check="openCheck"
        @hover="hover = $event"
      />
      <BoardFoot v-model:view="viewId" :gestures="gestures" :hover="hover" :minute="minute" :field="field" />
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
    <template #answer>
      <VerdictPanel>
        <template #mend>
          <Button v-if="fails && advice.working !== 'mend'" size="small" class="mend" @click="mend"
            >What would fix it</Button
          >
        </template>
      </VerdictPanel>
    </template>
  </StageShell>
</template>

<style scoped>
.mend {
  margin-bottom: 8px;
}
</style>
