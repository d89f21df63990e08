<script setup lang="ts">
import { edgeLength, edgeMiddle, flattenEdge, type Corner } from '@wick/core/geometry/arcs';
import { computed } from 'vue';
import { pathOf, toScreen, type Viewport } from '../../board/viewport.ts';
import { useShopStore } from '../../state/shop-store.ts';

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
    const length = edgeLength(a, b);
    const beside = props.corner === i || props.corner === (i + 1) % props.ring.length;
    return {
      at: toScreen(props.view, edgeMiddle(a, b)),
      path: pathOf(props.view, [...flattenEdge(a, b), b], false),
      length,
      hasRoom: length * props.view.scale > LEAST_PIXELS,
      isShown: (props.ring.length <= FEW || beside) && length * props.view.scale > LEAST_TEXT_PIXELS,
    };
  }),
);
const corners = computed(() => props.ring.map((p) => toScreen(props.view, p)));
</script>

<template>
  <g>
    <path
      v-for="(edge, i) in edges"
      :key="`edge${i}`"
      :d="edge.path"
      class="edge"
      @dblclick="emit('split', i)"
    />
    <template v-for="(edge, i) in edges" :key="`middle${i}`">
      <rect
        v-if="edge.hasRoom"
        :x="edge.at.x - 4"
        :y="edge.at.y - 4"
        width="8"
        height="8"
        :transform="`rotate(45 ${edge.at.x} ${edge.at.y})`"
        class="middle"
        :data-middle="i"
      />
      <text v-if="edge.isShown" :x="edge.at.x" :y="edge.at.y - 9" class="length">
        {{ shop.show(edge.length, 'length') }}
      </text>
    </template>
    <circle
      v-for="(at, i) in corners"
      :key="`corner${i}`"
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
