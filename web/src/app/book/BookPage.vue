<script setup lang="ts">
import { processes, type ProcessId } from '@wick/plan/processes/processes';
import {
  allParts,
  bookCsv,
  filtered,
  findingsWords,
  measures,
  measureWords,
  ruleWords,
  seriesOf,
  sumsOf,
  valueOf,
  type BookFilter,
  type Measure,
} from '@wick/plan/review/over-time';
import { outcomeNames } from '@wick/plan/review/names';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, onMounted, ref } from 'vue';
import { lookedAt } from '../../data/looked-at.ts';
import { useBookStore } from '../../data/book-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import { saveFile } from '../../ui/save-file.ts';
import PageHeader from '../PageHeader.vue';
import ShopChart from './ShopChart.vue';

/** The workshop over time: what its parts came to, whether that drifts, and what it cost. */
const book = useBookStore();
const shop = useShopStore();
onMounted(book.load);
const filter = ref<BookFilter>(allParts);
const measure = ref<Measure>('fill');
const search = ref('');

const lines = computed(() => book.lines ?? []);
const shown = computed(() => filtered(lines.value, filter.value));
const series = computed(() => seriesOf(shown.value, measure.value));
const sums = computed(() => sumsOf(shown.value));
const listed = computed(() =>
  shown.value
    .filter(({ jobName, by, figures }) =>
      `${jobName} ${by} ${outcomeNames[figures.outcome]} ${findingsWords(figures.findings)}`
        .toLowerCase()
        .includes(search.value.trim().toLowerCase()),
    )
    .toReversed(),
);
const choicesOf = (all: string, pairs: readonly (readonly [string, string])[]) => [
  { value: null, label: all },
  ...[...new Map(pairs)].sort((a, b) => a[1].localeCompare(b[1])).map(([value, label]) => ({ value, label })),
];
const moulds = computed(() =>
  choicesOf(
    'any mould',
    lines.value.flatMap(({ figures }) =>
      figures.mouldId === null ? [] : [[figures.mouldId, figures.mouldName] as const],
    ),
  ),
);
const materials = computed(() =>
  choicesOf(
    'any material',
    lines.value.flatMap(({ figures }) => figures.materials.map(({ id, name }) => [id, name] as const)),
  ),
);
const ways = computed(() =>
  choicesOf(
    'any process',
    lines.value.map(
      ({ figures }) =>
        [figures.process, processes[figures.process as ProcessId]?.name ?? figures.process] as const,
    ),
  ),
);
const measureChoices = measures.map((value) => ({ value, label: measureWords[value].name }));
const value = (line: (typeof lines.value)[number], of: Measure) => {
  const own = valueOf(line, of);
  return own === null ? '–' : shop.show(own, measureWords[of].quantity);
};
const signals = computed(() =>
  (series.value.chart?.signals ?? []).map(({ index, rule }) => {
    const { line } = series.value.points[index]!;
    return `${line.jobName} ${line.number}: ${ruleWords[rule]}`;
  }),
);
const date = (at: string) => at.slice(0, 10);
const csv = () => saveFile('book.csv', new Blob([bookCsv(shown.value)], { type: 'text/csv' }));
const json = () =>
  saveFile(
    'book.json',
    new Blob(
      [`${JSON.stringify({ format: 'vivid-wick-book', version: 1, parts: shown.value }, null, 2)}\n`],
      {
        type: 'application/json',
      },
    ),
  );
</script>

