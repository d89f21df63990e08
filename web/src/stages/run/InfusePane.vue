<script setup lang="ts">
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { dayClockFine } from '../../ui/day-clock.ts';
import FaultSheets from './FaultSheets.vue';
import LiveButtons from './LiveButtons.vue';
import LivePlan from './LivePlan.vue';
import NextAction from './NextAction.vue';
import RehearsalPanel from './RehearsalPanel.vue';
import StopPanel from './StopPanel.vue';
import { useLog } from '../common/use-log.ts';
import { useWork } from './use-work.ts';

/** The fill as it runs: what is next, the front on the plan, one tap for everything that happens. */
const run = useRun();
const { isBegun } = useWork();
const { lines } = useLog();
const recent = computed(() =>
  lines.value
    .filter(({ isSmall, isStruck }) => !isSmall && !isStruck)
    .slice(-5)
    .toReversed(),
);
const strike = (entryId: string) => void run.say({ kind: 'struck', entryId, why: 'taken back' });
</script>

<template>
  <div class="infuse">
    <p v-if="!isBegun" class="quiet">No part is being made yet. Begin a part, or rehearse one, above.</p>
    <NextAction />
    <LivePlan />
    <template v-if="isBegun">
      <LiveButtons />
      <FaultSheets class="faults" />
      <StopPanel />
      <RehearsalPanel v-if="run.rehearsalId" />
      <ol class="recent" aria-label="Said last">
        <li v-for="{ entry, words } in recent" :key="entry.id">
          <b class="number">{{ dayClockFine(Date.parse(entry.at)) }}</b> <span>{{ words }}</span>
          <Button
            v-if="entry.device !== 'server' && entry.body.kind !== 'struck'"
            type="text"
            @click="strike(entry.id)"
            >Undo</Button
          >
        </li>
      </ol>
    </template>
  </div>
</template>

<style scoped>
.infuse {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.faults {
  margin-top: 6px;
}
.recent {
  list-style: none;
  margin: 0;
  padding: 0;
}
.recent li {
  display: flex;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.recent span {
  flex: 1;
}
</style>
