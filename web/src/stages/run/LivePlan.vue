<script setup lang="ts">
import { createIsochrones } from '@wick/core/flow/isochrones';
import type { Point } from '@wick/core/geometry/polygon';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import BandLabels from '../../board/BandLabels.vue';
import FrontBands from '../../board/FrontBands.vue';
import { bandsOf } from '../../board/bands.ts';
import { pathOf, pathOfRings } from '../../board/viewport.ts';
import { useLive } from './live.ts';
import PlanFigure from '../common/PlanFigure.vue';

/** The plan with the front as forecast now: a tap says that the front is there. */
const live = useLive();
/** A fingertip in a glove, m. */
const DOUBT = 0.015;
/** A tap so near to a planned mark means it, m. */
const NEAR = 0.05;

const front = computed(() => {
  const { answer, clock } = live;
  if (!answer || !clock) return null;
  const { shape, factor } = answer.likeliest;
  return { shape, isochrones: createIsochrones(shape.mesh, shape.front), factor, clock };
});
const runTimeAt = (time: number) =>
  front.value ? front.value.factor * front.value.clock.driven.at(time) : 0;
const bands = computed(() => {
  if (!front.value || !live.answer) return [];
  const { shape, isochrones } = front.value;
  const { last, gelTime, openTime } = live.answer;
  const endTime = Number.isFinite(last.middle) ? last.middle : gelTime;
  return bandsOf({ mesh: shape.mesh, arrival: shape.front, isochrones, openTime, endTime, runTimeAt });
});
const wet = computed(() =>
  front.value && live.answer && live.infusion?.openedAt != null
    ? front.value.isochrones.wetBy(runTimeAt(live.answer.now))
    : null,
);
const marks = computed(() => live.answer?.marks ?? []);
const minute = (seconds: number) => `${Math.round(seconds / 60)}`;
const next = computed(() => (live.answer && live.infusion?.allWetAt === null ? live.answer.nextMark : null));

async function tap(place: Point) {
  const mark = live.job!.marks.find(({ x, y }) => Math.hypot(x - place.x, y - place.y) < NEAR) ?? null;
  const { x, y } = mark ?? place;
  await live.marking.mark({ markId: mark?.id ?? null, x, y, doubt: DOUBT });
}
const working = computed(() =>
  live.shapes.length < live.shapesWanted
    ? `${live.shapes.length} of ${live.shapesWanted} ways in which it may run worked out …`
    : '',
);
const label = 'The plan: tap where the front is now';
</script>

<template>
  <div class="live-plan">
    <PlanFigure v-if="live.job" :job="live.job" :label="label" is-tappable @tap="tap">
      <template #under="{ view }">
        <FrontBands :view="view" :bands="bands" :part="[live.job.part.outline]" :wet="wet" :has-dry="false" />
        <path
          v-if="live.part.wet"
          :d="pathOfRings(view, live.part.wet)"
          class="real"
          data-testid="real-front"
        />
      </template>
      <template #default="{ at, view }">
        <BandLabels :view="view" :bands="bands" />
        <path
          v-for="line in live.job.lines.filter(({ kind }) => kind !== 'race')"
          :key="line.id"
          :d="pathOf(view, line.points, false)"
          :class="['line', line.kind]"
        />
        <g v-for="mark in live.job.marks" :key="mark.id" class="planned">
          <rect :x="at(mark).x - 6" :y="at(mark).y - 6" width="12" height="12" />
          <text :x="at(mark).x + 12" :y="at(mark).y + 5">{{ mark.name }}</text>
        </g>
        <g v-for="mark in marks" :key="mark.entryId" :class="['seen', { doubted: mark.isDoubted }]">
          <circle :cx="at(mark).x" :cy="at(mark).y" r="9" />
          <text :x="at(mark).x" :y="at(mark).y + 5">{{ mark.isDoubted ? '?' : minute(mark.time) }}</text>
        </g>
        <g v-if="next" class="next" data-testid="next-mark">
          <circle :cx="at(next.place).x" :cy="at(next.place).y" r="15" />
          <text :x="at(next.place).x" :y="at(next.place).y - 19">look here, about {{ minute(next.at) }}</text>
        </g>
      </template>
    </PlanFigure>
    <p v-if="live.marking.refusal" class="ember" role="alert">{{ live.marking.refusal }}</p>
    <p v-else-if="live.marking.lastId" class="told">
      Marked. <Button type="text" @click="live.marking.undo">It was not there: undo</Button>
      <span v-if="working" class="quiet">{{ working }}</span>
    </p>
    <p v-else class="quiet">
      <template v-if="live.shapesMessage">{{ live.shapesMessage }}</template>
      <template v-else-if="working">{{ working }}</template>
      <template v-else
        >Tap the plan where the front is now{{
          live.part.wet ? '; the thick line is the part itself' : ''
        }}.</template
      >
    </p>
  </div>
</template>

<style scoped>
.line {
  fill: none;
  stroke-width: 4;
}
.line.feed {
  stroke: var(--resin);
}
.line.vent {
  stroke: var(--tide);
}
.real {
  fill: none;
  stroke: var(--ember);
  stroke-width: 3.5;
}
.planned rect {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 2;
}
text {
  font: 600 15px var(--display);
  fill: var(--ink);
  paint-order: stroke;
  stroke: var(--sheet);
  stroke-width: 4px;
  pointer-events: none;
}
.seen circle {
  fill: var(--ink);
}
.seen text {
  text-anchor: middle;
  fill: var(--sheet);
  stroke: none;
  font-size: 12px;
}
.seen.doubted circle {
  fill: var(--ember);
}
.next circle {
  fill: none;
  stroke: var(--ink);
  stroke-width: 2.5;
  stroke-dasharray: 5 4;
}
.next text {
  text-anchor: middle;
}
p {
  margin: 2px 0 6px;
  min-height: 30px;
}
.told {
  display: flex;
  align-items: center;
  gap: 8px;
}
</style>
