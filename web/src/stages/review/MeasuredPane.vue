<script setup lang="ts">
import { plannedWords, type ComparedGroup } from '@wick/plan/review/compared';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import MeasureForms from './MeasureForms.vue';
import { useReview, type Review } from './review.ts';

/** Everything that was measured beside its plan, with whether it lies within the doubt. */
const review = useReview();
const shop = useShopStore();
const groups: readonly { readonly id: ComparedGroup; readonly name: string }[] = [
  { id: 'part', name: 'The part' },
  { id: 'fill', name: 'The fill' },
  { id: 'resin', name: 'Resin' },
  { id: 'vacuum', name: 'Vacuum' },
  { id: 'cure', name: 'Cure' },
];
type Row = Review['compared'][number];
const finite = (value: number) => (Number.isFinite(value) ? value : null);
const planned = ({ planned: range, quantity }: Row) =>
  range === null
    ? '–'
    : plannedWords(
        { early: finite(range.early), middle: finite(range.middle), late: finite(range.late) },
        quantity,
        shop.show,
      );
const off = ({ planned: range, measured, quantity }: Row) => {
  if (range === null || !Number.isFinite(range.middle) || range.middle === 0) return '';
  if (quantity === 'temperature')
    return signed(
      shop.show(Math.abs(measured - range.middle), 'temperatureDifference'),
      measured - range.middle,
    );
  const share = measured / range.middle - 1;
  return signed(`${Math.round(100 * Math.abs(share))} %`, share);
};
const signed = (words: string, by: number) => `${by < 0 ? '−' : '+'}${words}`;
const sections = computed(() =>
  groups
    .map((group) => ({ ...group, rows: review.compared.filter((row) => row.group === group.id) }))
    .filter(({ rows }) => rows.length > 0),
);
</script>

<template>
  <MeasureForms />
  <p v-if="sections.length === 0" class="quiet">
    Nothing was measured yet. Weigh the part, gauge it in three places: ten minutes that the next forecast is
    worth.
  </p>
  <table v-else class="sheet" aria-label="Planned and measured" data-testid="compared">
    <thead>
      <tr>
        <th>What</th>
        <th>Planned, eight in ten</th>
        <th>Measured</th>
        <th>Off by</th>
        <th>Within doubt</th>
      </tr>
    </thead>
    <tbody v-for="section in sections" :key="section.id">
      <tr>
        <th colspan="5" class="group">{{ section.name }}</th>
      </tr>
      <tr v-for="row in section.rows" :key="row.id">
        <td>
          {{ row.name }}
          <div v-if="row.means" :class="row.isInside === null ? 'quiet' : 'ember'">{{ row.means }}</div>
        </td>
        <td class="number">{{ planned(row) }}</td>
        <td class="number">{{ shop.show(row.measured, row.quantity) }}</td>
        <td class="number">{{ off(row) }}</td>
        <td :class="row.isInside === null ? 'quiet' : row.isInside ? 'moss' : 'ember'">
          {{ row.isInside === null ? 'cannot tell' : row.isInside ? 'yes' : 'no' }}
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
table {
  margin-top: 10px;
}
.group {
  font: 600 15px var(--display);
  text-align: left;
  padding-top: 12px;
}
</style>
