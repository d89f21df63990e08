<script setup lang="ts">
import { fieldOf } from '@wick/contract/field';
import { materialSchema } from '@wick/contract/materials';
import Button from 'ant-design-vue/es/button';
import { capital } from '../../ui/capital.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** Values of a data sheet against temperature, and how far each lies from the curve through them. */
type Point = Readonly<Record<string, number>>;
const props = defineProps<{
  name: string;
  /** Of the points in a resin, and of the value in a point. */
  path: string;
  valuePath: 'viscosity' | 'time';
  points: readonly Point[];
  residuals: readonly number[];
}>();
const emit = defineEmits<{ change: [points: Point[]] }>();

const FIRST = { temperature: 288.15, viscosity: 0.3, time: 3600 };
/** A further point stands so much warmer than the last, K. */
const STEP = 5;

const set = (index: number, changes: Point) =>
  emit(
    'change',
    props.points.map((point, i) => (i === index ? { ...point, ...changes } : point)),
  );
const remove = (index: number) =>
  emit(
    'change',
    props.points.filter((_, i) => i !== index),
  );
function add() {
  const { temperature, [props.valuePath]: value } = FIRST;
  const last = props.points.at(-1) ?? { temperature, [props.valuePath]: value };
  emit('change', [...props.points, { ...last, temperature: last.temperature! + STEP }]);
}
const off = (value: number | undefined) =>
  value === undefined ? '' : `${value >= 0 ? '+' : '−'}${(100 * Math.abs(value)).toFixed(1)} %`;
</script>

<template>
  <table class="sheet">
    <tbody>
      <tr v-for="(point, i) in points" :key="i">
        <td>
          <QuantityInput
            hide-label
            :label="`Temperature of ${name} ${i + 1}`"
            v-bind="fieldOf(materialSchema, `${path}.temperature`)"
            :model-value="point.temperature!"
            @update:model-value="set(i, { temperature: $event! })"
          />
        </td>
        <td>
          <QuantityInput
            hide-label
            :label="`${capital(name)} ${i + 1}`"
            v-bind="fieldOf(materialSchema, `${path}.${valuePath}`)"
            :model-value="point[valuePath]!"
            @update:model-value="set(i, { [valuePath]: $event! })"
          />
        </td>
        <td class="number off">{{ off(residuals[i]) }}</td>
        <td>
          <Button size="small" type="text" :aria-label="`Delete ${name} ${i + 1}`" @click="remove(i)"
            >×</Button
          >
        </td>
      </tr>
      <tr>
        <td colspan="4">
          <Button size="small" type="link" @click="add">Add a {{ name }}</Button>
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td :deep(input) {
  padding: 1px 7px;
}
.off {
  min-width: 56px;
  text-align: right;
}
</style>
