<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Point } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import BandLabels from '../../board/BandLabels.vue';
import Board from '../../board/Board.vue';
import FieldBands from '../../board/FieldBands.vue';
import type { FieldBand } from '../../board/fields.ts';
import FrontBands from '../../board/FrontBands.vue';
import { pathOf, type Viewport } from '../../board/viewport.ts';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import BoardNotes from './BoardNotes.vue';
import HoseFigures from './HoseFigures.vue';
import type { useLineGestures } from './line-gestures.ts';
import LineFigure from './LineFigure.vue';
import MeshFigures from './MeshFigures.vue';
import { openingsAt } from './openings.ts';
import PlanNotes from './PlanNotes.vue';
import { useBands } from './use-bands.ts';
import { useLabels } from './use-labels.ts';
import { useScript } from './use-script.ts';

/** The plan with lines, hoses and notes over the front or a field at the scrubbed minute. */
const props = defineProps<{
  gestures: ReturnType<typeof useLineGestures>;
  selected: string | null;
  minute: number | null;
  /** Shown in place of the front. */
  field: readonly FieldBand[] | null;
}>();
const emit = defineEmits<{
  select: [id: string];
  check: [id: string];
  hover: [at: Point | null];
}>();
const job = useSession();
const forecast = useForecast();
const script = useScript();
const bands = useBands();
/** Scale and place of the plan on the screen. */
const view = defineModel<Viewport>('view', { required: true });
const { labels, worst } = useLabels(view);
const { tool, draft, pointer, scene, isBox } = props.gestures;

const rings = computed(() => {
  const { outline, holes } = job.laid.part;
  return [outline, ...holes.map((hole) => hole.outline)];
});
const places = computed(() => {
  const { stations, tees } = job.laid;
  return [...stations.map(({ place }) => place), ...tees.flatMap(({ place }) => place ?? [])];
});
const wet = computed(() =>
  props.minute === null || !forecast.isochrones
    ? null
    : forecast.isochrones.wetBy(forecast.runTimeAt(props.minute)),
);
const hasDry = computed(() => (forecast.verdict?.fillTime ?? 0) === Infinity);
const openings = computed(() => openingsAt(job.laid.lines, script.value, props.minute));
const draftPath = computed(() => {
  if (!draft.value) return null;
  const [a, b] = [draft.value[0]!, draft.value[1]!];
  return isBox.value ? [a, { x: b.x, y: a.y }, b, { x: a.x, y: b.y }] : [a, b];
});
</script>

<template>
  <Board
    :part="job.laid.part"
    :lines="job.laid.lines"
    :places="places"
    :frozen="job.isGesturing || draft !== null"
    :scene="scene"
    :class="{ draws: tool !== 'select' }"
    label="Plan with feeds, vents and the front"
    @press="gestures.press"
    @move="(event) => (emit('hover', event.at), gestures.move(event))"
    @release="gestures.release"
    @twice="gestures.twice"
    @leave="emit('hover', null)"
    @abandon="gestures.abandon()"
    @view="view = $event"
  >
    <template #inside="{ view: at }">
      <FieldBands v-if="field" :view="at" :bands="field" />
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
      <MeshFigures :view="at" :selected="selected" @select="emit('select', $event)" />
      <BandLabels v-if="!field" :view="at" :bands="bands" :names="[...labels.values()]" />
      <HoseFigures :view="at" :selected="selected" :open-lines="openings" @select="emit('select', $event)" />
      <LineFigure
        v-for="line in job.laid.lines"
        :key="line.id"
        :line="line"
        :view="at"
        :selected="selected === line.id"
        :opening="openings.get(line.id)"
        :label="labels.get(line.id)"
        @focus="emit('select', line.id)"
      />
      <PlanNotes :view="at" :labels="labels" :selected="selected" @select="emit('select', $event)" />
      <BoardNotes :view="at" :labels="labels" :worst="worst" @check="emit('check', $event)" />
      <path
        v-for="(guide, i) in pointer?.guides ?? []"
        :key="i"
        :d="pathOf(at, guide, false)"
        class="guide"
      />
      <path v-if="draftPath" :d="pathOf(at, draftPath, isBox)" :class="['draft', tool]" />
    </template>
  </Board>
</template>

<style scoped>
.draws {
  cursor: crosshair;
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
</style>
