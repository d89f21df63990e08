<script setup lang="ts">
import { contains, type Point } from '@wick/core/geometry/polygon';
import { disc } from '@wick/core/geometry/shapes';
import { partArea, partPerimeter } from '@wick/contract/forecast-input';
import { Button } from 'ant-design-vue';
import { computed, ref } from 'vue';
import Board from '../../board/Board.vue';
import { pathOf, toScreen } from '../../board/viewport.ts';
import { moveCorner, moveHole, removeCorner, splitEdge, withPart } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { Stage } from '../stage.ts';
import CornerTable from './CornerTable.vue';
import ShapePresets from './ShapePresets.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useJobStore();
const shop = useShopStore();

const part = computed(() => job.document!.part);
const selected = ref<number | null>(null);
const drawing = ref<Point[] | null>(null);
const pointer = ref<Point | null>(null);
let drag: { kind: 'corner' | 'hole'; index: number; from: Point } | null = null;

const edges = computed(() =>
  part.value.outline.map((a, i) => {
    const b = part.value.outline[(i + 1) % part.value.outline.length]!;
    return { middle: { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }, length: Math.hypot(b.x - a.x, b.y - a.y) };
  }),
);
const showLengths = computed(() => part.value.outline.length <= 8);

function press(at: Point, event: PointerEvent) {
  if (drawing.value) return addDrawn(at);
  const target = (event.target as Element).closest('[data-corner]');
  const corner = target?.getAttribute('data-corner');
  if (corner != null) {
    selected.value = Number(corner);
    drag = { kind: 'corner', index: Number(corner), from: at };
    return;
  }
  const hole = part.value.holes.findIndex((ring) => contains(ring, at));
  selected.value = null;
  if (hole >= 0) drag = { kind: 'hole', index: hole, from: at };
}

function move(at: Point) {
  pointer.value = at;
  if (!drag) return;
  const { kind, index, from } = drag;
  job.preview(
    kind === 'corner' ? moveCorner(index, at) : moveHole(index, { x: at.x - from.x, y: at.y - from.y }),
  );
}

function release() {
  drag = null;
  job.endGesture();
}

function addDrawn(at: Point) {
  const points = drawing.value!;
  const first = points[0];
  const near = first && Math.hypot(first.x - at.x, first.y - at.y) < 0.03 * Math.sqrt(partArea(part.value));
  if (near && points.length >= 3) return finishDrawing();
  drawing.value = [...points, { x: Math.round(at.x * 1000) / 1000, y: Math.round(at.y * 1000) / 1000 }];
}

function finishDrawing() {
  if (drawing.value && drawing.value.length >= 3) job.apply(withPart({ outline: drawing.value, holes: [] }));
  drawing.value = null;
}

function onKey(event: KeyboardEvent, index: number) {
  const size = event.shiftKey ? 0.001 : 0.01;
  const by = { ArrowLeft: [-size, 0], ArrowRight: [size, 0], ArrowUp: [0, size], ArrowDown: [0, -size] }[
    event.key
  ];
  const corner = part.value.outline[index]!;
  if (by) job.apply(moveCorner(index, { x: corner.x + by[0]!, y: corner.y + by[1]! }));
  else if (event.key === 'Delete' || event.key === 'Backspace') job.apply(removeCorner(index));
  else return;
  event.preventDefault();
}

function addHole() {
  const { outline, holes } = part.value;
  const size = 0.15 * Math.sqrt(partArea(part.value));
  const middle = outline.reduce(
    (sum, p) => ({ x: sum.x + p.x / outline.length, y: sum.y + p.y / outline.length }),
    { x: 0, y: 0 },
  );
  const ring = disc({ diameter: size, corners: 24 }).map((p) => ({
    x: p.x + middle.x - size / 2,
    y: p.y + middle.y - size / 2,
  }));
  job.apply(withPart({ holes: [...holes, ring] }));
}
const removeHole = (index: number) =>
  job.apply(withPart({ holes: part.value.holes.filter((_, i) => i !== index) }));

/** Slope of the mould, metre per metre along its surface: resin climbs it against its weight. */
const refuseRise = (value: number) => (Math.abs(value) <= 0.7 ? null : 'From -70 % to 70 % of the length.');
function setRise(axis: 'x' | 'y', value: number | null) {
  const rise = { x: 0, y: 0, ...part.value.rise, [axis]: value ?? 0 };
  job.apply(withPart({ rise: rise.x === 0 && rise.y === 0 ? null : rise }));
}
</script>

