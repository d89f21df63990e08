<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { distance } from '@wick/core/geometry/polygon';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import Board from '../../board/Board.vue';
import { arrowOf, snapWords, toolByKey } from '../../board/tool.ts';
import Toolbar from '../../board/Toolbar.vue';
import type { Viewport } from '../../board/viewport.ts';
import { isTyping } from '../../ui/typing.ts';
import { moveCorner, moveRing, removeCorner, ringAt, ringName, splitEdgeAt } from '@wick/plan/part/edits';
import { removeRing } from '@wick/plan/part/zones';
import { useShopStore } from '../../data/shop-store.ts';
import type { Stage } from '../stage.ts';
import CornerTable from './CornerTable.vue';
import DrawingBar from './DrawingBar.vue';
import FeatureHandles from './FeatureHandles.vue';
import FeatureTable from './FeatureTable.vue';
import ImportPlan from './ImportPlan.vue';
import MouldPanel from './MouldPanel.vue';
import { usePartGestures } from './part-gestures.ts';
import { partTools } from './part-tools.ts';
import PartAnswer from './PartAnswer.vue';
import PlanOut from './PlanOut.vue';
import PlanPaths from './PlanPaths.vue';
import RingActions from './RingActions.vue';
import RingFigure from './RingFigure.vue';
import ShapeTemplates from './ShapeTemplates.vue';
import ZoneTable from './ZoneTable.vue';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useSession();
const shop = useShopStore();
const panes = ['Corners', 'Zones', 'Rises', 'Mould'] as const;
const pane = ref<(typeof panes)[number]>('Corners');
const grid = ref<number | null>(null);
const view = ref<Viewport | null>(null);
/** How far a snap pulls: a finger's or a pointer's breadth. */
const REACH_PIXELS = 10;
const plan = usePartGestures(job, {
  reach: () => REACH_PIXELS / (view.value?.scale ?? 1000),
  grid: () => grid.value,
  showsFeatures: () => pane.value === 'Rises',
});
const { tool, selected, corner, drawn, pointer, stretch } = plan;

const part = computed(() => job.laid.part);
const ring = computed(() => ringAt(job.document, selected.value));
const name = computed(() => ringName(job.document, selected.value));
const hint = computed(() => partTools.find(({ id }) => id === tool.value)!.hint);
const measured = computed(() => {
  if (tool.value !== 'measure' || !stretch.value) return null;
  const [a, b] = stretch.value;
  return `${shop.show(distance(a, b), 'length')}: ${shop.show(Math.abs(b.x - a.x), 'length')} along, ${shop.show(Math.abs(b.y - a.y), 'length')} across`;
});

function onCornerKey(event: KeyboardEvent, index: number) {
  const by = arrowOf(event);
  const at = ring.value[index]!;
  if (by) job.apply(moveCorner(selected.value, index, { x: at.x + by.x, y: at.y + by.y }));
  else if (event.key === 'Delete' || event.key === 'Backspace')
    job.apply(removeCorner(selected.value, index));
  else return;
  event.preventDefault();
  event.stopPropagation();
}

function onKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey) return;
  const chosen = toolByKey(partTools, event);
  const by = arrowOf(event);
  const isOnPage = event.target === document.body;
  if (chosen) plan.choose(chosen);
  else if (event.key === 'Escape') plan.choose('select');
  else if (isOnPage && event.key === 'Enter' && drawn.value.length > 0) plan.close();
  else if (isOnPage && event.key === 'Backspace' && drawn.value.length > 0)
    drawn.value = drawn.value.slice(0, -1);
  else if (isOnPage && by && selected.value.kind !== 'outline') job.apply(moveRing(selected.value, by));
  else if (isOnPage && event.key === 'Delete' && selected.value.kind !== 'outline') remove();
  else return;
  event.preventDefault();
}
function remove() {
  job.apply(removeRing(selected.value));
  plan.select({ kind: 'outline' });
}
onMounted(() => window.addEventListener('keydown', onKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onKey));
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Toolbar :model-value="tool" :tools="partTools" @update:model-value="plan.choose" />
    </template>
    <Board
      :part="part"
      :lines="job.laid.lines"
      :scene="plan.scene.value"
      :frozen="job.isGesturing || drawn.length > 0 || stretch !== null"
      :class="{ drawing: tool !== 'select' }"
      :room="part.flange ?? 0"
      label="Plan of the part"
      @press="plan.press"
      @move="plan.move"
      @release="plan.release"
      @abandon="plan.abandon()"
      @view="view = $event"
    >
      <template #default="{ view: at }">
        <PlanPaths
          :view="at"
          :selected="selected"
          :drawn="drawn"
          :stretch="stretch"
          :is-box="plan.closesRing.value"
          :pointer="pointer"
          :grid="grid"
        />
        <RingFigure
          v-if="tool === 'select'"
          :ring="ring"
          :view="at"
          :corner="corner"
          :name="name"
          @focus="corner = $event"
          @key="onCornerKey"
          @split="job.apply(splitEdgeAt(selected, $event))"
        />
        <FeatureHandles v-if="tool === 'select' && pane === 'Rises'" :view="at" />
      </template>
    </Board>
    <div class="foot">
      <div class="quiet status" role="status">
        <b v-if="measured" class="number">{{ measured }}</b>
        <template v-else-if="pointer && pointer.kind !== 'free'">
          <b class="number"
            >{{ shop.show(pointer.point.x, 'length') }}, {{ shop.show(pointer.point.y, 'length') }}</b
          >
          {{ snapWords[pointer.kind] }}
        </template>
        <template v-else>{{ hint }}</template>
      </div>
      <DrawingBar
        v-if="tool !== 'select'"
        :drawn="drawn"
        :tool="tool"
        @corner="plan.addCorner"
        @close="plan.close()"
        @give-up="plan.choose('select')"
      />
      <RingActions
        v-else
        v-model:grid="grid"
        :ring-ref="selected"
        :name="name"
        :corner="corner"
        @removed="plan.select({ kind: 'outline' })"
      />
    </div>
    <div class="panes">
      <Tabs
        v-model="pane"
        label="Details of the part"
        :tabs="panes.map((value) => ({ value, label: value }))"
      />
      <span class="space" />
      <ShapeTemplates />
      <ImportPlan />
      <PlanOut />
    </div>
    <div class="list">
      <CornerTable
        v-if="pane === 'Corners'"
        :ring="ring"
        :ring-ref="selected"
        :selected="corner"
        @select="corner = $event"
      />
      <ZoneTable v-else-if="pane === 'Zones'" :selected="selected" @select="plan.select($event)" />
      <FeatureTable v-else-if="pane === 'Rises'" />
      <MouldPanel v-else />
    </div>
    <template #answer><PartAnswer :corners="polygonOf(part.outline).length" /></template>
  </StageShell>
</template>

<style scoped>
/* What stands under the board changes with the tool; the plan must not move for it. */
.foot {
  height: 52px;
}
.panes {
  align-items: center;
}
.drawing :deep(svg) {
  cursor: crosshair;
}
</style>
