<script setup lang="ts">
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { materialOf } from '@wick/plan/job/material-of';
import { settle } from '@wick/plan/settle';
import { formatClock } from '@wick/core/units/format';
import { scriptCautions } from '@wick/plan/layout/valve-script';
import { likelyWords, verdictSentence, endName } from '@wick/plan/forecast/words';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import Fuse from '../job/Fuse.vue';
import { useScript } from '../../stages/lines/use-script.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The valve turns in order, to be read aloud and ticked off beside the mould. */
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const steps = useScript();

const resin = computed(() => materialOf(job.laid, job.laid.resin.materialId, 'resin'));
const expected = (time: number | null) =>
  time === null ? '' : Number.isFinite(time) ? formatClock(time) : 'not before gel';
const isReady = computed(() => forecast.isUpToDate && forecast.solved?.isFine);
const print = () => window.print();
const day = new Date().toLocaleDateString([], { dateStyle: 'medium' });
const sentence = (cue: string, order: string) => `${cue}: ${order}.`;
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="`/jobs/${job.id}/lines?pane=sequence`">Back to the sequence</RouterLink>
    <Button type="primary" :disabled="!isReady" @click="print">Print</Button>
    <span class="quiet">{{
      isReady ? 'One sheet, A4 or Letter.' : (forecast.message ?? 'working out the minutes …')
    }}</span>
  </div>
  <main class="sheet-page" data-testid="script">
    <header>
      <h1>{{ job.laid.name }}: valves</h1>
      <span>layout {{ job.laid.layout.letter }} {{ job.laid.layout.name }}</span>
      <span
        >{{ resin?.name }},
        {{ shop.show(settle(job.laid, shop.shop)['resin.temperature'].value, 'temperature') }}</span
      >
      <span>{{ shop.shop.name }}, {{ day }}</span>
    </header>
    <p v-if="forecast.verdict" class="verdict">
      Last corner {{ likelyWords(forecast.verdict) }}, {{ endName(forecast.verdict) }} at
      {{ Math.round(forecast.verdict.gelTime / 60) }} min from first mix.
      {{ verdictSentence(forecast.verdict) }}
    </p>
    <p class="start">First mix at ______ o’clock. Minutes count from there.</p>
    <ol>
      <li v-for="(step, i) in steps" :key="`${step.lineId} ${step.actionId}`">
        <span class="call"
          ><b class="number">{{ i + 1 }}</b> {{ sentence(step.cue, step.order) }}</span
        >
        <span class="number">{{ expected(step.time) }}</span>
        <span class="box" role="img" aria-label="box to tick when done"></span>
        <span class="blank">______</span>
      </li>
      <li v-if="forecast.verdict && Number.isFinite(forecast.verdict.fillTime)">
        <span class="call"
          ><b class="number">{{ steps.length + 1 }}</b> When the last corner is wet: shut every feed. Keep the
          vacuum as the workshop does it.</span
        >
        <span class="number">{{ expected(forecast.verdict.fillTime) }}</span>
        <span class="box" role="img" aria-label="box to tick when done"></span>
        <span class="blank">______</span>
      </li>
    </ol>
    <p class="columns quiet">
      <span></span><span>expected, min</span><span>done</span><span>real minute</span>
    </p>
    <p v-if="forecast.verdict" class="late">
      Not wet by minute {{ Math.round((0.8 * forecast.verdict.gelTime) / 60) }}? From there on it is a gamble:
      say so, and decide before minute {{ Math.round(forecast.verdict.gelTime / 60) }}.
    </p>
    <ul>
      <li v-for="text in scriptCautions" :key="text">{{ text }}</li>
    </ul>
    <div class="fuse-print"><Fuse :model-value="null" on-paper /></div>
    <p class="quiet">A forecast is no certificate: the part is judged by measuring it.</p>
  </main>
</template>

<style scoped>
.bar {
  padding: 10px 16px;
  align-items: center;
}
.sheet-page {
  width: 190mm;
  min-height: 250mm;
  background: white;
  margin: 8px auto 24px;
  padding: 10mm;
  box-shadow: 0 1px 6px #0003;
}
header {
  display: flex;
  flex-wrap: wrap;
  gap: 2mm 6mm;
  align-items: baseline;
  border-bottom: 1px solid var(--ink);
  padding-bottom: 2mm;
}
.verdict {
  font-size: 3.6mm;
}
.start {
  font: 500 4.4mm var(--display);
}
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
ol li,
.columns {
  display: grid;
  grid-template-columns: 1fr 24mm 10mm 22mm;
  gap: 3mm;
  align-items: center;
  padding: 2.4mm 0;
  border-bottom: 1px solid var(--rule);
  font: 500 4.8mm/1.3 var(--display);
}
.columns {
  font: 400 3mm var(--text);
  border: 0;
  padding: 1mm 0;
  margin: 0;
}
.call b {
  display: inline-block;
  min-width: 8mm;
}
.box {
  width: 6mm;
  height: 6mm;
  border: 1.5px solid var(--ink);
}
.blank {
  color: var(--quiet);
}
.late {
  font: 600 4.2mm var(--display);
}
ul {
  font-size: 3.4mm;
  padding-left: 5mm;
}
.fuse-print {
  margin: 4mm -4mm;
}
@media print {
  .bar {
    display: none;
  }
  .sheet-page {
    margin: 0;
    box-shadow: none;
    min-height: 0;
    padding: 0;
  }
}
</style>
