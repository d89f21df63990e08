<script setup lang="ts">
import { SHORTEST_REASON } from '@wick/contract/run/card-bodies';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';

/** Why a step, or several, are left out: for a reason, and by somebody. */
defineProps<{ label: string; button: string }>();
const emit = defineEmits<{ leave: [why: string] }>();
const run = useRun();
const why = ref('');
const isNamed = computed(() => run.by.trim() !== '');
const isReady = computed(() => isNamed.value && why.value.trim().length >= SHORTEST_REASON);
</script>

<template>
  <form @submit.prevent="emit('leave', why.trim())">
    <Input v-model:value="why" size="large" placeholder="why" :aria-label="label" :maxlength="300" />
    <Button html-type="submit" :disabled="!isReady">{{ button }}</Button>
    <span v-if="!isNamed" class="name">Type your name above: whoever leaves a step out has one.</span>
  </form>
</template>

<style scoped>
form {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 8px 0 6px;
  align-items: center;
}
form :deep(input) {
  width: min(420px, 60vw);
}
.name {
  color: var(--resin-ink);
}
</style>
