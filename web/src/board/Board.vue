<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, distance, type Point } from '@wick/core/geometry/polygon';
import type { Job, JobLine } from '@wick/contract/job/job';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue';
import BoardRulers from './BoardRulers.vue';
import { figureAt, type Scene } from './scene.ts';
import type { BoardEvent } from './tool.ts';
import { fitViewport, pathOf, toPlan, zoomAt, type Viewport } from './viewport.ts';

/** Plan of the part to scale. Draws paper, rulers and part; stages add what is theirs in the slots, in screen coordinates. */
const props = defineProps<{
  part: Job['part'];
  lines: readonly JobLine[];
  label: string;
  frozen: boolean;
  /** What can be taken hold of. */
  scene?: Scene;
  /** Kept free round the part, m. */
  room?: number;
  /** Further places that have to be in sight. */
  places?: readonly Point[];
}>();
const emit = defineEmits<{
  press: [event: BoardEvent];
  move: [event: BoardEvent];
  release: [event: BoardEvent];
  leave: [];
  /** A double-click. */
  twice: [event: BoardEvent];
  /** Scale and place of the plan on the screen, as they change. */
  view: [view: Viewport];
  /** A second finger has come down: what the first one began is given up. */
  abandon: [];
}>();

const svg = ref<SVGSVGElement | null>(null);
const size = shallowRef({ width: 800, height: 480 });
const chosen = shallowRef<Viewport | null>(null);
const held = shallowRef<Viewport | null>(null);
const outline = computed(() => polygonOf(props.part.outline));
const box = computed(() => {
  const { minX, minY, maxX, maxY } = boundsOf([
    ...outline.value,
    ...props.lines.flatMap((line) => line.points),
    ...(props.places ?? []),
  ]);
  const room = props.room ?? 0;
  return { minX: minX - room, minY: minY - room, maxX: maxX + room, maxY: maxY + room };
});
// While a gesture runs the plan must not slide away under the hand.
const fitted = computed(() => fitViewport(box.value, size.value));
const view = computed(() => chosen.value ?? (props.frozen ? (held.value ?? fitted.value) : fitted.value));
const partPath = computed(() =>
  [outline.value, ...props.part.holes.map((hole) => polygonOf(hole.outline))]
    .map((ring) => pathOf(view.value, ring, true))
    .join(''),
);
watch(view, (now) => emit('view', now), { immediate: true });
let panFrom: { at: Point; view: Viewport } | null = null;
const fingers = new Map<number, Point>();
let pinchFrom: { apart: number; middle: Point; view: Viewport } | null = null;

function boardEvent(event: MouseEvent): BoardEvent {
  const frame = svg.value!.getBoundingClientRect();
  const at = toPlan(view.value, { x: event.clientX - frame.left, y: event.clientY - frame.top });
  const target = figureAt(props.scene ?? [], at, 1 / view.value.scale);
  return { at, target, isFree: event.altKey, isStraight: event.shiftKey };
}

function pinchOf(): { apart: number; middle: Point } {
  const [a, b] = [...fingers.values()] as [Point, Point];
  const frame = svg.value!.getBoundingClientRect();
  return {
    apart: Math.max(1, distance(a, b)),
    middle: { x: (a.x + b.x) / 2 - frame.left, y: (a.y + b.y) / 2 - frame.top },
  };
}

function onDown(event: PointerEvent) {
  svg.value!.setPointerCapture(event.pointerId);
  held.value = view.value;
  if (event.pointerType === 'touch') fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
  if (fingers.size === 2) {
    emit('abandon');
    pinchFrom = { ...pinchOf(), view: view.value };
  } else if (fingers.size > 2) return;
  else if (event.button === 1 || event.altKey)
    panFrom = { at: { x: event.clientX, y: event.clientY }, view: view.value };
  else if (event.button === 0) emit('press', boardEvent(event));
}

function onMove(event: PointerEvent) {
  if (fingers.has(event.pointerId)) fingers.set(event.pointerId, { x: event.clientX, y: event.clientY });
  if (pinchFrom) {
    if (fingers.size < 2) return;
    const { apart, middle } = pinchOf();
    const zoomed = zoomAt(pinchFrom.view, pinchFrom.middle, apart / pinchFrom.apart);
    chosen.value = {
      ...zoomed,
      left: zoomed.left + middle.x - pinchFrom.middle.x,
      bottom: zoomed.bottom + middle.y - pinchFrom.middle.y,
    };
  } else if (panFrom) {
    const { at, view: start } = panFrom;
    chosen.value = {
      ...start,
      left: start.left + event.clientX - at.x,
      bottom: start.bottom + event.clientY - at.y,
    };
  } else emit('move', boardEvent(event));
}

function onUp(event: PointerEvent) {
  fingers.delete(event.pointerId);
  if (pinchFrom) {
    if (fingers.size === 0) pinchFrom = null;
  } else if (panFrom) panFrom = null;
  else emit('release', boardEvent(event));
}

function onWheel(event: WheelEvent) {
  const frame = svg.value!.getBoundingClientRect();
  chosen.value = zoomAt(
    view.value,
    { x: event.clientX - frame.left, y: event.clientY - frame.top },
    Math.exp(-event.deltaY * 0.0015),
  );
}

const observer = new ResizeObserver(([entry]) => {
  if (entry && entry.contentRect.width > 0)
    size.value = { width: entry.contentRect.width, height: entry.contentRect.height };
});
onMounted(() => observer.observe(svg.value!));
onBeforeUnmount(() => observer.disconnect());
</script>

<template>
  <div class="board">
    <svg
      ref="svg"
      role="application"
      :aria-label="label"
      @pointerdown="onDown"
      @pointermove="onMove"
      @pointerup="onUp"
      @pointercancel="onUp"
      @dblclick="emit('twice', boardEvent($event))"
      @pointerleave="emit('leave')"
      @wheel.prevent="onWheel"
    >
      <defs>
        <clipPath id="part-clip"><path :d="partPath" clip-rule="evenodd" /></clipPath>
        <pattern
          id="gel-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="7" height="7" fill="#fbfaf6" />
          <line x1="0" y1="0" x2="0" y2="7" stroke="#b3261e" stroke-width="1.6" opacity="0.55" />
        </pattern>
      </defs>
      <BoardRulers :view="view" :size="size" :box="box" />
      <path :d="partPath" fill="#fbfaf6" fill-rule="evenodd" />
      <g clip-path="url(#part-clip)"><slot name="inside" :view="view" /></g>
      <path :d="partPath" fill="none" stroke="var(--ink)" stroke-width="1.6" />
      <slot :view="view" />
    </svg>
    <button v-if="chosen" class="plain fit" @click="chosen = null">Whole part</button>
  </div>
</template>

<style scoped>
.board {
  position: relative;
  flex: 1;
  min-height: 260px;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
}
.fit {
  position: absolute;
  right: 8px;
  bottom: 4px;
  text-decoration: underline;
}
</style>
