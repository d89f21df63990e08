<script setup lang="ts">
import { phaseWords, takeOffCsv, takeOffWorkbook } from '@wick/plan/takeoff/sheet';
import type { TakeOff } from '@wick/plan/takeoff/take-off';
import type { TakenItem, TakenUnit } from '@wick/plan/takeoff/taken';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { saveFile } from '../../ui/save-file.ts';

/** What to fetch, in order of use. */
const props = defineProps<{ takeOff: TakeOff }>();
const job = useSession();
const shop = useShopStore();
const route = useRoute();
const phases = computed(() =>
  (Object.keys(phaseWords) as TakenItem['phase'][])
    .map((phase) => ({ phase, items: props.takeOff.items.filter((item) => item.phase === phase) }))
    .filter(({ items }) => items.length > 0),
);
const amount = (value: number, unit: TakenUnit) => {
  switch (unit) {
    case 'area':
      return shop.show(value, 'area');
    case 'length':
      return shop.showLong(value);
    case 'mass':
      return shop.show(value, 'mass');
    case 'piece':
      return `${value}`;
  }
};
const money = (value: number | null) => (value === null ? '' : value.toFixed(2));
function shelf({ shelf: own, unit }: TakenItem): string {
  if (!own) return '';
  const short = own.isBelowMinimum ? ', order more' : '';
  return own.toBuy > 0 ? `${amount(own.toBuy, unit)} to buy${short}` : `in stock${short}`;
}
const name = (ending: string) => `${job.laid.name} kit list.${ending}`;
const saveSheet = async () => saveFile(name('xlsx'), await takeOffWorkbook(props.takeOff));
const saveTable = () => saveFile(name('csv'), new Blob([takeOffCsv(props.takeOff)], { type: 'text/csv' }));
</script>

<template>
  <div class="tools out">
    <Button size="small" @click="saveSheet">Kit list as XLSX</Button>
    <Button size="small" @click="saveTable">As CSV</Button>
    <RouterLink :to="{ path: `/jobs/${job.id}/kit`, query: route.query }"
      >Print kit list and pleat plan</RouterLink
    >
  </div>
  <table class="sheet" data-testid="take-off">
    <thead>
      <tr>
        <th>In order of use</th>
        <th class="right">Take</th>
        <th>For</th>
        <th>Shelf</th>
        <th class="right">Weighs</th>
        <th class="right">Costs</th>
      </tr>
    </thead>
    <tbody v-for="{ phase, items } in phases" :key="phase">
      <tr class="phase">
        <td colspan="6">{{ phaseWords[phase] }}</td>
      </tr>
      <tr v-for="item in items" :key="`${item.name} ${item.why}`" :class="{ back: item.comesBack }">
        <td>{{ item.name }}<span v-if="item.comesBack" class="quiet"> · comes back</span></td>
        <td class="number right">{{ amount(item.amount, item.unit) }}</td>
        <td class="why quiet">{{ item.why }}</td>
        <td :class="{ ember: (item.shelf?.toBuy ?? 0) > 0 }">{{ shelf(item) }}</td>
        <td class="number right">{{ item.weight === null ? '' : shop.show(item.weight, 'mass') }}</td>
        <td class="number right">{{ money(item.cost) }}</td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.out {
  margin: 8px 0;
  gap: 14px;
}
.right {
  text-align: right;
  white-space: nowrap;
}
.phase td {
  font: 600 13px var(--display);
  padding-top: 10px;
}
.why {
  font-size: 12px;
}
</style>
