<script setup lang="ts">
import { laidOn } from '@wick/plan/stack/laid-on';
import { booksOf, checkOfBook, stackOfBook, underCore } from '@wick/plan/laminate/books';
import { materialOf } from '@wick/plan/job/material-of';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed } from 'vue';
import { useCutSheet } from '../../compute/use-cut-sheet.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** Ply book of every zone and the cut list, in the order in which plies are laid: from the mould up. */
const props = defineProps<{ job: LaidJob }>();
const shop = useShopStore();
const degrees = (angle: number) => `${Math.round((angle * 180) / Math.PI)}°`;

const books = computed(() =>
  booksOf(props.job).map((book) => {
    const { laminate } = book;
    try {
      const stack = laminate.plies.length > 0 ? stackOfBook(props.job, book, shop.shop) : null;
      return {
        book,
        stack,
        check: checkOfBook(props.job, book),
        under: stack ? underCore(props.job, book, shop.shop) : 0,
        fault: null,
      };
    } catch (error) {
      return { book, stack: null, check: null, under: 0, fault: (error as Error).message };
    }
  }),
);
const { sheet, message } = useCutSheet(
  () => props.job,
  () => 0,
);
/** Layers that lie on a laminate, from the part up. */
const overIt = (zoneId: string | null) => {
  const { peelPlies = [], films = [], flowMeshes = [] } = laidOn(props.job, zoneId);
  return [...peelPlies, ...films, ...flowMeshes].map(({ name }) => name).join(', ');
};
const nameOf = (id: string | null, kind: 'fabric' | 'core') =>
  materialOf(props.job, id, kind)?.name ?? 'none';
const face = computed(
  () => ({ mould: 'the mould side', bag: 'the bag side' })[props.job.showFace ?? 'mould'],
);
</script>

<template>
  <h2>Ply book, {{ job.name }}</h2>
  <p v-if="job.showFace">Show face: {{ face }}.</p>
  <div class="books">
    <section v-for="{ book, stack, check, under, fault } in books" :key="book.name">
      <h3>{{ book.name }}{{ book.isBrake ? ', brake' : '' }}</h3>
      <p v-if="fault">{{ fault }}</p>
      <p v-if="stack && check">
        {{ shop.show(stack.laminateThickness, 'thickness') }},
        {{ shop.show(stack.fibreVolumeFraction, 'fraction') }} fibre,
        {{ check.isSymmetric ? 'symmetric' : 'not symmetric' }}
      </p>
      <table class="sheet">
        <thead>
          <tr>
            <th>Laid</th>
            <th>Cloth</th>
            <th>Angle</th>
            <th>Ends short by</th>
            <th>Done</th>
          </tr>
        </thead>
        <tbody>
          <template v-for="(ply, i) in book.laminate.plies" :key="ply.id">
            <tr v-if="book.laminate.coreId && i === under">
              <td></td>
              <td colspan="3">{{ nameOf(book.laminate.coreId, 'core') }}</td>
              <td>☐</td>
            </tr>
            <tr>
              <td class="number">{{ i + 1 }}</td>
              <td>
                {{ nameOf(ply.materialId, 'fabric') }}{{ book.through.has(ply.id) ? ' (runs through)' : '' }}
              </td>
              <td class="number">{{ degrees(ply.angle) }}</td>
              <td class="number">{{ ply.inset === 0 ? '' : shop.show(ply.inset, 'length') }}</td>
              <td>☐</td>
            </tr>
          </template>
        </tbody>
      </table>
      <p>Over it: {{ overIt(book.zoneId) || 'nothing yet' }}.</p>
    </section>
  </div>
  <p v-if="message" class="ember">{{ message }}</p>
  <p v-else-if="!sheet">The cut list is being worked out: print once it stands here.</p>
  <section v-if="sheet && sheet.pieces.length > 0">
    <h3>Cut list, labels in lay order</h3>
    <div class="labels">
      <div v-for="piece in sheet.pieces" :key="piece.label" class="label">
        <b class="number">{{ piece.label }}</b>
        <span
          >{{ piece.name }}, {{ degrees(piece.angle) }}<br />{{ piece.zone }} ·
          {{ shop.show(piece.piece.length, 'length') }} × {{ shop.show(piece.piece.width, 'length') }}</span
        >
      </div>
    </div>
    <p v-for="roll in sheet.rolls" :key="roll.materialId">
      {{ roll.name }}: {{ shop.showLong(roll.nest.length) }} of a roll
      {{ shop.show(roll.width, 'length') }} wide.
    </p>
  </section>
  <p class="quiet">
    Cut edges and dust: gloves and a mask; carbon dust conducts. Follow the safety data sheets and your site’s
    rules. A plan, not a certificate.
  </p>
</template>

<style scoped>
h2 {
  font-size: 6mm;
}
p {
  margin: 1mm 0;
}
.books {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(110mm, 1fr));
  gap: 8mm;
}
section {
  break-inside: avoid;
}
.labels {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(62mm, 1fr));
}
.label {
  border: 0.2mm solid #bbb;
  padding: 1.6mm 2mm;
  display: flex;
  gap: 3mm;
  align-items: baseline;
  break-inside: avoid;
  font-size: 3.4mm;
}
.label b {
  font-size: 6mm;
}
</style>
