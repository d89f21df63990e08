<script setup lang="ts">
import { useLayouts } from '../../compute/use-desk.ts';
import { MOST_LAYOUTS } from '@wick/contract/job/job';
import Button from 'ant-design-vue/es/button';
import { computed, onBeforeUnmount, onMounted, watch } from 'vue';
import LayoutPicture from './LayoutPicture.vue';
import { minutesWords, outcomeBand, outcomeTone } from './outcome-words.ts';

/** The job's layouts side by side on one clock, the verdict under each. */
defineProps<{ minute: number | null }>();
const layouts = useLayouts();
const endTime = computed(() => {
  const times = layouts.entries.map(({ outcome }) => outcome?.fillTime ?? outcome?.gelTime ?? 3600);
  return Math.max(...times, 60);
});
/** Letters of what has to be worked out: when one comes to it, it is. */
const wanting = computed(() =>
  layouts.entries
    .filter(({ isCurrent, flow, outcome, isStale }) => !isCurrent && (!flow || !outcome || isStale))
    .map(({ letter }) => letter)
    .join(''),
);
watch(wanting, (letters) => {
  if (letters !== '' && layouts.running === 0) void layouts.refresh();
});
onMounted(() => void layouts.refresh());
onBeforeUnmount(layouts.stop);
</script>

<template>
  <div class="multiples" data-testid="layouts">
    <article v-for="entry in layouts.entries" :key="entry.id" :class="{ here: entry.isCurrent }">
      <header>
        <b class="letter">{{ entry.letter }}</b>
        <span class="name">{{ entry.name }}</span>
        <span v-if="entry.isCurrent" class="quiet">on the board</span>
        <Button v-else size="small" @click="layouts.adopt(entry.id)">Work on it</Button>
      </header>
      <LayoutPicture :job="entry.job" :flow="entry.flow" :end-time="endTime" :minute="minute" />
      <footer v-if="entry.outcome" :class="outcomeTone(entry.outcome)">
        <b class="number">{{ minutesWords(entry.outcome.fillTime) }}</b> {{ outcomeBand(entry.outcome) }}
        <span v-if="entry.isStale" class="quiet">before the last change</span>
      </footer>
      <footer v-else class="quiet">working it out …</footer>
    </article>
    <article class="new">
      <Button :disabled="layouts.entries.length >= MOST_LAYOUTS" @click="layouts.copy()"
        >Keep {{ layouts.entries.find((e) => e.isCurrent)?.letter }}, go on with a copy</Button
      >
      <p class="quiet">
        A layout is its lines, hoses, mesh areas and brakes. Part, plies and resin are shared.
      </p>
    </article>
  </div>
</template>

<style scoped>
.multiples {
  flex: 1;
  min-height: 260px;
  overflow: auto;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(215px, 1fr));
  grid-auto-rows: minmax(180px, 1fr);
  gap: 10px 18px;
  padding: 8px 0;
}
article {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-top: 2px solid var(--rule);
  padding-top: 4px;
}
article.here {
  border-top-color: var(--resin);
}
header {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.letter {
  font: 600 20px var(--display);
}
.name {
  flex: 1;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
footer b {
  font-size: 18px;
}
.amber {
  color: var(--resin-ink);
}
.picture {
  flex: 1;
}
.new {
  justify-content: center;
  align-items: flex-start;
  gap: 8px;
}
.new p {
  max-width: 240px;
  margin: 0;
  font-size: 13px;
}
</style>
