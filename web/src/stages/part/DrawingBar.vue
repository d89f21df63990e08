<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { PartTool } from './part-tools.ts';

/** Corners by number while something is drawn: the first by its place, further ones by length and direction. */
const props = defineProps<{ drawn: readonly Point[]; tool: PartTool }>();
const emit = defineEmits<{ corner: [at: Point]; close: []; giveUp: [] }>();
const length = ref<number | null>(0.5);
const angle = ref<number | null>(0);
const x = ref<number | null>(0);
const y = ref<number | null>(0);
const draws = computed(() => props.tool !== 'measure' && props.tool !== 'split');
const enough = computed(() => props.drawn.length > (props.tool === 'feature' ? 1 : 2));

function add() {
  const last = props.drawn.at(-1);
  emit(
    'corner',
    last
      ? {
          x: last.x + (length.value ?? 0) * Math.cos(angle.value ?? 0),
          y: last.y + (length.value ?? 0) * Math.sin(angle.value ?? 0),
        }
      : { x: x.value ?? 0, y: y.value ?? 0 },
  );
}
</script>

<template>
  <div class="tools bar">
    <template v-if="draws">
      <template v-if="drawn.length === 0">
        <QuantityInput v-model="x" label="First corner along" quantity="length" />
        <QuantityInput v-model="y" label="across" quantity="length" />
      </template>
      <template v-else>
        <QuantityInput v-model="length" label="Next edge, length" quantity="length" />
        <QuantityInput v-model="angle" label="direction" quantity="angle" />
      </template>
      <Button size="small" @click="add">Set corner</Button>
      <Button size="small" type="primary" :disabled="!enough" @click="emit('close')">Done</Button>
    </template>
    <Button size="small" @click="emit('giveUp')">{{ draws ? 'Give up' : 'Done' }}</Button>
  </div>
</template>

<style scoped>
.bar {
  align-items: end;
  flex-wrap: nowrap;
}
.bar :deep(.quantity) {
  width: 118px;
}
</style>
