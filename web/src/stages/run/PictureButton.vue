<script setup lang="ts">
import { ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { scaledPicture } from '../../ui/scaled-picture.ts';

/** A picture, taken or chosen; it goes with the step it was taken at. */
const props = defineProps<{ stepId: string | null; caption: string; isAsked?: boolean }>();
const run = useRun();
const message = ref<string | null>(null);

async function take(event: Event) {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  try {
    message.value = null;
    await run.takePhoto(await scaledPicture(file), {
      stepId: props.stepId,
      caption: props.caption,
    });
  } catch (error) {
    message.value = (error as Error).message;
  }
}
</script>

<template>
  <label :class="['picture', { asked: isAsked }]">
    Picture
    <input type="file" accept="image/*" capture="environment" @change="take" />
  </label>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
</template>

<style scoped>
.picture {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  padding: 0 15px;
  border: 1px solid var(--edge);
  border-radius: 3px;
  cursor: pointer;
}
.picture.asked {
  border-color: var(--resin);
  border-width: 2px;
}
.picture:focus-within {
  outline: 2px solid var(--tide);
  outline-offset: 2px;
}
input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
</style>
