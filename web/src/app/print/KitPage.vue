<script setup lang="ts">
import { bagOf } from '@wick/plan/bag/bag';
import { phaseWords, unitWords } from '@wick/plan/takeoff/sheet';
import { takeOffOf } from '@wick/plan/takeoff/take-off';
import { layerWord } from '@wick/plan/stack/kinds';
import { boundsOf } from '@wick/core/geometry/polygon';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import SectionPicture from '../../stages/stack/SectionPicture.vue';
import { drawSection } from '../../stages/stack/section-picture.ts';
import { placesOf, sectionAt, type EdgeSection } from '@wick/plan/stack/section';
import { fittingScale, papers, scales } from './paper.ts';
import KitLabels from './KitLabels.vue';
import PrintedPleats from './PrintedPleats.vue';
import { usePaper } from './use-paper.ts';
import { useCrew } from '../../stages/stack/use-crew.ts';

/** The pleat plan to scale, and the kit list in order of use with the stack for the dry rehearsal. */
const job = useSession();
const shop = useShopStore();
const route = useRoute();
const library = useLibraryStore();
const { paperName, paper } = usePaper();
const { people, hours } = useCrew();

const bag = computed(() => bagOf(job.laid, shop.shop));
const takeOff = computed(() =>
  takeOffOf(job.laid, {
    shop: shop.shop,
    materials: library.materials,
    ...{ people: people.value, hours: hours.value },
  }),
);
const box = computed(() =>
  boundsOf(bag.value.tapeLine.length > 0 ? bag.value.tapeLine : job.laid.part.outline),
);
const size = computed(() => ({
  width: box.value.maxX - box.value.minX,
  height: box.value.maxY - box.value.minY,
}));
const scale = computed(() => fittingScale(size.value, paper.value) ?? scales.at(-1)!);
const words = { edge: 'Plain edge', feed: 'At a feed', vent: 'At the vent', step: 'Over a rise' };
const PICTURE = 520;
const sections = computed(() =>
  placesOf(job.laid).map((place) => {
    const section = sectionAt(job.laid, place);
    return { section, picture: drawSection(section, PICTURE) };
  }),
);
/** Where each layer ends, m past the edge. */
const endsIn = ({ layers, step }: EdgeSection) =>
  step
    ? `${step.name} climbs ${shop.show(step.height, 'length')}`
    : layers
        .filter(({ to }) => Number.isFinite(to))
        .map(({ word, to }) => `${word} ${to < 0 ? '−' : ''}${shop.show(Math.abs(to), 'length')}`)
        .join(', ');
const reversed = computed(() => [...job.laid.layers].reverse().map(({ kind }) => layerWord(kind)));
const amount = (value: number) => (Math.round(100 * value) / 100).toString();

const print = () => window.print();
const day = new Date().toLocaleDateString([], { dateStyle: 'medium' });
</script>

<template>
  <div class="tools bar">
    <RouterLink :to="{ path: `/jobs/${job.id}/stack`, query: route.query }">Back to the stack</RouterLink>
    <Choice
      v-model:value="paperName"
      class="sheet-size"
      aria-label="Sheet"
      :options="papers.map(({ name }) => ({ value: name, label: name }))"
    />
    <Button type="primary" @click="print">Print</Button>
    <span class="quiet">Print at 100 %, then check the bar under the plan with a rule.</span>
  </div>
  <main>
    <section
      class="page"
      :style="{ width: `${paper.width}mm`, height: `${paper.height}mm` }"
      data-testid="pleats"
    >
      <header>
        <b class="title">{{ job.laid.name }}: bag</b>
        <span class="number">1:{{ scale }}</span>
        <span>
          film {{ shop.showLong(bag.film.length) }} × {{ shop.showLong(bag.film.width) }}, tape
          {{ shop.showLong(bag.tape) }}
        </span>
        <span>{{ shop.shop.name }}, {{ day }}</span>
      </header>
      <PrintedPleats :job="job.laid" :bag="bag" :scale="scale" :paper="paper" />
    </section>
    <section class="page flow" :style="{ width: `${paper.width}mm`, minHeight: `${paper.height}mm` }">
      <header>
        <b class="title">{{ job.laid.name }}: kit</b><span>{{ shop.shop.name }}, {{ day }}</span>
      </header>
      <table class="sheet" data-testid="kit">
        <thead>
          <tr>
            <th></th>
            <th>In order of use</th>
            <th>Take</th>
            <th>For</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in takeOff.items" :key="`${item.phase} ${item.name} ${item.why}`">
            <td>☐</td>
            <td>
              {{ item.name }}<br /><small>{{ phaseWords[item.phase] }}</small>
            </td>
            <td class="number">{{ amount(item.amount) }} {{ unitWords[item.unit] }}</td>
            <td>{{ item.why }}{{ item.comesBack ? '; comes back' : '' }}</td>
          </tr>
        </tbody>
      </table>
      <h3>Sections</h3>
      <div class="sections">
        <figure v-for="{ section, picture } in sections" :key="section.place" data-testid="printed-section">
          <svg :viewBox="`0 0 ${picture.width} ${picture.height}`">
            <SectionPicture :section="section" :picture="picture" :selected="null" />
          </svg>
          <figcaption>{{ words[section.place] }}: {{ endsIn(section) }}</figcaption>
        </figure>
      </div>
      <h3>Dry rehearsal, from the top of the pile</h3>
      <p>
        {{ reversed.join(', ') || 'nothing lies on the plies yet' }}, then the plies from the last to the
        first.
      </p>
      <h3>Drawing it down</h3>
      <ol>
        <li v-for="step in bag.pullDown" :key="step">☐ {{ step }}</li>
      </ol>
      <h3>Labels</h3>
      <KitLabels :items="takeOff.items" />
      <p class="quiet">A plan, not a certificate. Follow the safety data sheets and your site’s rules.</p>
    </section>
  </main>
</template>

<style scoped src="./sheet.css"></style>
<style scoped>
.sections {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4mm;
}
figure {
  margin: 0;
  break-inside: avoid;
}
figcaption {
  font-size: 3mm;
}
</style>
