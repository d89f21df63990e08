<script setup lang="ts">
import type { Point } from '@wick/core/geometry/polygon';
import { disc, rectangle, trapezoid } from '@wick/core/geometry/shapes';
import { Button, Popover } from 'ant-design-vue';
import { reactive, ref } from 'vue';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Outlines by a few numbers. */
const emit = defineEmits<{ choose: [outline: Point[]] }>();
const open = ref<string | null>(null);
const size = reactive({ length: 1.2, width: 0.8, endWidth: 0.4, diameter: 0.8 });
const refuse = (value: number) =>
  value >= 0.01 && value <= 100 ? null : 'Parts run from 10 mm to 100 m. Check the unit.';

const presets = [
  {
    name: 'Rectangle',
    fields: [
      ['length', 'Length'],
      ['width', 'Width'],
    ],
    make: () => rectangle(size),
  },
  {
    name: 'Trapezoid',
    fields: [
      ['length', 'Length'],
      ['width', 'Width at the start'],
      ['endWidth', 'Width at the end'],
    ],
    make: () => trapezoid({ length: size.length, startWidth: size.width, endWidth: size.endWidth }),
  },
  { name: 'Disc', fields: [['diameter', 'Diameter']], make: () => disc(size) },
] as const;

function choose(outline: Point[]) {
  open.value = null;
  emit('choose', outline);
}
</script>

<template>
  <Popover
    v-for="preset in presets"
    :key="preset.name"
    trigger="click"
    placement="bottomLeft"
    :open="open === preset.name"
    @update:open="open = $event ? preset.name : null"
  >
    <Button>{{ preset.name }}</Button>
    <template #content>
      <div class="fields">
        <QuantityInput
          v-for="[key, label] in preset.fields"
          :key="key"
          :label="label"
          quantity="length"
          :model-value="size[key]"
          :refuse="refuse"
          @update:model-value="size[key] = $event ?? size[key]"
        />
        <Button type="primary" @click="choose(preset.make())"
          >Use this {{ preset.name.toLowerCase() }}</Button
        >
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
  width: 220px;
}
</style>
