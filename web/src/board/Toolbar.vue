<script setup lang="ts" generic="Id extends string">
import type { ToolRow } from './tool.ts';

/** The tools of a board, with the key of each. */
defineProps<{ tools: readonly ToolRow<Id>[]; modelValue: Id; disabled?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [id: Id] }>();
</script>

<template>
  <div class="tools bar" role="toolbar" aria-label="Tools">
    <button
      v-for="row in tools"
      :key="row.id"
      :class="['plain', 'tool', { here: modelValue === row.id }]"
      :aria-pressed="modelValue === row.id"
      :disabled="disabled"
      @click="emit('update:modelValue', row.id)"
    >
      {{ row.name }} <span class="quiet">{{ row.key }}</span>
    </button>
  </div>
</template>

<style scoped>
.bar {
  gap: 1px;
  flex: none;
}
</style>
