<script setup lang="ts">
import type { LearnedSide } from '@wick/contract/material/learned';
import { factorIn, withLearned } from '@wick/plan/review/learned-values';
import { offersOf, type Offer } from '@wick/plan/review/learning';
import { learnedNames } from '@wick/plan/review/names';
import { isOf } from '@wick/plan/run/state';
import { Button } from 'ant-design-vue';
import { computed, onMounted, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useBookStore } from '../../data/book-store.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useReview } from './review.ts';

/** What the parts so far say of the library: each value with before, after, how sure, and the parts behind it. */
const run = useRun();
const review = useReview();
const library = useLibraryStore();
const book = useBookStore();
onMounted(() => void library.load());
const showsAll = ref(false);

/** Those in the book, and this one as it stands now. A rehearsal teaches nothing but itself. */
const told = computed(() => [
  ...(book.lines ?? [])
    .filter(({ runId }) => runId !== run.run?.id)
    .map(({ runId, evidence }) => ({ runId, evidence })),
  ...(run.run?.kind === 'part' && review.evidence.length > 0
    ? [{ runId: run.run.id, evidence: review.evidence }]
    : []),
]);
const offers = computed(() => offersOf(library.materials, told.value));
/** Left as they were, with these parts behind them. */
const refused = computed(
  () =>
    new Set(
      run.state.entries
        .filter(isOf('learned'))
        .filter(({ body }) => body.is === 'refused')
        .map(({ body }) => keyOf(body)),
    ),
);
const keyOf = (one: { materialId: string; side: LearnedSide; runIds: readonly string[] }) =>
  `${one.materialId} ${one.side} ${[...one.runIds].sort().join()}`;
const shown = computed(() => offers.value.filter((offer) => showsAll.value || isOpen(offer)));
const isOpen = (offer: Offer) => offer.isNews && !refused.value.has(keyOf(offer));

const percent = (share: number) => `${Math.round(100 * share)} %`;
/** "ran 20 % slower here", in the words of each side. */
function saidOf({ side, factor, runIds }: Offer): string {
  const by = percent(Math.abs(factor - 1));
  const count = runIds.length === 1 ? 'once' : runIds.length === 2 ? 'twice' : `${runIds.length} times`;
  const words: Readonly<Record<LearnedSide, readonly [string, string]>> = {
    permeability: [`lets resin run ${by} worse here`, `lets resin run ${by} better here`],
    viscosity: [`is ${by} thinner here`, `is ${by} thicker here`],
    gelTime: [`gels ${by} sooner here`, `gels ${by} later here`],
    compaction: [`packs ${by} looser here`, `packs ${by} tighter here`],
  };
  if (Math.abs(factor - 1) < 0.005) return `is as the library has it, ${count}`;
  return `${words[side][factor < 1 ? 0 : 1]}, ${count}`;
}
const range = (doubt: number) => `x/÷ ${doubt.toFixed(2)}`;
/** "Kerb plate 1 to 4, 6; this part" */
function partsOf({ runIds }: Offer): string {
  const known = (book.lines ?? []).filter(({ runId }) => runIds.includes(runId) && runId !== run.run?.id);
  const jobs = [...new Set(known.map(({ jobName }) => jobName))].map((name) => {
    const numbers = known.filter(({ jobName }) => jobName === name).map(({ number }) => number);
    return `${name} ${runsOf(numbers.sort((a, b) => a - b))}`;
  });
  return [...jobs, ...(run.run && runIds.includes(run.run.id) ? ['this part'] : [])].join('; ');
}
function runsOf(numbers: readonly number[]): string {
  const spans: [number, number][] = [];
  for (const n of numbers) {
    const last = spans.at(-1);
    if (last && last[1] === n - 1) last[1] = n;
    else spans.push([n, n]);
  }
  return spans.map(([from, to]) => (from === to ? `${from}` : `${from} to ${to}`)).join(', ');
}

async function take(offer: Offer, is: 'taken' | 'refused' | 'takenBack') {
  const found = library.find(offer.materialId);
  if (!found) return;
  const { materialId, side, name } = offer;
  const taken = is === 'taken' ? offer : null;
  if (is !== 'refused' && !(await library.save(withLearned(found.material, side, taken)))) return;
  await run.say({
    ...{ kind: 'learned', materialId, side, title: name, is },
    ...{ factor: taken ? offer.factor : 1, doubt: offer.doubt, runIds: [...offer.runIds] },
  });
}
const isTaken = ({ materialId, side }: Offer) =>
  factorOfLibrary(materialId, side) !== 1 || library.find(materialId)?.material.learned?.[side] !== undefined;
const factorOfLibrary = (id: string, side: LearnedSide) => {
  const material = library.find(id)?.material;
  return material ? factorIn(material, side) : 1;
};
</script>

<template>
  <p v-if="library.problem ?? book.problem" class="ember" role="alert">
    {{ library.problem ?? book.problem }}
  </p>
  <p v-if="run.run?.kind === 'rehearsal'" class="quiet">
    A rehearsal is made on the library’s own values: it teaches nothing about them. What the parts in the book
    say is below.
  </p>
  <p v-else-if="review.isWorking" class="quiet">Working out what the marks of this part say …</p>
  <div class="tools">
    <label class="all"
      ><input v-model="showsAll" type="checkbox" /> what was taken or left as it was, too</label
    >
  </div>
  <p v-if="shown.length === 0" class="quiet" data-testid="nothing-learned">
    {{
      offers.length === 0
        ? 'No part has told anything of the library yet. Marks in the fill, a gel time, a thickness each tell something.'
        : 'Nothing new: the library has what the parts so far say.'
    }}
  </p>
  <table v-else class="sheet" aria-label="What the library learns" data-testid="offers">
    <thead>
      <tr>
        <th>Entry</th>
        <th>Now</th>
        <th>From now on</th>
        <th>Parts behind it</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="offer in shown" :key="`${offer.materialId} ${offer.side}`">
        <td>
          <b>{{ offer.name }}</b>
          <div>{{ saidOf(offer) }}</div>
          <div class="quiet">{{ learnedNames[offer.side] }}</div>
        </td>
        <td class="number value">× {{ offer.now.factor.toFixed(2) }}<br />{{ range(offer.now.doubt) }}</td>
        <td class="number value">
          × {{ offer.factor.toFixed(2) }}<br />{{ range(offer.doubt) }}
          <div class="quiet small">runs differ by {{ range(offer.scatter) }}</div>
        </td>
        <td>{{ partsOf(offer) }}</td>
        <td class="acts">
          <template v-if="isOpen(offer)">
            <Button size="small" type="primary" @click="take(offer, 'taken')">Take it</Button>
            <Button size="small" @click="take(offer, 'refused')">Leave it</Button>
          </template>
          <Button v-if="isTaken(offer)" size="small" type="text" @click="take(offer, 'takenBack')"
            >Set it back</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
  <p class="quiet">
    Values of the entry are multiplied by what stands there; jobs keep the values they were made with and are
    offered newer ones. No range gets narrower than parts of the same plan differ from each other.
  </p>
</template>

<style scoped>
.all {
  display: inline-flex;
  gap: 6px;
  align-items: center;
  min-height: 32px;
}
.small {
  font-size: 12px;
  font-weight: 400;
}
.acts {
  white-space: nowrap;
}
.value {
  white-space: nowrap;
}
.acts > * {
  margin-right: 6px;
}
td {
  vertical-align: top;
}
</style>
