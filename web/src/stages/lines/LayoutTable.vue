<script setup lang="ts">
import { useLayouts } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import { useShopStore } from '../../data/shop-store.ts';
import { marginWords, outcomeBand, outcomeChance, outcomeTone } from './outcome-words.ts';

/** The layouts in numbers. */
const layouts = useLayouts();
const shop = useShopStore();
/** Nobody orders hose by the millimetre. */
const tenth = (length: number) => Math.round(10 * length) / 10;
</script>

<template>
  <div class="list">
    <p v-if="layouts.message" class="ember" role="alert">{{ layouts.message }}</p>
    <table class="sheet" data-testid="layout-table">
      <thead>
        <tr>
          <th>Layout</th>
          <th>Last corner, likely range</th>
          <th></th>
          <th>Chance to fill</th>
          <th>Shut in</th>
          <th>Resin not in the part</th>
          <th>Lines + hoses</th>
          <th>Valves turned</th>
          <th></th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="{ id, letter, name, outcome, isCurrent } in layouts.entries"
          :key="id"
          :class="{ here: isCurrent }"
        >
          <td>
            <b class="number">{{ letter }}</b>
            <input
              class="name"
              maxlength="40"
              :value="name"
              placeholder="name it"
              :aria-label="`Name of layout ${letter}`"
              @change="layouts.rename(id, ($event.target as HTMLInputElement).value.trim().slice(0, 40))"
            />
          </td>
          <template v-if="outcome">
            <td class="number">{{ marginWords(outcome) }}</td>
            <td :class="outcomeTone(outcome)">{{ outcomeBand(outcome) }}</td>
            <td class="number">{{ outcomeChance(outcome) }}</td>
            <td class="number">{{ outcome.dryArea > 0 ? shop.show(outcome.dryArea, 'area') : 'none' }}</td>
            <td class="number">{{ shop.show(outcome.wastedResin, 'mass') }}</td>
            <td class="number">
              {{ shop.showLong(tenth(outcome.lineLength)) }} + {{ shop.showLong(tenth(outcome.hoseLength)) }}
            </td>
            <td class="number">{{ outcome.operatorActions }}</td>
          </template>
          <td v-else colspan="7" class="quiet">
            {{ layouts.running > 0 ? 'working it out …' : 'not worked out' }}
          </td>
          <td>
            <Button
              v-if="!isCurrent"
              size="small"
              type="text"
              :aria-label="`Delete layout ${letter}`"
              @click="layouts.remove(id)"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.here td {
  background: #f2e4c4;
}
.name {
  border: 0;
  border-bottom: 1px dotted var(--rule);
  background: none;
  width: 150px;
  margin-left: 8px;
  font: inherit;
}
.amber {
  color: var(--resin-ink);
}
</style>
