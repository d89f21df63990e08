<script setup lang="ts" generic="T extends string | number | null">
import { computed } from 'vue';

/** The one way to choose from a list: the browser's own, which hands, keys and readers know. Its name comes from aria-label or a label round it. */
const props = defineProps<{
  value: T | undefined;
  options: readonly { readonly value: T; readonly label: string; readonly disabled?: boolean }[];
  /** Shown while nothing is chosen. */
  placeholder?: string;
  size?: 'small';
  disabled?: boolean;
}>();
const emit = defineEmits<{ change: [value: T]; 'update:value': [value: T] }>();

const index = computed(() => props.options.findIndex(({ value }) => value === props.value));

function choose(event: Event) {
  const select = event.target as HTMLSelectElement;
  const chosen = props.options[Number(select.value)];
  // What is shown follows the value, also where the choice is not taken up.
  select.value = String(index.value);
  if (!chosen) return;
  emit('update:value', chosen.value);
  emit('change', chosen.value);
}
</script>

<template>
  <select
    :class="['choose', { slim: size === 'small' }]"
    :value="String(index)"
    :disabled="disabled"
    @change="choose"
  >
    <option v-if="index < 0" value="-1" disabled hidden>{{ placeholder ?? '' }}</option>
    <option v-for="(option, i) in options" :key="i" :value="String(i)" :disabled="option.disabled">
      {{ option.label }}
    </option>
  </select>
</template>

<style scoped>
/* Whoever places it may set another width. */
:where(.choose) {
  width: 100%;
}
.choose {
  height: 32px;
  padding: 0 22px 0 9px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  background: var(--sheet)
    url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='10' height='6'%3E%3Cpath d='M1 1l4 4 4-4' fill='none' stroke='%235C666A' stroke-width='1.4'/%3E%3C/svg%3E")
    no-repeat right 8px center;
  appearance: none;
  font: 400 14px var(--text);
  color: var(--ink);
  text-overflow: ellipsis;
}
.choose.slim {
  height: 24px;
  padding-left: 7px;
}
.choose:hover:not(:disabled) {
  border-color: var(--resin-ink);
}
.choose:disabled {
  color: var(--quiet);
  background-color: var(--paper);
}
</style>
