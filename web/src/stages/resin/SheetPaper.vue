<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { hardenerWord, partsText } from '@wick/plan/resin/ratio';
import { DEFER, weighed, type MixSheet } from '@wick/plan/resin/sheet';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { capital } from '../../ui/capital.ts';
import CodePicture from '../../ui/CodePicture.vue';

/** One batch as it is weighed and mixed: one ratio, the order, and what can hurt where it can. */
const props = defineProps<{
  sheet: MixSheet;
  jobName: string;
  potName: string;
  /** Where the batch is mixed on a screen: read from the paper as a code. */
  link: string;
}>();
const shop = useShopStore();
const show = (mass: number) => weighed(mass, shop.shop, props.sheet.scaleStep);
const volume = computed(() => (props.sheet.volumeParts === null ? null : partsText(props.sheet.volumeParts)));
const parts = computed(() => partsText(props.sheet.parts));
const other = computed(() => capital(hardenerWord(props.sheet.resin)));
</script>

<template>
  <article class="paper" data-testid="mix-sheet">
    <header>
      <div>
        <h2>{{ jobName }}: batch {{ sheet.number }} of {{ sheet.count }}</h2>
        <p>
          {{ sheet.resin.name }}, {{ show(sheet.batch.mass) }} into {{ potName }}; mix at
          <b class="number">{{ formatClock(sheet.batch.mixedAt) }}</b>, in the pot by
          <b class="number">{{ formatClock(sheet.batch.pouredAt) }}</b> after the first mix
        </p>
      </div>
      <CodePicture :text="link" label="Code of this batch" :size="92" />
    </header>
    <div class="weigh">
      <p>
        <span>Resin</span><b class="number">{{ show(sheet.masses.resin) }}</b>
      </p>
      <p>
        <span>{{ other }}</span><b class="number">{{ show(sheet.masses.hardener) }}</b>
      </p>
      <p class="ratio">
        <span>by weight</span><b class="number">100 : {{ parts }}</b>
      </p>
    </div>
    <p class="small">
      {{ other }} from {{ show(sheet.hardenerFrom) }} to {{ show(sheet.hardenerTo) }} is good.
      <template v-if="volume !== null"
        >Never measure {{ parts }} by volume: that would be {{ volume }}.</template
      >
    </p>
    <ol>
      <li v-for="step in sheet.steps" :key="step.text">
        <span class="box" role="img" aria-label="box to tick when done"></span>
        <span
          >{{ step.text }} <em v-if="step.caution">{{ step.caution }}</em></span
        >
      </li>
    </ol>
    <footer class="small">
      <span>Resin weighed ______ g</span><span>{{ other }} weighed ______ g</span
      ><span>First drop at ____:____</span> <span>Batch numbers ____________ / ____________</span
      ><span>By ____________</span>
    </footer>
    <p class="small">{{ DEFER }} Vivid Wick certifies no part.</p>
  </article>
</template>

<style scoped>
.paper {
  background: #fff;
  border: 1px solid var(--rule);
  padding: 18px 22px;
  max-width: 760px;
}
header {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  align-items: start;
}
header p {
  margin: 4px 0 0;
}
.weigh {
  display: flex;
  gap: 34px;
  margin: 10px 0 2px;
  align-items: end;
}
.weigh p {
  margin: 0;
  display: flex;
  flex-direction: column;
}
.weigh .number {
  font-size: 36px;
  line-height: 1.1;
}
.weigh .ratio .number {
  font-size: 24px;
}
ol {
  list-style: none;
  margin: 10px 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 10px;
  padding: 5px 0;
  border-bottom: 1px solid var(--rule);
}
.box {
  width: 16px;
  height: 16px;
  border: 1.5px solid var(--ink);
  margin-top: 2px;
}
em {
  display: block;
  font-style: normal;
  color: var(--ember);
}
.small {
  font-size: 12px;
  margin: 4px 0;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 22px;
}
@media print {
  .paper {
    border: 0;
    padding: 0;
    max-width: none;
  }
}
</style>
