<script setup lang="ts">
import { outcomeNames } from '@wick/plan/review/names';
import { isOf } from '@wick/plan/run/state';
import { hasFront } from '@wick/plan/processes/processes';
import { assumptionsOf } from '@wick/plan/settle';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useDraw, useForecast, useRun, useSession, useStackChecks } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { stages } from '../../stages/stages.ts';
import Fuse from './Fuse.vue';
import JobHeader from './JobHeader.vue';
import OpenLessons from './OpenLessons.vue';
import { useShortcuts } from './shortcuts.ts';
import { laterComponent } from '../../ui/later.ts';

const ShortcutSheet = laterComponent(() => import('./ShortcutSheet.vue'));
const route = useRoute();
const router = useRouter();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const stackChecks = useStackChecks();
const draw = useDraw();
const run = useRun();
const showKeys = ref(false);

const stage = computed(() => stages.find((item) => item.id === route.params.stage) ?? stages[3]!);
/** The scrubbed minute lives in the address, so that it can be sent to someone. */
const minute = ref<number | null>(null);
const inAddress = () =>
  typeof route.query.t === 'string' && Number.isFinite(Number(route.query.t))
    ? Number(route.query.t) * 60
    : null;
const SETTLE = 250;
let settling: ReturnType<typeof setTimeout> | undefined;
watch(inAddress, (time) => (minute.value = time), { immediate: true });
// The address follows when the hand, or the playback, rests.
watch(minute, (time) => {
  clearTimeout(settling);
  const query = { ...route.query, t: time === null ? undefined : String(Math.round(time / 6) / 10) };
  settling = setTimeout(() => {
    if (inAddress() !== time) void router.replace({ query });
  }, SETTLE);
});
onBeforeUnmount(() => clearTimeout(settling));
const signs = computed(() =>
  stages.map(({ id }) => {
    if (id === 'review') return signOfReview();
    if (id === 'stack') return signOfStack();
    if (id === 'vacuum') return signOfVacuum();
    if (id === 'run') return signOfRun();
    if (id === 'resin' && draw.faults.length > 0) return { state: 'open', text: signOfBatches() };
    if (id === 'lines' && !hasFront(job.laid)) return { state: 'later', text: 'none here' };
    const open = forecast.missing.filter((item) => item.stage === id).length;
    const assumed = assumptionsOf(job.laid, shop.shop).filter((item) => item.stage === id).length;
    if (open > 0) return { state: 'open', text: 'open' };
    return assumed > 0 ? { state: 'assumed', text: `${assumed} assumed` } : { state: 'done', text: '' };
  }),
);
function signOfStack() {
  const wrong = stackChecks.breaks.length;
  if (wrong > 0) return { state: 'open', text: `${wrong} wrong` };
  const isOpen = job.laid.layers.length === 0 && job.laid.process !== 'closedMould';
  return isOpen ? { state: 'open', text: 'open' } : { state: 'done', text: '' };
}
const signOfBatches = () =>
  draw.faults.some(({ kind }) => kind === 'dry') ? 'runs dry' : `${draw.faults.length} wrong`;
/** Of the part that is looked at: what became of it, once that stands in the book. */
function signOfReview() {
  const booked = run.state.entries.filter(isOf('booked')).at(-1);
  if (booked) return { state: 'done', text: outcomeNames[booked.body.figures.outcome] };
  const isOver = run.state.entries.some(({ body }) => body.kind === 'allWet' || body.kind === 'finding');
  return isOver ? { state: 'open', text: 'not yet' } : { state: 'later', text: '' };
}
/** By the last drop test of this part that was written down. */
function signOfVacuum() {
  const judged = run.state.shutTimes.at(-1)?.judged;
  if (!judged) return { state: 'open', text: run.state.valve === 'shut' ? 'testing' : 'not tested' };
  if (judged.verdict === 'passes') return { state: 'done', text: 'tight' };
  return judged.verdict === 'leaks'
    ? { state: 'open', text: 'leaks' }
    : { state: 'assumed', text: 'not told' };
}
/** By the front, and before it by what the card has ticked off. */
function signOfRun() {
  if (run.state.entries.some(({ body }) => body.kind === 'allWet')) return { state: 'done', text: 'wet' };
  const done = run.state.entries.filter(({ body }) => body.kind === 'done').length;
  if (!run.run || run.run.endedAt !== null) return { state: 'later', text: 'not begun' };
  return { state: 'assumed', text: `${done} done` };
}
const go = (index: number) =>
  void router.push({ path: `/jobs/${job.id}/${stages[index]!.id}`, query: route.query });
useShortcuts({ go, undo: job.undo, redo: job.redo, help: () => (showKeys.value = !showKeys.value) });
</script>

<template>
  <div class="page">
    <JobHeader @help="showKeys = true" />
    <nav aria-label="Stages">
      <button
        v-for="(item, index) in stages"
        :key="item.id"
        :class="['plain', 'tab', signs[index]!.state, { here: item.id === stage.id }]"
        :aria-current="item.id === stage.id ? 'page' : undefined"
        @click="go(index)"
      >
        <span class="key">{{ index + 1 }}</span> <span class="name">{{ item.name }}</span>{{ ' ' }}
        <span class="sign">{{ signs[index]!.text }}</span>
      </button>
    </nav>
    <OpenLessons />
    <main>
      <component :is="stage.component" :key="stage.id" :stage="stage" :minute="minute" />
    </main>
    <Fuse v-model="minute" />
    <ShortcutSheet v-if="showKeys" @close="showKeys = false" />
  </div>
</template>

<style scoped>
.page {
  height: 100%;
  overflow: hidden;
  display: flex;
  flex-direction: column;
}
nav {
  display: flex;
  gap: 14px;
  padding: 0 24px;
  border-bottom: 1px solid var(--rule);
}
.tab {
  flex: 1;
  padding: 8px 0 9px;
  border-top: 3px solid transparent;
  font: 500 15px var(--display);
  white-space: nowrap;
  overflow: hidden;
}
.tab.done {
  border-top-color: var(--moss);
}
.tab.assumed {
  border-top: 3px dotted var(--resin);
}
.tab.open {
  border-top: 3px dotted var(--ember);
}
.tab.later {
  color: var(--quiet);
}
.tab.here {
  background: linear-gradient(var(--sheet), var(--sheet));
  font-weight: 600;
  box-shadow: inset 0 -3px var(--ink);
}
.key,
.sign {
  font: 400 12px var(--text);
  color: var(--quiet);
}
main {
  flex: 1;
  min-height: 0;
}
/* On a phone a stage is its number; readers still hear its name. */
@media (max-width: 760px) {
  nav {
    gap: 6px;
    padding: 0 12px;
  }
  .tab.here {
    flex: 3;
  }
  .tab:not(.here) .name,
  .tab:not(.here) .sign {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
