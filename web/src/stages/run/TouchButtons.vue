<script setup lang="ts">
import { lastTouch, touchChoices } from '@wick/plan/card/surface';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { dayClock } from '../../ui/day-clock.ts';

/** What the finger says, in the words of the trade. */
const props = defineProps<{ where: keyof typeof touchChoices; disabled?: boolean }>();
const run = useRun();
const touched = computed(() => lastTouch(run.state, props.where));
</script>

<template>
  <section aria-label="Touch">
    <div class="touch">
      <Button
        v-for="choice in touchChoices[where]"
        :key="choice.word"
        :disabled="disabled"
        :type="touched?.body.word === choice.word ? 'primary' : 'default'"
        @click="run.say({ kind: 'touched', where, word: choice.word })"
        >{{ choice.label }}<small>{{ choice.means }}</small></Button
      >
    </div>
    <p v-if="touched" class="quiet">Last at {{ dayClock(Date.parse(touched.at)) }}, {{ touched.by }}.</p>
  </section>
</template>

<style scoped>
.touch {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
  margin: 6px 0;
}
.touch :deep(button) {
  height: auto;
  min-height: 56px;
  text-align: left;
}
small {
  display: block;
  font-size: 13px;
}
p {
  margin: 0;
}
</style>
