<script setup lang="ts">
import type { Stack } from '@wick/core/laminate/stack';
import { materialOf } from '@wick/contract/forecast-input';
import type { Job } from '@wick/contract/job';
import { computed } from 'vue';
import { useShopStore } from '../../state/shop-store.ts';

/** Section through the stack, to scale in thickness; the core is cut short where it would dwarf the plies. */
const props = defineProps<{ job: Job; stack: Stack }>();
const shop = useShopStore();
const HEIGHT = 380;

interface Layer {
  label: string;
  thickness: number;
  fill: string;
  isCut: boolean;
}
const layers = computed<Layer[]>(() => {
  const { laminate } = props.job;
  const core = materialOf(props.job, laminate.coreId, 'core');
  const mesh = materialOf(props.job, laminate.flowMeshId, 'flowMesh');
  const plies = laminate.plies.map((ply, i) => ({
    label: `${i + 1}  ${materialOf(props.job, ply.materialId, 'fabric')?.name ?? ''}  ${Math.round((ply.angle * 180) / Math.PI)}°`,
    thickness: props.stack.plies[i]?.thickness ?? 0,
    fill: Math.abs(Math.sin(2 * ply.angle)) > 0.5 ? '#d8c394' : '#e8d9b3',
    isCut: false,
  }));
  const half = Math.ceil(plies.length / 2);
  const coreLayer = core && {
    label: core.name,
    thickness: Math.min(core.thickness, props.stack.laminateThickness),
    fill: '#f0ece0',
    isCut: core.thickness > props.stack.laminateThickness,
  };
  return [
    ...plies.slice(0, coreLayer ? half : plies.length),
    ...(coreLayer ? [coreLayer, ...plies.slice(half)] : []),
    ...(mesh
      ? [{ label: `${mesh.name}, taken off`, thickness: mesh.thickness, fill: '#b9d0cf', isCut: false }]
      : []),
  ];
});
const drawn = computed(() => {
  const total = layers.value.reduce((sum, layer) => sum + layer.thickness, 0);
  let y = HEIGHT;
  return layers.value.map((layer) => {
    const height = (layer.thickness / total) * HEIGHT;
    y -= height;
    return { ...layer, y, height };
  });
});
</script>

<template>
  <figure>
    <svg :viewBox="`0 -4 260 ${HEIGHT + 26}`" role="img" aria-label="Section through the stack, to scale">
      <g v-for="(layer, i) in drawn" :key="i">
        <rect
          x="0"
          :y="layer.y"
          width="250"
          :height="layer.height"
          :fill="layer.fill"
          stroke="#8b8474"
          stroke-width="0.7"
        />
        <text v-if="layer.height > 11" x="8" :y="layer.y + layer.height / 2 + 4">
          {{ layer.label }}
          <tspan v-if="layer.isCut">(drawn thinner)</tspan>
        </text>
      </g>
      <rect x="0" :y="HEIGHT" width="250" height="6" fill="#1e2a2f" />
      <text x="0" :y="HEIGHT + 20">mould · {{ shop.show(stack.thickness, 'thickness') }} after demould</text>
    </svg>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  width: 100%;
  max-height: 430px;
}
text {
  font: 500 12px var(--display);
  fill: var(--ink);
}
</style>
