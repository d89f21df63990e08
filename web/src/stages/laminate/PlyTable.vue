<script setup lang="ts">
import type { Job } from '@wick/contract/job';
import { Button } from 'ant-design-vue';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

type Plies = Job['laminate']['plies'];
const props = defineProps<{ plies: Plies; nameOf: (id: string) => string; thicknesses: readonly number[] }>();
const emit = defineEmits<{ change: [plies: Plies] }>();
const shop = useShopStore();

function swap(index: number, by: number) {
  const plies = [...props.plies];
  const [ply] = plies.splice(index, 1);
  plies.splice(index + by, 0, ply!);
  emit('change', plies);
}
const turn = (index: number, angle: number) =>
  emit(
    'change',
    props.plies.map((ply, i) => (i === index ? { ...ply, angle } : ply)),
  );
const refuseAngle = (angle: number) =>
  Math.abs(angle) <= 2 * Math.PI + 1e-9 ? null : 'Angles run from -360 to 360 degrees.';
</script>

<template>
  <table class="sheet">
    <thead>
      <tr>
        <th>Ply, mould side first</th>
        <th class="angle">Angle</th>
        <th>Thickness</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(ply, i) in plies" :key="ply.id" data-testid="ply">
        <td>
          <span class="number">{{ i + 1 }}</span> {{ nameOf(ply.materialId) }}
        </td>
        <td>
          <QuantityInput
            hide-label
            :label="`Angle of ply ${i + 1}`"
            quantity="angle"
            :model-value="ply.angle"
            :refuse="refuseAngle"
            @update:model-value="turn(i, $event!)"
          />
        </td>
        <td class="number">{{ shop.show(thicknesses[i], 'thickness') }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :disabled="i === 0"
            :aria-label="`Move ply ${i + 1} up`"
            @click="swap(i, -1)"
            >↑</Button
          >
          <Button
            size="small"
            type="text"
            :disabled="i === plies.length - 1"
            :aria-label="`Move ply ${i + 1} down`"
            @click="swap(i, 1)"
            >↓</Button
          >
          <Button
            size="small"
            type="text"
            :aria-label="`Delete ply ${i + 1}`"
            @click="
              emit(
                'change',
                plies.filter((_, j) => j !== i),
              )
            "
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.angle {
  width: 92px;
}
td {
  vertical-align: middle !important;
}
.actions {
  white-space: nowrap;
  text-align: right;
}
</style>