<template>
  <PageHeader />
  <main>
    <div class="tools">
      <h1>Does the workshop hold its course?</h1>
    </div>
    <p v-if="book.problem" class="ember" role="alert">{{ book.problem }}</p>
    <p v-if="book.lines === null && !book.problem" class="quiet">Fetching the book …</p>
    <p v-else-if="lines.length === 0" class="quiet">
      No part is in the book yet. Review one, and put it into the book under Record.
    </p>
    <template v-else>
      <div class="tools filters">
        <label
          ><span class="quiet">Follow</span
          ><Choice v-model:value="measure" :options="measureChoices" aria-label="What is followed"
        /></label>
        <label
          ><span class="quiet">Mould</span
          ><Choice
            :value="filter.mouldId"
            :options="moulds"
            aria-label="Mould"
            @change="filter = { ...filter, mouldId: $event }"
        /></label>
        <label
          ><span class="quiet">Material</span
          ><Choice
            :value="filter.materialId"
            :options="materials"
            aria-label="Material"
            @change="filter = { ...filter, materialId: $event }"
        /></label>
        <label
          ><span class="quiet">Process</span
          ><Choice
            :value="filter.process"
            :options="ways"
            aria-label="Process"
            @change="filter = { ...filter, process: $event }"
        /></label>
        <Button @click="csv">CSV</Button>
        <Button @click="json">JSON</Button>
      </div>
      <dl class="sums">
        <div>
          <dd class="number">{{ sums.parts }}</dd>
          <dt>parts</dt>
        </div>
        <div>
          <dd :class="['number', { ember: sums.scrap > 0 }]">{{ sums.scrap }}</dd>
          <dt>scrap, {{ sums.rework }} reworked</dt>
        </div>
        <div>
          <dd class="number">{{ sums.cost }}</dd>
          <dt>lost by them, in your money</dt>
        </div>
        <div>
          <dd class="number">{{ sums.held }} of {{ sums.asked }}</dd>
          <dt>fills within the forecast’s range, of which eight in ten should be</dt>
        </div>
        <div v-if="sums.causes[0]">
          <dd class="number">{{ sums.causes[0].count }}</dd>
          <dt>times: {{ sums.causes[0].name.toLowerCase() }}</dt>
        </div>
      </dl>
      <ShopChart :series="series" :measure="measure" />
      <ul v-if="signals.length > 0" class="ember" data-testid="signals">
        <li v-for="words in signals" :key="words">{{ words }}</li>
      </ul>
      <div class="tools">
        <Input
          v-model:value="search"
          class="search"
          placeholder="find"
          aria-label="Find in the book"
          allow-clear
        />
      </div>
      <table class="sheet" aria-label="The book" data-testid="book">
        <thead>
          <tr>
            <th>Part</th>
            <th>Begun</th>
            <th>Mould</th>
            <th>Fill over forecast</th>
            <th>Fibre volume</th>
            <th>Weight over plan</th>
            <th>Found</th>
            <th>Outcome</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="line in listed" :key="line.runId">
            <td>
              <RouterLink :to="`/jobs/${line.jobId}/review`" @click="lookedAt.keep(line.jobId, line.runId)"
                >{{ line.jobName }} {{ line.number }}</RouterLink
              >
            </td>
            <td class="number">{{ date(line.startedAt) }}</td>
            <td>{{ line.figures.mouldName || '–' }}</td>
            <td class="number">{{ value(line, 'fill') }}</td>
            <td class="number">{{ value(line, 'fraction') }}</td>
            <td class="number">{{ value(line, 'weight') }}</td>
            <td>{{ findingsWords(line.figures.findings) || 'nothing' }}</td>
            <td :class="{ ember: line.figures.outcome === 'scrap', moss: line.figures.outcome === 'good' }">
              {{ outcomeNames[line.figures.outcome] }}
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </main>
</template>

<style scoped>
main {
  padding: 14px 24px 40px;
}
.filters {
  align-items: end;
  gap: 12px;
  margin: 8px 0;
}
.filters label span {
  display: block;
  font-size: 13px;
}
.sums {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 36px;
  margin: 10px 0;
}
.sums dd {
  margin: 0;
  font-size: 24px;
}
.sums dt {
  color: var(--quiet);
  max-width: 230px;
}
.search {
  margin: 8px 0;
  width: 220px;
}
</style>
