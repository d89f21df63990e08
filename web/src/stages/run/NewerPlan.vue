<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useCard, useRun, useSession } from '../../compute/use-desk.ts';

/** The job was changed since this run took its plan: what is different, and whether to go on by it. */
const run = useRun();
const job = useSession();
const work = useCard();
const isOpen = ref(false);
const SHOWN = 12;
const isSaved = computed(() => job.saveState === 'saved');
const words = computed(() =>
  work.differences.slice(0, SHOWN).map(({ where, what }) => [where, what].filter(Boolean).join(': ')),
);
async function take() {
  await work.take();
  isOpen.value = false;
}
</script>

<template>
  <section v-if="work.differences.length > 0 && !run.run?.endedAt" class="newer" data-testid="newer-plan">
    <p>
      The job has changed since plan {{ work.plan!.number }} of this run was taken:
      {{ work.differences.length === 1 ? 'one difference' : `${work.differences.length} differences` }}.
      <button class="plain link" :aria-expanded="isOpen" @click="isOpen = !isOpen">
        {{ isOpen ? 'Close' : 'Look at them' }}
      </button>
    </p>
    <template v-if="isOpen">
      <ul>
        <li v-for="line in words" :key="line">{{ line }}</li>
        <li v-if="work.differences.length > SHOWN">and {{ work.differences.length - SHOWN }} more</li>
      </ul>
      <Button :disabled="!isSaved" @click="take">Go on by the newer plan</Button>
      <span class="quiet"> What is done stays done; the log says when the plan was changed.</span>
    </template>
    <p v-if="work.message" class="ember" role="alert">{{ work.message }}</p>
  </section>
</template>

<style scoped>
.newer {
  border-left: 3px solid var(--resin);
  padding: 2px 0 4px 12px;
  margin-bottom: 8px;
}
p {
  margin: 0;
}
.link {
  min-height: 44px;
  text-decoration: underline;
  color: var(--tide);
}
ul {
  margin: 0 0 8px;
}
</style>
