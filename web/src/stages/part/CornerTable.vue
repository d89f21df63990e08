<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { arcOf, bulgeOfRadius, edgeLength, type Corner } from '@wick/core/geometry/arcs';
import { distance } from '@wick/core/geometry/polygon';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import {
  aimEdgeAt,
  moveCorner,
  removeCorner,
  setBulge,
  setEdgeLength,
  splitEdgeAt,
  type RingRef,
} from '@wick/plan/part/edits';
import QuantityInput from '../../ui/QuantityInput.vue';
import JobField from '../common/JobField.vue';

/** Corners by number: where each lies, and the edge that leaves it by length, direction and radius. */
const props = defineProps<{ ring: readonly Corner[]; ringRef: RingRef; selected: number | null }>();
const emit = defineEmits<{ select: [index: number] }>();
const job = useSession();
/** Longer rings show the corners about the chosen one. */
const WINDOW = 12;

const rows = computed(() => {
  const n = props.ring.length;
  const from = n <= WINDOW ? 0 : Math.max(0, Math.min(n - WINDOW, (props.selected ?? 0) - WINDOW / 2));
  return props.ring.slice(from, from + WINDOW).map((corner, k) => {
    const index = from + k;
    const next = props.ring[(index + 1) % n]!;
    const arc = arcOf(corner, next);
    return {
      index,
      corner,
      length: edgeLength(corner, next),
      chord: distance(corner, next),
      angle: Math.atan2(next.y - corner.y, next.x - corner.x),
      radius: arc ? arc.radius * Math.sign(arc.sweep) : null,
    };
  });
});
type Row = (typeof rows.value)[number];
const lengthLimits = { atLeast: 1e-4, below: 200 };
const refuseRadius = (row: Row) => (value: number) =>
  Math.abs(value) >= row.chord / 2 - 1e-9
    ? null
    : 'No radius under half of the distance between the two corners spans them.';
function setRadius(row: Row, radius: number | null) {
  job.apply(setBulge(props.ringRef, row.index, radius ? bulgeOfRadius(row.chord, radius) : 0));
}
</script>

<template>
  <p v-if="ring.length > rows.length" class="quiet window">
    Corners {{ rows[0]!.index + 1 }} to {{ rows.at(-1)!.index + 1 }} of {{ ring.length }}, about the chosen
    one.
  </p>
  <table class="sheet">
    <thead>
      <tr>
        <th></th>
        <th>Along</th>
        <th>Across</th>
        <th>Edge after it</th>
        <th>Direction</th>
        <th>Radius</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="row in rows"
        :key="row.index"
        v-memo="[row.corner, row.length, row.angle, row.radius, selected === row.index, ringRef, ring.length]"
        :class="{ selected: selected === row.index }"
        @focusin="emit('select', row.index)"
      >
        <td class="number">{{ row.index + 1 }}</td>
        <td>
          <JobField
            hide-label
            :label="`Corner ${row.index + 1} along`"
            path="part.outline.x"
            :model-value="row.corner.x"
            @update:model-value="job.apply(moveCorner(ringRef, row.index, { x: $event!, y: row.corner.y }))"
          />
        </td>
        <td>
          <JobField
            hide-label
            :label="`Corner ${row.index + 1} across`"
            path="part.outline.y"
            :model-value="row.corner.y"
            @update:model-value="job.apply(moveCorner(ringRef, row.index, { x: row.corner.x, y: $event! }))"
          />
        </td>
        <td>
          <QuantityInput
            v-if="row.radius === null"
            hide-label
            :label="`Length of edge ${row.index + 1}`"
            quantity="length"
            :model-value="row.length"
            :limits="lengthLimits"
            @update:model-value="job.apply(setEdgeLength(ringRef, row.index, $event!), 'length of an edge')"
          />
          <span v-else class="number">arc</span>
        </td>
        <td>
          <QuantityInput
            hide-label
            :label="`Direction of edge ${row.index + 1}`"
            quantity="angle"
            :model-value="row.angle"
            @update:model-value="
              job.apply(aimEdgeAt(ringRef, row.index, { length: row.chord, angle: $event! }))
            "
          />
        </td>
        <td>
          <QuantityInput
            hide-label
            optional
            :label="`Radius of edge ${row.index + 1}`"
            quantity="length"
            :model-value="row.radius"
            :refuse="refuseRadius(row)"
            @update:model-value="setRadius(row, $event)"
          />
        </td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :aria-label="`Add a corner after ${row.index + 1}`"
            @click="job.apply(splitEdgeAt(ringRef, row.index))"
            >+</Button
          >
          <Button
            size="small"
            type="text"
            :disabled="ring.length <= 2"
            :aria-label="`Delete corner ${row.index + 1}`"
            @click="job.apply(removeCorner(ringRef, row.index))"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.window {
  margin: 4px 0;
}
.selected td {
  background: #f2e4c4;
}
td {
  vertical-align: middle !important;
}
td :deep(input) {
  padding: 1px 6px;
  min-width: 62px;
}
.actions {
  white-space: nowrap;
}
</style>
