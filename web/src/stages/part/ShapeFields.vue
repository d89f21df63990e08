<script setup lang="ts">
import { polygonOf } from '@wick/core/geometry/arcs';
import type { Patch } from '@wick/core/geometry/overlay';
import { boundsOf } from '@wick/core/geometry/polygon';
import { computed, reactive, ref, watchEffect } from 'vue';
import { fitViewport, pathOf } from '../../board/viewport.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { shapeTemplates, sizeLimits, usualSize } from './shape-templates.ts';

/** A shape by name and size, drawn as it will be; null while the numbers make none. */
const patch = defineModel<Patch | null>({ required: true });
const size = reactive({ ...usualSize });
const chosen = ref(shapeTemplates[0]!.name);
const template = computed(() => shapeTemplates.find(({ name }) => name === chosen.value)!);
const fault = computed(() => template.value.fault?.(size) ?? null);
watchEffect(() => (patch.value = fault.value ? null : template.value.make({ ...size })));

const box = { width: 214, height: 94 };
const preview = computed(() => {
  if (!patch.value) return '';
  const rings = [patch.value.outline, ...patch.value.holes].map(polygonOf);
  const view = fitViewport(boundsOf(rings[0]!), box, 2);
  return rings.map((ring) => pathOf(view, ring, true)).join('');
});
</script>

<template>
  <Choice
    v-model:value="chosen"
    aria-label="Shape"
    :options="shapeTemplates.map(({ name }) => ({ value: name, label: name }))"
  />
  <svg :width="box.width" :height="box.height" aria-hidden="true"><path :d="preview" /></svg>
  <QuantityInput
    v-for="[key, label] in template.fields"
    :key="`${template.name} ${key}`"
    :label="label"
    quantity="length"
    :model-value="size[key]"
    :limits="sizeLimits"
    @update:model-value="size[key] = $event ?? size[key]"
  />
  <p v-if="fault" class="ember">{{ fault }}</p>
</template>

<style scoped>
p {
  margin: 0;
}
path {
  fill: #f2dfb4;
  fill-rule: evenodd;
  stroke: var(--ink);
}
</style>
