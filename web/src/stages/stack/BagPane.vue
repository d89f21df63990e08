<script setup lang="ts">
import type { Bag } from '@wick/plan/bag/bag';
import type { Point } from '@wick/core/geometry/polygon';
import { addSection, removeSection } from '@wick/plan/bag/edits';
import { newId } from '@wick/plan/job/ids';
import { asRace, pocketName, type Bridge } from '@wick/plan/bag/bridges';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import BagPlan from './BagPlan.vue';
import BagSectionDrawing from './BagSectionDrawing.vue';

/** Does the bag reach every corner: sections, pleats on the tape line, corners that will bridge. */
const props = defineProps<{ bag: Bag }>();
const job = useSession();
const shop = useShopStore();
const chosen = ref<string | null>(null);
/** The section with most to climb, until another is chosen. */
const section = computed(
  () =>
    props.bag.sections.find(({ id }) => id === chosen.value) ??
    props.bag.sections.reduce((most, own) => (own.climbs.length > most.climbs.length ? own : most)),
);
const isDrawing = ref(false);
const isOwn = computed(() => job.laid.part.sections.some(({ id }) => id === section.value.id));
function draw(from: Point, to: Point) {
  const id = newId();
  isDrawing.value = false;
  job.apply(addSection([from, to], id), 'section of the bag');
  chosen.value = id;
}
const options = computed(() =>
  props.bag.sections.map(({ id, name, climbs }) => ({
    value: id,
    label:
      climbs.length > 0
        ? `${name}: ${climbs.length} ${climbs.length === 1 ? 'rise' : 'rises'}`
        : `${name}: flat`,
  })),
);
const hasPocket = (bridge: Bridge) => job.laid.lines.some(({ name }) => name === pocketName(bridge));
const millilitres = (pocket: number) => `${Math.round(pocket * 1e6)} mL`;
</script>

<template>
  <div class="panes">
    <div>
      <BagPlan :bag="bag" :section="section" :is-drawing="isDrawing" @choose="chosen = $event" @draw="draw" />
      <div class="tools">
        <Button size="small" :type="isDrawing ? 'primary' : 'default'" @click="isDrawing = !isDrawing">{{
          isDrawing ? 'Drag across the plan' : 'Draw a section'
        }}</Button>
        <Button
          v-if="isOwn"
          size="small"
          @click="job.apply(removeSection(section.id), `removal of ${section.name}`)"
          >Remove {{ section.name }}</Button
        >
      </div>
    </div>
    <div>
      <Choice
        :value="section.id"
        :options="options"
        size="small"
        aria-label="Section"
        @change="chosen = $event"
      />
      <BagSectionDrawing :section="section" />
    </div>
  </div>
  <h3>Corners that will bridge</h3>
  <p v-if="bag.bridges.length === 0" class="quiet">
    None: no inside corner of Part is tighter than what film and plies span here.
  </p>
  <table v-else class="sheet" data-testid="bridges">
    <thead>
      <tr>
        <th></th>
        <th>Corner</th>
        <th>Spans on</th>
        <th>Pocket</th>
        <th>What to do</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(bridge, n) in bag.bridges" :key="bridge.featureId">
        <td class="number">{{ n + 1 }}</td>
        <td>{{ bridge.name }}</td>
        <td class="number">{{ shop.show(bridge.spanned, 'length') }}</td>
        <td class="number">{{ millilitres(bridge.pocket) }}</td>
        <td>
          <div v-for="line in bridge.todo" :key="line">{{ line }}</div>
        </td>
        <td>
          <Button
            v-if="job.laid.process === 'infusion'"
            size="small"
            :disabled="hasPocket(bridge)"
            @click="job.apply(asRace(bridge), `pocket at ${bridge.name}`)"
            >{{ hasPocket(bridge) ? 'In the forecast' : 'Forecast it as a race' }}</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
  <h3>Drawing it down</h3>
  <ol class="steps">
    <li v-for="step in bag.pullDown" :key="step">{{ step }}</li>
  </ol>
</template>

<style scoped>
.panes {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px;
  margin-top: 8px;
  border: 0;
  align-items: start;
}
.steps {
  margin: 4px 0 12px;
  padding-left: 18px;
}
</style>