<template>
  <div class="stage">
    <section class="bench">
      <h1>{{ stage.question }}</h1>
      <div class="tools">
        <ShapePresets @choose="job.apply(withPart({ outline: $event, holes: [] }))" />
        <Button @click="drawing = drawing ? null : []">{{ drawing ? 'Stop drawing' : 'Draw freely' }}</Button>
        <Button @click="addHole">Add a hole</Button>
      </div>
      <p v-if="drawing" class="quiet">
        Click corner after corner; click the first one again to close.
        <Button size="small" :disabled="drawing.length < 3" @click="finishDrawing">Close the outline</Button>
      </p>
      <p v-else class="quiet">
        Drag a corner or a hole. Double-click an edge to add a corner. Arrows move the focused corner.
      </p>
      <Board
        :part="part"
        :lines="job.document!.lines"
        :frozen="job.isGesturing || drawing !== null"
        label="Plan of the part"
        @press="press"
        @move="move"
        @release="release"
      >
        <template #default="{ view }">
          <path
            v-if="drawing"
            :d="pathOf(view, [...drawing, ...(pointer ? [pointer] : [])], false)"
            class="drawing"
          />
          <template v-else>
            <g v-for="(edge, i) in edges" :key="`edge${i}`">
              <path
                :d="pathOf(view, [part.outline[i]!, part.outline[(i + 1) % part.outline.length]!], false)"
                class="edge"
                @dblclick="job.apply(splitEdge(i))"
              />
              <text
                v-if="showLengths"
                :x="toScreen(view, edge.middle).x"
                :y="toScreen(view, edge.middle).y - 6"
                class="length"
              >
                {{ shop.show(edge.length, 'length') }}
              </text>
            </g>
            <circle
              v-for="(corner, i) in part.outline"
              :key="`corner${i}`"
              :cx="toScreen(view, corner).x"
              :cy="toScreen(view, corner).y"
              r="6"
              :class="['corner', { selected: selected === i }]"
              :data-corner="i"
              tabindex="0"
              role="button"
              :aria-label="`Corner ${i + 1}`"
              @keydown="onKey($event, i)"
              @focus="selected = i"
            />
          </template>
        </template>
      </Board>
    </section>
    <aside class="answer">
      <div class="quiet">area to be wetted</div>
      <div class="number huge" data-testid="area">{{ shop.show(partArea(part), 'area') }}</div>
      <div class="row">
        <span>Edge all round</span><span class="number">{{ shop.show(partPerimeter(part), 'length') }}</span>
      </div>
      <div class="rise">
        <QuantityInput
          v-for="axis in ['x', 'y'] as const"
          :key="axis"
          :label="axis === 'x' ? 'Rises along it by' : 'Rises across it by'"
          quantity="fraction"
          :model-value="part.rise ? part.rise[axis] : null"
          :assumed="0"
          :refuse="refuseRise"
          @update:model-value="setRise(axis, $event)"
        />
      </div>
      <div v-for="(hole, i) in part.holes" :key="i" class="row">
        <span
          >Hole {{ i + 1 }}, {{ shop.show(partArea({ ...part, outline: hole, holes: [] }), 'area') }}</span
        >
        <Button size="small" type="text" danger @click="removeHole(i)">Delete</Button>
      </div>
      <h3>Corners</h3>
      <CornerTable :outline="part.outline" :selected="selected" @select="selected = $event" />
    </aside>
  </div>
</template>

<style scoped>
.rise {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px;
  padding-top: 8px;
}
.tools {
  margin: 8px 0 4px;
}
.bench p {
  margin: 2px 0;
}
.corner {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
  cursor: move;
}
.corner.selected {
  fill: var(--resin);
}
.edge {
  stroke: transparent;
  stroke-width: 14;
  fill: none;
}
.length {
  font: 500 12px var(--display);
  text-anchor: middle;
  fill: var(--quiet);
  pointer-events: none;
}
.drawing {
  fill: none;
  stroke: var(--resin);
  stroke-width: 2;
}
.huge {
  font-size: 40px;
  line-height: 1.1;
}
</style>
