<script setup lang="ts">
import { weighed } from '@wick/plan/resin/sheet';
import type { Weights } from '@wick/plan/resin/weights';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';

/** What the scale will say afterwards, so that it can be compared. */
const props = defineProps<{ weights: Weights }>();
const shop = useShopStore();
const job = useSession();
const rows = computed(() => {
  const { fibre, core, resin, asLaid, trimmed, consumables, resinInConsumables, catchPot } = props.weights;
  const all: [string, number, string?][] = [
    ['Fibre', fibre],
    ['Core', core],
    ['Resin that stays in it', resin],
    ['Part as it comes off the mould', asLaid, 'rim and brake on'],
    [
      'Part trimmed',
      trimmed,
      job.laid.part.trim ? `rim of ${shop.show(job.laid.part.trim, 'length')} off` : 'no rim to trim off',
    ],
    ['Bag and consumables, dry', consumables],
    ['Resin in them', resinInConsumables],
    ['Catch pot', catchPot, 'resin'],
  ];
  return all.filter(([name, mass]) => mass > 0 || name === 'Catch pot');
});
</script>

<template>
  <section aria-label="Weights ahead">
    <h3>What the scale will say</h3>
    <table class="sheet">
      <tbody>
        <tr v-for="[name, mass, note] in rows" :key="name" :class="{ strong: name.startsWith('Part') }">
          <td>
            {{ name }} <span v-if="note" class="quiet">{{ note }}</span>
          </td>
          <td class="number">{{ weighed(mass, shop.shop) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="weights.unknown.length > 0" class="quiet">
      Without {{ weights.unknown.join(', ') }}: the library does not say what they weigh.
    </p>
    <div class="trim"><JobField label="Rim trimmed off" path="part.trim" :assumed="0" /></div>
  </section>
</template>

<style scoped>
td:last-child {
  text-align: right;
  white-space: nowrap;
}
.strong td:first-child {
  font-weight: 600;
}
.strong .quiet {
  font-weight: 400;
}
.quiet {
  font-size: 12px;
}
.trim {
  width: 160px;
  margin-top: 8px;
}
</style>
