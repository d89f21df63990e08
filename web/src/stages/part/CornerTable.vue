<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import { Button } from 'ant-design-vue';
import { moveCorner, removeCorner } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

defineProps<{ outline: readonly Point[]; selected: number | null }>();
const emit = defineEmits<{ select: [index: number] }>();
const job = useJobStore();
</script>

<template>
  <table class="sheet">
    <thead>
      <tr>
        <th></th>
        <th>along</th>
        <th>across</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(corner, i) in outline"
        :key="i"
        :class="{ selected: selected === i }"
        @focusin="emit('select', i)"
      >
        <td class="number">{{ i + 1 }}</td>
        <td>
          <QuantityInput
            hide-label
            :label="`Corner ${i + 1} along`"
            quantity="length"
            :model-value="corner.x"
            @update:model-value="job.apply(moveCorner(i, { x: $event!, y: corner.y }))"
          />
        </td>
        <td>
          <QuantityInput
            hide-label
            :label="`Corner ${i + 1} across`"
            quantity="length"
            :model-value="corner.y"
            @update:model-value="job.apply(moveCorner(i, { x: corner.x, y: $event! }))"
          />
        </td>
        <td>
          <Button
            size="small"
            type="text"
            :disabled="outline.length <= 3"
            :aria-label="`Delete corner ${i + 1}`"
            @click="job.apply(removeCorner(i))"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.selected td {
  background: #f2e4c4;
}
td {
  vertical-align: middle !important;
}
</style>
