<script setup lang="ts">
import { BASE } from '@wick/contract/job/stack';
import type { StackBreak } from '@wick/plan/stack/rule';
import { partSums } from '@wick/plan/laminate/ply-book';
import { settle } from '@wick/plan/settle';
import { startFrom, startedWith, startingStacks } from '@wick/plan/stack/starting';
import { takeOffOf } from '@wick/plan/takeoff/take-off';
import type { LaidJob } from '@wick/plan/job/laid';
import { atRest } from '../../compute/at-rest.ts';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import JobField from '../common/JobField.vue';

/** Is anything missing, in the wrong order or short; what it keeps of the resin; and other schools to start from. */
const props = defineProps<{ breaks: readonly StackBreak[] }>();
const emit = defineEmits<{ select: [id: string] }>();
const job = useSession();
const shop = useShopStore();
const library = useLibraryStore();

const isEmpty = computed(() => job.laid.layers.length === 0);
const headline = computed(() => {
  if (isEmpty.value) return 'Nothing lies on the plies yet';
  const count = props.breaks.length;
  return count === 0
    ? 'Nothing missing, nothing short'
    : count === 1
      ? 'One thing is wrong'
      : `${count} things are wrong`;
});
const stacks = computed(() => startingStacks(job.laid));
const chosenId = ref<string | null>(null);
const chosen = computed(() => stacks.value.find(({ id }) => id === chosenId.value) ?? stacks.value[0]!);
const faces = [
  { value: '', label: 'nothing' },
  { value: 'bag', label: 'to the bag side' },
  { value: 'mould', label: 'to the mould side' },
];
/** What a stack comes to: layers in money, and resin thrown away with them. */
function comesTo(laid: LaidJob) {
  try {
    const request = { shop: shop.shop, materials: library.materials, people: 1, hours: 1 };
    const { items } = takeOffOf(laid, request);
    const money = items.reduce((sum, { phase, cost }) => sum + (phase === 'stack' ? (cost ?? 0) : 0), 0);
    const density = settle(laid, shop.shop)['resin.density'].value;
    return { money, resin: partSums(laid, shop.shop).resinInConsumables * density };
  } catch {
    return null;
  }
}
const now = atRest(
  () => job.isGesturing,
  () => comesTo(job.laid),
  null,
);
const then = computed(() => comesTo(startedWith(job.laid, chosen.value, library.materials)));
const begin = () =>
  job.apply(startFrom(chosen.value, library.materials), `stack: ${chosen.value.name.toLowerCase()}`);
const zoneWords = computed(() => job.laid.layers.some(({ except }) => except.includes(BASE)));
</script>

<template>
  <h2 :class="breaks.length > 0 ? 'ember' : isEmpty ? '' : 'moss'" data-testid="stack-verdict">
    {{ headline }}
  </h2>
  <ol v-if="breaks.length > 0" class="breaks" data-testid="stack-checks">
    <li v-for="(item, i) in breaks" :key="`${item.rule} ${item.itemId} ${i}`">
      <span class="number ember">{{ i + 1 }}</span>
      <div>
        <button v-if="item.itemId" class="plain" @click="emit('select', item.itemId)">
          {{ item.message }}
        </button>
        <p v-else>{{ item.message }}</p>
        <Button
          v-if="item.fix"
          size="small"
          @click="job.apply(item.fix.apply, item.fix.label.toLowerCase())"
          >{{ item.fix.label }}</Button
        >
      </div>
    </li>
  </ol>
  <p v-if="zoneWords" class="quiet">A layer is left off on the main laminate: see Zones.</p>
  <template v-if="now && !isEmpty">
    <div class="row">
      <span>Resin thrown away with mesh and peel ply</span>
      <span class="number">{{ shop.show(now.resin, 'mass') }}</span>
    </div>
    <div class="row">
      <span>Layers cost</span><span class="number">{{ now.money.toFixed(2) }}</span>
    </div>
  </template>
  <h3>What it has to stand</h3>
  <JobField
    label="Hottest during the cure"
    path="resin.cureTemperature"
    :assumed="job.laid.resin.mouldTemperature ?? shop.shop.temperature"
  />
  <label class="bond">
    <span class="quiet">Bonded afterwards</span>
    <Choice
      :value="job.laid.bondFace ?? ''"
      :options="faces"
      aria-label="Bonded afterwards"
      @change="
        job.apply(
          (d) => ({ ...d, bondFace: ($event || null) as 'mould' | 'bag' | null }),
          'face that is bonded',
        )
      "
    />
  </label>
  <h3>{{ isEmpty ? 'Start from' : 'Start again from' }}</h3>
  <Choice
    :value="chosen.id"
    :options="stacks.map(({ id, name }) => ({ value: id, label: name }))"
    aria-label="Starting stack"
    @change="chosenId = String($event)"
  />
  <p class="school">{{ chosen.school }}</p>
  <p class="school quiet">{{ chosen.risk }}</p>
  <p v-if="then" class="school" data-testid="school-cost">
    Layers for {{ then.money.toFixed(2) }}, and {{ shop.show(then.resin, 'mass') }} of resin thrown away.
  </p>
  <Button :type="isEmpty ? 'primary' : 'default'" @click="begin">Lay this stack</Button>
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
}
.breaks {
  list-style: none;
  padding: 0;
  margin: 8px 0 12px;
}
.breaks li {
  display: grid;
  grid-template-columns: 18px 1fr;
  margin-bottom: 10px;
}
.breaks p {
  margin: 0;
}
.breaks :deep(.ant-btn) {
  display: block;
  margin-top: 4px;
}
.school {
  margin: 6px 0 0;
}
.school + :deep(button) {
  margin-top: 8px;
}
.bond {
  display: block;
  margin-top: 8px;
}
.bond .quiet {
  font-size: 12px;
}
</style>
