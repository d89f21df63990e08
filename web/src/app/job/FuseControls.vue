<script setup lang="ts">
import { speeds } from '../../ui/fuse/use-playback.ts';

/** Plays the front along the fuse, a minute at a time or by itself. */
defineProps<{ playing: boolean; isAt: boolean }>();
const speed = defineModel<number>('speed', { required: true });
const emit = defineEmits<{ toggle: []; step: [direction: 1 | -1]; whole: [] }>();
</script>

<template>
  <div class="controls">
    <button class="plain key" :aria-label="playing ? 'Stop' : 'Play the front'" @click="emit('toggle')">
      {{ playing ? '❚❚' : '▶' }}
    </button>
    <button class="plain key" aria-label="A minute back" @click="emit('step', -1)">‹</button>
    <button class="plain key" aria-label="A minute on" @click="emit('step', 1)">›</button>
    <select v-model.number="speed" aria-label="Speed">
      <option v-for="item in speeds" :key="item.value" :value="item.value">{{ item.label }}</option>
    </select>
    <button v-if="isAt" class="plain link" @click="emit('whole')">Show the whole forecast</button>
    <span v-else class="quiet">or drag along the fuse</span>
  </div>
</template>

<style scoped>
.controls {
  padding: 3px 24px 0;
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.key {
  min-width: 26px;
  padding: 1px 6px;
  text-align: center;
  border: 1px solid var(--rule);
  font: 600 14px/1.3 var(--display);
}
.link {
  text-decoration: underline;
}
select {
  font: 500 12px var(--display);
  border: 1px solid var(--rule);
  background: var(--sheet);
}
</style>
