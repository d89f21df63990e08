<script setup lang="ts">
import { withResin } from '@wick/plan/job/edits';
import { withPots } from '@wick/plan/resin/edits';
import { updateLine } from '@wick/plan/layout/edits';
import { settledIn } from '@wick/plan/settle';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import Choice from '../../ui/Choice.vue';
import JobField from '../common/JobField.vue';
import { useChoices } from '../common/use-choices.ts';

/** Hands, buckets and times that the batches are bound by, and which feed hangs on which pot. */
const job = useSession();
const library = useLibraryStore();
const choicesOf = useChoices();
const pots = (use: 'mixing' | 'feed') =>
  computed(() => [
    { value: '', label: 'any size' },
    ...choicesOf('pot')
      .filter((pot) => pot.use === use)
      .map(({ id, name }) => ({ value: id, label: name })),
  ]);
const [buckets, feedPots] = [pots('mixing'), pots('feed')];
const choose = (key: 'mixingPotId' | 'feedPotId', id: string) =>
  job.apply(withPots({ [key]: id || null }, library.materials), 'bucket');
const hands = [1, 2, 3, 4].map((value) => ({ value, label: value === 1 ? 'one' : `${value} at once` }));
const durations = [
  ['mixDuration', 'Mixing'],
  ['degasDuration', 'Degassing'],
  ['hoseFillDuration', 'Filling the hose'],
] as const;
const stations = computed(() => job.laid.stations.filter(({ kind }) => kind === 'pot'));
const feeds = computed(() => job.laid.lines.filter(({ kind, tee }) => kind === 'feed' && tee === null));
</script>

<template>
  <section class="kit" aria-label="Hands, buckets and times">
    <JobField v-for="[key, label] in durations" :key="key" :label="label" :path="`resin.${key}`" />
    <label>
      <span class="quiet">Mixed at once</span>
      <Choice
        aria-label="Batches mixed at once"
        :value="settledIn(job.laid, 'resin.mixers')"
        :options="hands"
        @change="job.apply(withResin({ mixers: $event }), 'hands')"
      />
    </label>
    <label>
      <span class="quiet">Mixing bucket</span>
      <Choice
        aria-label="Mixing bucket"
        :value="job.laid.resin.mixingPotId ?? ''"
        :options="buckets"
        @change="choose('mixingPotId', $event)"
      />
    </label>
    <label>
      <span class="quiet">Feed pot</span>
      <Choice
        aria-label="Feed pot"
        :value="job.laid.resin.feedPotId ?? ''"
        :options="feedPots"
        @change="choose('feedPotId', $event)"
      />
    </label>
    <template v-if="stations.length > 1">
      <label v-for="feed in feeds" :key="feed.id">
        <span class="quiet">{{ feed.name }} draws from</span>
        <Choice
          :aria-label="`${feed.name} draws from`"
          :value="feed.stationId ?? stations[0]!.id"
          :options="stations.map(({ id, name }) => ({ value: id, label: name }))"
          @change="job.apply(updateLine(feed.id, { stationId: $event }), 'pot of a feed')"
        />
      </label>
    </template>
  </section>
  <p v-if="feeds.length > 1 && stations.length < 2" class="quiet">
    Two pots: put a second one on the plan under Lines, and the feeds can be shared out here.
  </p>
</template>

<style scoped>
.kit {
  display: grid;
  grid-template-columns: repeat(6, minmax(0, 1fr));
  gap: 10px 12px;
  margin: 12px 0 4px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
}
label .quiet {
  font-size: 12px;
}
</style>
