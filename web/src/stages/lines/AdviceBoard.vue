<script setup lang="ts">
import { useAdvice, useSession } from '../../compute/use-desk.ts';
import type { LayoutScore } from '@wick/core/advice/score';
import { bandTones } from '@wick/plan/forecast/words';
import Button from 'ant-design-vue/es/button';
import Progress from 'ant-design-vue/es/progress';
import { computed } from 'vue';
import LayoutPicture from './LayoutPicture.vue';

/** Suggested layouts, the best first, each with its reason. */
defineProps<{ minute: number | null }>();
const emit = defineEmits<{ taken: [] }>();
const advice = useAdvice();
const job = useSession();
const endTime = computed(() => {
  const times = advice.suggestions.map(({ score }) =>
    score.fillTime < score.gelTime ? score.fillTime : score.gelTime,
  );
  return Math.max(...times, 60);
});
const pinned = computed(() => job.laid.lines.filter((line) => line.pinned).map(({ name }) => name));
const minutes = ({ fillTime, gelTime }: { fillTime: number; gelTime: number }) =>
  fillTime < gelTime ? `${Math.round(fillTime / 60)} min` : 'gels first';
const tone = ({ band }: LayoutScore) => bandTones[band];
function take(index: number) {
  if (advice.takeUp(advice.suggestions[index]!)) emit('taken');
}
</script>

<template>
  <div class="advice">
    <div class="bar">
      <Button v-if="advice.working !== 'suggest'" type="primary" size="small" @click="advice.suggest()"
        >Suggest layouts</Button
      >
      <template v-else>
        <Button size="small" @click="advice.cancel()">Stop</Button>
        <Progress :percent="Math.round(100 * advice.progress)" size="small" class="progress" />
        <span class="quiet number">{{ advice.simulated }} runs</span>
      </template>
      <span v-if="advice.message" class="ember" role="alert">{{ advice.message }}</span>
      <span v-else-if="pinned.length > 0" class="quiet"
        >{{ pinned.join(', ') }} stay{{ pinned.length === 1 ? 's' : '' }}: pinned under Lines</span
      >
      <span v-else-if="advice.suggestions.length > 0 && advice.isStale" class="ember"
        >made before the part, plies or resin changed</span
      >
      <span v-else class="quiet">pin a line under Lines to keep it in every suggestion</span>
    </div>
    <div v-if="advice.suggestions.length > 0" class="multiples" data-testid="suggestions">
      <article v-for="(item, i) in advice.suggestions" :key="item.key">
        <header>
          <b class="rank number">{{ i + 1 }}</b> <span class="name">{{ item.words }}</span>
        </header>
        <LayoutPicture :job="item.job" :flow="item.flow" :end-time="endTime" :minute="minute" />
        <div class="verdict">
          <b :class="['number', tone(item.score)]">{{ minutes(item.score) }}</b>
          <Button size="small" :disabled="advice.working === 'suggest'" @click="take(i)">Take it up</Button>
        </div>
        <p>{{ item.reason }}</p>
      </article>
    </div>
    <p v-else class="quiet empty">
      Fits feeds and vents to the part in many ways, runs each, moves the best about while that helps, and
      ranks them by margin, sureness, waste and work. Taking one up keeps the present layout beside it.
    </p>
  </div>
</template>

<style scoped>
.advice {
  flex: 1;
  min-height: 260px;
  display: flex;
  flex-direction: column;
  overflow: auto;
}
.bar {
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 6px 0;
}
.progress {
  width: 220px;
  margin: 0;
}
.multiples {
  flex: 1;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(172px, 1fr));
  grid-auto-rows: minmax(220px, 1fr);
  gap: 8px 14px;
}
article {
  display: flex;
  flex-direction: column;
  min-height: 0;
  border-top: 2px solid var(--rule);
  padding-top: 3px;
}
header {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
.rank {
  font-size: 18px;
}
.name {
  font: 500 14px/1.2 var(--display);
}
.picture {
  flex: 1;
}
.verdict {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
.verdict b {
  font-size: 18px;
}
.amber {
  color: var(--resin-ink);
}
p {
  min-height: 3.9em;
  margin: 2px 0 0;
  font-size: 12.5px;
  line-height: 1.3;
}
.empty {
  max-width: 560px;
  font-size: 14px;
  padding: 30px 0;
}
</style>
