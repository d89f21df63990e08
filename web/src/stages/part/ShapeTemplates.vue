<script setup lang="ts">
import type { Patch } from '@wick/core/geometry/overlay';
import { withPatch } from '@wick/plan/part/edits';
import Button from 'ant-design-vue/es/button';
import Popover from 'ant-design-vue/es/popover';
import { ref, shallowRef } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import ShapeFields from './ShapeFields.vue';

/** Another outline by a few numbers. */
const job = useSession();
const isOpen = ref(false);
const patch = shallowRef<Patch | null>(null);

function use() {
  isOpen.value = false;
  if (patch.value) job.apply(withPatch(patch.value), 'shape');
}
</script>

<template>
  <Popover v-model:open="isOpen" trigger="click" placement="bottomLeft">
    <Button size="small">From a shape</Button>
    <template #content>
      <div class="fields">
        <ShapeFields v-model="patch" />
        <p class="quiet">It takes the place of the outline and its holes.</p>
        <Button type="primary" :disabled="patch === null" @click="use">Use this shape</Button>
      </div>
    </template>
  </Popover>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
  width: 216px;
}
p {
  margin: 0;
}
</style>
