<script setup lang="ts">
import type { Book } from '@wick/plan/laminate/books';
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { addPly, mirrorStack, stagger } from '@wick/plan/laminate/edits';
import QuantityInput from '../../ui/QuantityInput.vue';
import { useChoices } from '../common/use-choices.ts';
import Choice from '../../ui/Choice.vue';

/** What is done to a ply book as a whole: a further ply, its mirror image, steps at its edge. */
const props = defineProps<{ book: Book }>();
const job = useSession();
const choices = useChoices();
const fabricOptions = computed(() => choices('fabric').map((item) => ({ value: item.id, label: item.name })));
/** Keeps the picker empty after each choice; undefined would let it remember the last one and ignore a second click on it. */
const nothingChosen = null as unknown as undefined;
const step = ref(0.02);
/** How often the next ply is laid. */
const times = ref(1);
const timesLimits = { atLeast: 1, atMost: 50 };
const count = computed(() => props.book.laminate.plies.length);

function add(id: string) {
  const fabric = choices('fabric').find((item) => item.id === id);
  if (!fabric) return;
  const angle = props.book.laminate.plies.at(-1)?.angle ?? 0;
  job.apply(addPly(props.book.zoneId, fabric, angle, times.value), times.value > 1 ? 'plies' : 'ply');
  times.value = 1;
}
const refuseStep = (value: number) => (value >= 0 && value <= 0.5 ? null : 'From 0 to 500 mm a ply.');
</script>

<template>
  <div class="tools add">
    <span class="times">
      <QuantityInput
        hide-label
        label="How many of the ply"
        quantity="number"
        :limits="timesLimits"
        :model-value="times"
        @update:model-value="times = Math.round($event ?? 1)"
      />
      ×
    </span>
    <Choice
      :value="nothingChosen"
      placeholder="Add a ply from the library"
      aria-label="Add a ply from the library"
      class="wide"
      :options="fabricOptions"
      @change="add(String($event))"
    />
    <Button :disabled="count === 0" @click="job.apply(mirrorStack(book.zoneId))">Mirror the stack</Button>
    <span class="stagger">
      <Button :disabled="count < 2" @click="job.apply(stagger(book.zoneId, step))">Stagger by</Button>
      <QuantityInput
        hide-label
        label="Step of the stagger"
        quantity="length"
        :model-value="step"
        :refuse="refuseStep"
        @update:model-value="step = $event ?? step"
      />
    </span>
  </div>
</template>

<style scoped>
.add {
  margin: 10px 0 14px;
}
.wide {
  width: 220px;
}
.times {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
.times :deep(.quantity) {
  width: 44px;
}
.stagger {
  display: flex;
  gap: 4px;
}
.stagger :deep(.quantity) {
  width: 78px;
}
</style>
