<script setup lang="ts" generic="T extends string | null">
import { nextTick, ref } from 'vue';

/** Panes of which one is shown: one stop for the Tab key, arrows go from one to the next. */
const props = defineProps<{
  label: string;
  tabs: readonly {
    readonly value: T;
    readonly label: string;
    readonly note?: string | number;
    readonly isWarning?: boolean;
  }[];
}>();
const chosen = defineModel<T>({ required: true });
const list = ref<HTMLElement>();

const steps: Record<string, (at: number, last: number) => number> = {
  ArrowRight: (at, last) => (at === last ? 0 : at + 1),
  ArrowLeft: (at, last) => (at === 0 ? last : at - 1),
  Home: () => 0,
  End: (_, last) => last,
};

async function move(event: KeyboardEvent) {
  const step = steps[event.key];
  if (!step) return;
  event.preventDefault();
  event.stopPropagation();
  const at = props.tabs.findIndex(({ value }) => value === chosen.value);
  const next = step(at, props.tabs.length - 1);
  chosen.value = props.tabs[next]!.value;
  await nextTick();
  (list.value!.children[next] as HTMLElement).focus();
}
</script>

<template>
  <div ref="list" class="tabs" role="tablist" :aria-label="label" @keydown="move">
    <button
      v-for="tab in tabs"
      :key="String(tab.value)"
      type="button"
      role="tab"
      :aria-selected="chosen === tab.value"
      :tabindex="chosen === tab.value ? 0 : -1"
      :class="['plain', 'tool', { here: chosen === tab.value }]"
      @click="chosen = tab.value"
    >
      {{ tab.label }}
      <span v-if="tab.note !== undefined" :class="['number', tab.isWarning ? 'ember' : 'quiet']">{{
        tab.note
      }}</span>
    </button>
  </div>
</template>

<style scoped>
.tabs {
  display: flex;
  gap: inherit;
  align-items: end;
}
</style>
