<script setup lang="ts">
import { bagOf } from '@wick/plan/bag/bag';
import { placesOf, type SectionPlace } from '@wick/plan/stack/section';
import { takeOffOf } from '@wick/plan/takeoff/take-off';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { atRest } from '../../compute/at-rest.ts';
import { useSession, useStackChecks } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import StageShell from '../../ui/StageShell.vue';
import Tabs from '../../ui/Tabs.vue';
import type { Stage } from '../stage.ts';
import BagAnswer from './BagAnswer.vue';
import BagPane from './BagPane.vue';
import EdgeSection from './EdgeSection.vue';
import LayerPlan from './LayerPlan.vue';
import LayerTable from './LayerTable.vue';
import StackAnswer from './StackAnswer.vue';
import TakeOffAnswer from './TakeOffAnswer.vue';
import TakeOffPane from './TakeOffPane.vue';
import { useCrew } from './use-crew.ts';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useSession();
const shop = useShopStore();
const library = useLibraryStore();
const checks = useStackChecks();
const route = useRoute();
const router = useRouter();
const selected = ref<string | null>(null);
const wanted = ref<SectionPlace>('edge');
const words: Record<SectionPlace, string> = {
  edge: 'Plain edge',
  feed: 'At a feed',
  vent: 'At the vent',
  step: 'Over a rise',
};
const places = computed(() => placesOf(job.laid));
const place = computed(() => (places.value.includes(wanted.value) ? wanted.value : 'edge'));

/** The pane stands in the address, so that it can be sent to someone. */
const panes = [
  { value: 'layers', label: 'Layers' },
  { value: 'bag', label: 'Bag' },
  { value: 'take-off', label: 'Take-off' },
] as const;
type Pane = (typeof panes)[number]['value'];
const pane = computed<Pane>(() => panes.find(({ value }) => value === route.query.pane)?.value ?? 'layers');
const show = (value: Pane) =>
  void router.replace({ query: { ...route.query, pane: value === 'layers' ? undefined : value } });

const { people, hours } = useCrew();
/** While a hand drags, those of before the drag; a plan that cannot be measured says why. */
const measured = atRest(
  () => job.isGesturing,
  () => {
    try {
      const request = {
        ...{ shop: shop.shop, materials: library.materials },
        ...{ people: people.value, hours: hours.value },
      };
      if (pane.value === 'bag') return { bag: bagOf(job.laid, shop.shop) };
      return pane.value === 'take-off' ? { takeOff: takeOffOf(job.laid, request) } : {};
    } catch (error) {
      return { problem: (error as Error).message };
    }
  },
  {},
);
</script>

<template>
  <StageShell :question="stage.question">
    <template #tools>
      <Tabs class="tools" label="Stack" :model-value="pane" :tabs="panes" @update:model-value="show" />
    </template>
    <p v-if="measured.problem" class="ember empty" role="alert">{{ measured.problem }}</p>
    <BagPane v-else-if="measured.bag" :bag="measured.bag" />
    <TakeOffPane v-else-if="measured.takeOff" :take-off="measured.takeOff" />
    <template v-else>
      <p v-if="job.laid.layers.length === 0" class="empty">
        Nothing lies on the plies yet: no peel ply, no mesh, no bag. Lay a stack to start from, or add layers
        one by one.
      </p>
      <div v-else class="top">
        <div class="cut">
          <Tabs
            class="tools"
            label="Section"
            :model-value="place"
            :tabs="places.map((value) => ({ value, label: words[value] }))"
            @update:model-value="wanted = $event"
          />
          <EdgeSection :place="place" :selected="selected" @select="selected = $event" />
        </div>
        <LayerPlan :selected="selected" />
      </div>
      <LayerTable :selected="selected" @select="selected = $event" />
    </template>
    <template #answer>
      <BagAnswer v-if="measured.bag" :bag="measured.bag" />
      <TakeOffAnswer
        v-else-if="measured.takeOff"
        v-model:people="people"
        v-model:hours="hours"
        :take-off="measured.takeOff"
      />
      <StackAnswer v-else :breaks="checks.breaks" @select="selected = $event" />
    </template>
  </StageShell>
</template>

<style scoped>
.top {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 240px;
  gap: 20px;
}
.cut {
  min-width: 0;
}
.empty {
  max-width: 520px;
  font-size: 16px;
  margin: 40px 0;
}
</style>
