<script setup lang="ts">
import {
  findingKinds,
  findingPatterns,
  findingSides,
  MOST_CORNERS,
  type FindingKind,
  type FindingPattern,
  type FindingSide,
} from '@wick/contract/run/review-bodies';
import type { Point } from '@wick/core/geometry/polygon';
import { findingNames, findingSigns, patternNames, sideNames } from '@wick/plan/review/names';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { pathOf } from '../../board/viewport.ts';
import { useRun } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import PlanFigure from '../common/PlanFigure.vue';
import CameOff from './CameOff.vue';
import FindingList from './FindingList.vue';
import { useReview } from './review.ts';

/** What was seen on the part, where: a tap sets a pin, several draw a line or an area. */
const run = useRun();
const review = useReview();
const is = ref<FindingKind>('drySpot');
const side = ref<FindingSide>('mould');
const form = ref<'pin' | 'line' | 'area'>('pin');
const pattern = ref<FindingPattern | null>(null);
const size = ref<number | null>(null);
const note = ref('');
const drawn = ref<Point[]>([]);
const selected = ref<string | null>(null);

const kinds = findingKinds.map((value) => ({ value, label: findingNames[value] }));
const sides = findingSides.map((value) => ({ value, label: sideNames[value] }));
const forms = [
  { value: 'pin', label: 'a pin' },
  { value: 'line', label: 'a line' },
  { value: 'area', label: 'an area' },
] as const;
const patterns = [
  { value: null, label: 'not said' },
  ...findingPatterns.map((value) => ({ value, label: patternNames[value] })),
];
const hasPattern = computed(() => is.value === 'pinholes' || is.value === 'drySpot');
/** px in which its words find no room. */
const isAtLeft = ({ x }: Point) => x < 140;
const least = computed(() => ({ pin: 1, line: 2, area: 3 })[form.value]);

function tap(place: Point) {
  if (!run.run || drawn.value.length >= MOST_CORNERS) return;
  drawn.value = [...drawn.value, { x: round(place.x), y: round(place.y) }];
  if (form.value === 'pin') void keep();
}
/** mm */
const round = (value: number) => Math.round(value * 1000) / 1000;
async function keep() {
  if (drawn.value.length < least.value) return;
  const path = drawn.value;
  drawn.value = [];
  selected.value = await run.say({
    ...{ kind: 'finding', is: is.value, side: side.value, form: form.value, path, size: size.value },
    ...{ pattern: hasPattern.value ? pattern.value : null, photoIds: [], note: note.value.trim() },
  });
  note.value = '';
  size.value = null;
}
const setForm = (value: string) => {
  form.value = value as typeof form.value;
  drawn.value = [];
};
</script>

<template>
  <div class="tools form">
    <label
      ><span class="quiet">Seen</span><Choice v-model:value="is" :options="kinds" aria-label="What was seen"
    /></label>
    <label
      ><span class="quiet">On the</span
      ><Choice v-model:value="side" :options="sides" aria-label="On which side"
    /></label>
    <label
      ><span class="quiet">As</span
      ><Choice :value="form" :options="[...forms]" aria-label="Drawn as" @change="setForm(String($event))"
    /></label>
    <label v-if="hasPattern"
      ><span class="quiet">How it lies</span
      ><Choice v-model:value="pattern" :options="patterns" aria-label="How it lies"
    /></label>
    <QuantityInput
      v-if="form === 'pin'"
      v-model="size"
      class="size"
      label="Across"
      quantity="length"
      optional
      :limits="{ above: 0, below: 1000 }"
    />
    <label class="note"
      ><span class="quiet">Note</span><Input v-model:value="note" aria-label="Note" :maxlength="1000"
    /></label>
  </div>
  <p class="quiet sign">
    {{ findingNames[is] }}: {{ findingSigns[is] }}.
    <template v-if="!run.run">Begin a part, or choose one, to write down what was found.</template>
    <template v-else-if="form === 'pin'">Tap the plan where it is.</template>
    <template v-else-if="drawn.length < least">Tap its corners on the plan.</template>
    <template v-else
      >Tap more corners, or <Button size="small" @click="keep">Keep this {{ form }}</Button></template
    >
    <Button v-if="drawn.length > 0" size="small" type="text" @click="drawn = []">Begin anew</Button>
  </p>
  <PlanFigure
    v-if="review.job"
    :job="review.job"
    label="Findings on the plan: tap where it is"
    :is-tappable="run.run !== null"
    @tap="tap"
  >
    <template #default="{ at, view }">
      <path
        v-for="line in review.job.lines.filter(({ kind }) => kind !== 'race')"
        :key="line.id"
        :d="pathOf(view, line.points, false)"
        :class="['line', line.kind]"
      />
      <g v-if="review.fill" class="end">
        <circle :cx="at(review.fill.plannedEnd).x" :cy="at(review.fill.plannedEnd).y" r="15" />
        <text
          :x="at(review.fill.plannedEnd).x"
          :dx="isAtLeft(at(review.fill.plannedEnd)) ? 20 : -20"
          :y="at(review.fill.plannedEnd).y - 12"
          :text-anchor="isAtLeft(at(review.fill.plannedEnd)) ? 'start' : 'end'"
        >
          the forecast ends here
        </text>
      </g>
      <g
        v-for="(finding, n) in review.findings"
        :key="finding.id"
        :class="['finding', { chosen: finding.id === selected }]"
        @click.stop="selected = finding.id"
      >
        <path
          v-if="finding.form !== 'pin'"
          :d="pathOf(view, finding.path, finding.form === 'area')"
          :class="finding.form"
        />
        <circle :cx="at(finding.place).x" :cy="at(finding.place).y" r="10" />
        <text :x="at(finding.place).x" :y="at(finding.place).y + 5">{{ n + 1 }}</text>
      </g>
      <path v-if="drawn.length > 1" :d="pathOf(view, drawn, form === 'area')" :class="['drawing', form]" />
      <circle
        v-for="(corner, n) in drawn"
        :key="n"
        :cx="at(corner).x"
        :cy="at(corner).y"
        r="4"
        class="corner"
      />
    </template>
  </PlanFigure>
  <CameOff v-if="run.run?.kind === 'rehearsal'" />
  <FindingList v-model:selected="selected" />
</template>

<style scoped>
.form {
  align-items: end;
  gap: 12px;
}
.form label span {
  display: block;
  font-size: 13px;
}
.size {
  width: 110px;
}
.note {
  flex: 1 1 180px;
}
.sign {
  margin: 6px 0;
  min-height: 28px;
}
.line {
  fill: none;
  stroke-width: 3;
}
.line.feed {
  stroke: var(--resin);
}
.line.vent {
  stroke: var(--tide);
}
.end circle {
  fill: none;
  stroke: var(--quiet);
  stroke-dasharray: 3 3;
}
.end text {
  font: 500 12px var(--display);
  fill: var(--quiet);
}
.finding {
  cursor: pointer;
}
.finding circle {
  fill: var(--sheet);
  stroke: var(--ember);
  stroke-width: 2;
}
.finding.chosen circle {
  fill: var(--ember);
}
.finding text {
  font: 600 13px var(--display);
  text-anchor: middle;
  fill: var(--ember);
}
.finding.chosen text {
  fill: var(--sheet);
}
.finding path,
.drawing {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2.5;
}
.finding path.area,
.drawing.area {
  fill: var(--ember);
  fill-opacity: 0.14;
}
.drawing {
  stroke-dasharray: 5 4;
}
.corner {
  fill: var(--ember);
}
</style>
