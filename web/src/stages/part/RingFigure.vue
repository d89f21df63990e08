<script setup lang="ts">
import { edgeLength, edgeMiddle, flattenEdge, polygonOf, type Corner } from '@wick/core/geometry/arcs';
import { distance, nearestOnSegment } from '@wick/core/geometry/polygon';
import { computed } from 'vue';
import { pathOf, toPlan, toScreen, type Viewport } from '../../board/viewport.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The chosen ring with its handles: corners to drag, edge middles to bend, lengths beside the edges. */
const props = defineProps<{ ring: readonly Corner[]; view: Viewport; corner: number | null; name: string }>();
const emit = defineEmits<{
  focus: [index: number];
  key: [event: KeyboardEvent, index: number];
  split: [index: number];
}>();
const shop = useShopStore();
/** With more edges than this only those beside the chosen corner carry their lengths. */
const FEW = 12;
const LEAST_PIXELS = 34;
const LEAST_TEXT_PIXELS = 56;

const edges = computed(() =>
  props.ring.map((a, i) => {
    const b = props.ring[(i + 1) % props.ring.length]!;
    const pixels = edgeLength(a, b) * props.view.scale;
    const beside = props.corner === i || props.corner === (i + 1) % props.ring.length;
    return {
      at: toScreen(props.view, edgeMiddle(a, b)),
      hasRoom: pixels > LEAST_PIXELS,
      text:
        (props.ring.length <= FEW || beside) && pixels > LEAST_TEXT_PIXELS
          ? shop.show(edgeLength(a, b), 'length')
          : '',
    };
  }),
);
const corners = computed(() => props.ring.map((p) => toScreen(props.view, p)));
const whole = computed(() => pathOf(props.view, polygonOf(props.ring), true));

/** The edge nearest to where the ring was double-clicked. */
function splitNear(event: MouseEvent) {
  const frame = (event.target as SVGElement).ownerSVGElement!.getBoundingClientRect();
  const at = toPlan(props.view, { x: event.clientX - frame.left, y: event.clientY - frame.top });
  const away = props.ring.map((a, i) => {
    const b = props.ring[(i + 1) % props.ring.length]!;
    const points = [...flattenEdge(a, b), b];
    return Math.min(...points.slice(1).map((end, k) => distance(at, nearestOnSegment(at, points[k]!, end))));
  });
  emit('split', away.indexOf(Math.min(...away)));
}
</script>

<template>
  <g>
    <path :d="whole" class="edge" @dblclick="splitNear" />
    <g
      v-for="(edge, i) in edges"
      :key="`middle${i}`"
      v-memo="[edge.at.x, edge.at.y, edge.hasRoom, edge.text]"
    >
      <path
        v-if="edge.hasRoom"
        :d="`M${edge.at.x} ${edge.at.y - 6}l6 6l-6 6l-6 -6Z`"
        class="middle"
        :data-middle="i"
      />
      <text v-if="edge.text" :x="edge.at.x" :y="edge.at.y - 9" class="length">{{ edge.text }}</text>
    </g>
    <circle
      v-for="(at, i) in corners"
      :key="`corner${i}`"
      v-memo="[at.x, at.y, corner === i, name]"
      :cx="at.x"
      :cy="at.y"
      r="6"
      :class="['corner', { chosen: corner === i }]"
      :data-corner="i"
      tabindex="0"
      role="button"
      :aria-label="`${name}, corner ${i + 1}`"
      @keydown="emit('key', $event, i)"
      @focus="emit('focus', i)"
    />
  </g>
</template>

<style scoped>
.edge {
  fill: none;
  stroke: transparent;
  stroke-width: 14;
}
.corner {
  fill: var(--sheet);
  stroke: var(--ink);
  stroke-width: 1.6;
  cursor: move;
}
.corner.chosen {
  fill: var(--resin);
}
.middle {
  fill: var(--sheet);
  stroke: var(--quiet);
  cursor: grab;
}
.length {
  font: 500 12px var(--display);
  text-anchor: middle;
  fill: var(--ink);
  paint-order: stroke;
  stroke: #fbfaf6;
  stroke-width: 3px;
  pointer-events: none;
}
</style>
