<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { useRun } from '../../compute/use-desk.ts';

/** Says that an entry was a mistake: it stays in the log and no longer counts. */
defineProps<{ entryId: string | null; what: string }>();
const run = useRun();
</script>

<template>
  <Button
    v-if="entryId"
    size="small"
    type="text"
    :aria-label="`Strike out ${what}`"
    title="A mistake: strike it out"
    @click.stop="run.say({ kind: 'struck', entryId, why: '' })"
    >×</Button
  >
</template>
