<script setup lang="ts">
import { bestClamp, leakIsBeyond } from '@wick/plan/vacuum/places';
import { leakWords, rangeWords } from '@wick/plan/vacuum/words';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { useBench } from './bench.ts';
import { useWalk } from './walk.ts';

/** Where to look next, and how clamps can halve what is left. */
const bench = useBench();
const job = useSession();
const run = useRun();
const walk = useWalk();
const next = computed(() => walk.open.find(({ state }) => state === null) ?? null);
const found = computed(() => walk.places.filter(({ state }) => state === 'found'));
const sealed = computed(() => walk.places.filter(({ state }) => state === 'sealed'));
const headline = computed(() => {
  if (found.value.length > 0)
    return `Seal ${found.value.map(({ name }) => name).join(', ')}, then test again.`;
  if (next.value) return `Look at ${next.value.number}: ${next.value.name}.`;
  return walk.places.length > 0 ? 'Every place was looked at. Test again.' : 'No plan to walk yet.';
});
const lineName = (id: string) => job.laid.lines.find((line) => line.id === id)?.name ?? id;
const clamp = computed(() => bestClamp(walk.open));
const clampWords = computed(() => {
  const ids = clamp.value?.lineIds ?? [];
  return ids.length === 1 ? `the hose of ${lineName(ids[0]!)}` : 'all hoses';
});
const clamped = computed(() => run.state.clamped);
/** The last test before the clamps, and the last one with them. */
const parted = computed(() => {
  const since = run.state.entries.filter(({ body }) => body.kind === 'clamped').at(-1)?.at;
  if (!since || clamped.value.length === 0) return null;
  const at = Date.parse(since);
  const judged = bench.tests.filter(({ judged: own }) => own !== null);
  const before = judged.filter(({ from }) => from < at).at(-1)?.judged;
  const after = judged.filter(({ from }) => from >= at).at(-1)?.judged;
  return before && after ? leakIsBeyond(before.throughput, after.throughput) : null;
});
const partedWords = {
  beyond: 'With the clamp the leak is gone: it lies beyond it, in that hose or its joints.',
  inside: 'With the clamp it leaks as before: it lies in the bag itself.',
  open: 'The two tests do not part yet: keep it shut for longer.',
};
const setClamps = (lineIds: string[]) => run.say({ kind: 'clamped', lineIds });
</script>

<template>
  <h2 data-testid="walk-next">{{ headline }}</h2>
  <p v-if="next" class="quiet">{{ next.why }}.</p>
  <div class="row">
    <span>Places</span
    ><span class="number">{{ walk.places.length - walk.open.length }} of {{ walk.places.length }} done</span>
  </div>
  <div v-for="place in sealed" :key="place.id" class="row">
    <span>{{ place.name }}</span><span class="moss">sealed</span>
  </div>
  <div v-if="bench.test?.judged" class="row">
    <span>Leak by the last test</span>
    <span class="number">{{ rangeWords(bench.test.judged.throughput, leakWords) }}</span>
  </div>
  <h3>Halve it with a clamp</h3>
  <template v-if="clamped.length > 0">
    <p>Clamped at the bag: {{ clamped.map(lineName).join(', ') }}. Pull, shut and read again.</p>
    <p v-if="parted">{{ partedWords[parted] }}</p>
    <Button size="small" @click="setClamps([])">Clamps taken off</Button>
  </template>
  <template v-else-if="clamp">
    <p>
      Clamp {{ clampWords }} at the bag and test again: {{ Math.round(100 * clamp.share) }} % of what is left
      lies beyond it.
    </p>
    <Button size="small" @click="setClamps(clamp.lineIds)">It is clamped</Button>
  </template>
  <p v-else class="quiet">Too little lies beyond the hoses for a clamp to tell anything: walk on.</p>
  <h3>How to look</h3>
  <p class="quiet">
    Pump off behind its valve: its noise hides leaks. Wrinkles tell: a tight one is sealed. An ear within a
    hand’s breadth; a listener finds what ears do not.
  </p>
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
  margin-bottom: 8px;
}
p {
  margin: 6px 0;
}
</style>
