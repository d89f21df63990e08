<script setup lang="ts">
import type { Entry } from '@wick/contract/run/run';
import { logCsv, logJson } from '@wick/plan/run/log-out';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useRun, useSession } from '../../compute/use-desk.ts';
import { isWaiting } from '../../session/run-session.ts';
import { dayClockFine } from '../../ui/day-clock.ts';
import { saveFile } from '../../ui/save-file.ts';
import LogPicture from '../common/LogPicture.vue';
import PictureButton from './PictureButton.vue';
import { useLog } from '../common/use-log.ts';

/** All that was said in the run, the newest first; a mistake is struck out and stays. */
const run = useRun();
const job = useSession();
const search = ref('');
const showsAll = ref(false);
const note = ref('');
const { lines: all, writing } = useLog();
const lines = computed(() =>
  all.value
    .filter(({ isSmall }) => showsAll.value || !isSmall)
    .filter(({ entry, words }) =>
      `${words} ${entry.by}`.toLowerCase().includes(search.value.trim().toLowerCase()),
    )
    .toReversed(),
);
/** Written down so much later than it happened, ms, that it is worth saying. */
const LATE = 60_000;
const time = (at: string) => dayClockFine(Date.parse(at));
const isLate = (entry: Entry) =>
  !isWaiting(entry) && run.run?.speed === 1 && Date.parse(entry.writtenAt) - Date.parse(entry.at) > LATE;
async function say() {
  if (note.value.trim() === '') return;
  await run.say({ kind: 'note', text: note.value.trim() });
  note.value = '';
}
const name = computed(() => `${job.document.name} ${run.run?.kind ?? 'run'} ${run.run?.number ?? ''}`);
const csv = () =>
  saveFile(`${name.value} log.csv`, new Blob([logCsv(run.entries, writing.value)], { type: 'text/csv' }));
const json = () =>
  run.run &&
  saveFile(`${name.value} log.json`, new Blob([logJson(run.run, run.entries)], { type: 'application/json' }));
</script>

<template>
  <div class="log">
    <form class="say" @submit.prevent="say">
      <Input v-model:value="note" size="large" placeholder="note" aria-label="Note" :maxlength="1000" />
      <Button html-type="submit" :disabled="note.trim() === ''">Write it down</Button>
      <PictureButton :step-id="null" caption="" />
    </form>
    <div class="tools">
      <Input
        v-model:value="search"
        class="search"
        placeholder="find"
        aria-label="Find in the log"
        allow-clear
      />
      <label class="all"><input v-model="showsAll" type="checkbox" /> small print too</label>
      <Button :disabled="run.entries.length === 0" @click="csv">CSV</Button>
      <Button :disabled="run.entries.length === 0" @click="json">JSON</Button>
      <RouterLink :to="`/jobs/${job.id}/log`" class="print">Print</RouterLink>
    </div>
    <p v-if="lines.length === 0" class="quiet">
      {{ run.entries.length === 0 ? 'Nothing has been written down yet.' : 'Nothing here has these words.' }}
    </p>
    <ol data-testid="log">
      <li v-for="{ entry, words, isStruck } in lines" :key="entry.id" :class="{ struck: isStruck }">
        <b class="number">{{ time(entry.at) }}</b>
        <span class="words">
          {{ words }}
          <LogPicture
            v-if="entry.body.kind === 'photo'"
            :run-id="run.run!.id"
            :photo-id="entry.body.photoId"
          />
          <small v-if="isLate(entry)" class="quiet">written down at {{ time(entry.writtenAt) }}</small>
        </span>
        <span class="by quiet"
          >{{ entry.by }}<template v-if="isWaiting(entry)"> · not sent yet</template
          ><template v-else-if="entry.device && entry.device !== 'this machine'">
            · {{ entry.device }}</template
          ></span
        >
        <Button
          v-if="entry.body.kind !== 'struck' && !isStruck && entry.device !== 'server'"
          size="small"
          type="text"
          @click="run.say({ kind: 'struck', entryId: entry.id, why: '' })"
          >Strike out</Button
        >
        <span v-else></span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.say,
.tools {
  display: flex;
  gap: 10px;
  align-items: center;
  margin-bottom: 8px;
  flex-wrap: wrap;
}
.say :deep(input) {
  flex: 1 1 200px;
}
.search {
  width: 200px;
}
.all,
.print {
  min-height: 44px;
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 88px minmax(0, 1fr) auto 104px;
  gap: 10px;
  align-items: center;
  min-height: 44px;
  border-bottom: 1px solid var(--rule);
}
.struck .words {
  text-decoration: line-through;
  color: var(--quiet);
}
small {
  display: block;
}
.by {
  font-size: 13px;
  text-align: right;
}
@media (max-width: 760px) {
  li {
    grid-template-columns: 78px minmax(0, 1fr);
  }
  .by {
    grid-column: 2;
    text-align: left;
  }
}
</style>
