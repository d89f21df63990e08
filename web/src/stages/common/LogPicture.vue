<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { api } from '../../data/api.ts';

/** A picture of the run, small; from this device where it has not been sent yet. */
const props = defineProps<{ runId: string; photoId: string }>();
const run = useRun();
const isMissing = ref(false);
const waiting = computed(() => run.waitingPhotos.get(props.photoId) ?? null);
const local = ref<string | null>(null);
const letGo = () => local.value && URL.revokeObjectURL(local.value);
watch(
  waiting,
  (picture) => {
    letGo();
    local.value = picture && URL.createObjectURL(picture);
    isMissing.value = false;
  },
  { immediate: true },
);
onBeforeUnmount(letGo);
const small = computed(() => local.value ?? api.photoFile(props.runId, props.photoId, 'small'));
const large = computed(() => local.value ?? api.photoFile(props.runId, props.photoId, 'large'));
</script>

<template>
  <span v-if="isMissing" class="quiet">not here yet: the device that took it has not sent it</span>
  <a v-else :href="large" target="_blank" rel="noopener">
    <img :src="small" alt="Picture taken then" loading="lazy" @error="isMissing = true" />
  </a>
</template>

<style scoped>
img {
  display: block;
  max-height: 120px;
  max-width: 200px;
}
</style>
