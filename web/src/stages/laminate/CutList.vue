<script setup lang="ts">
import { useCutSheet } from '../../compute/use-cut-sheet.ts';
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { saveFile } from '../../ui/save-file.ts';
import { cutCsv } from '@wick/plan/laminate/cut-sheet';
import QuantityInput from '../../ui/QuantityInput.vue';
import RollDrawing from './RollDrawing.vue';
import Choice from '../../ui/Choice.vue';

/** Every ply as it comes off the roll: pieces, labels in lay order, and how much of the roll it takes. */
const job = useSession();
const shop = useShopStore();
const overlap = ref(0);
const { sheet, message, isBehind } = useCutSheet(
  () => job.laid,
  () => overlap.value,
);
const rollId = ref<string | null>(null);
const roll = computed(
  () => sheet.value?.rolls.find(({ materialId }) => materialId === rollId.value) ?? sheet.value?.rolls[0],
);
const rollOptions = computed(() =>
  (sheet.value?.rolls ?? []).map((item) => ({ value: item.materialId, label: item.name })),
);
const degrees = (angle: number) => `${Math.round((angle * 180) / Math.PI)}°`;
const refuse = (value: number) => (value >= 0 && value <= 0.3 ? null : 'From 0 to 300 mm.');

function saveCsv() {
  if (!sheet.value) return;
  saveFile(`${job.laid.name} cut list.csv`, new Blob([cutCsv(sheet.value)], { type: 'text/csv' }));
}
</script>

<template>
  <p v-if="message" class="ember" role="alert">{{ message }}</p>
  <p v-else-if="!sheet" class="quiet" role="status">Laying the pieces on the roll …</p>
  <p v-else-if="sheet.pieces.length === 0" class="quiet">No plies to cut yet. Add them in the ply book.</p>
  <template v-else>
    <div class="tools head-row">
      <Choice
        :value="roll?.materialId"
        class="wide"
        aria-label="Cloth on the roll"
        :options="rollOptions"
        @change="rollId = String($event)"
      />
      <template v-if="roll">
        <span>
          <b class="number large" data-testid="roll-length">{{ shop.showLong(roll.nest.length) }}</b> of a
          roll
          <b :class="['number', { assumed: roll.isAssumedWidth }]">{{ shop.show(roll.width, 'length') }}</b>
          wide, <b class="number">{{ shop.show(roll.nest.usedShare, 'fraction') }}</b> of it in the part
        </span>
        <span class="space" />
      </template>
      <span class="lap">
        <QuantityInput
          label="Pieces of a ply lap by"
          quantity="length"
          :model-value="overlap"
          :refuse="refuse"
          @update:model-value="overlap = $event ?? 0"
        />
      </span>
      <Button :disabled="isBehind" @click="saveCsv">Cut list as CSV</Button>
    </div>
    <template v-if="roll">
      <RollDrawing :roll="roll" />
      <p class="quiet small">
        An estimate with 5 mm for the blade: pieces as they are or turned end for end; a patient hand does a
        little better.
        <template v-if="roll.isAssumedWidth"
          >The roll’s width is not in the library; a usual one is taken.</template
        >
      </p>
      <p v-for="piece in roll.nest.tooWide" :key="piece.label" class="ember">
        Piece {{ piece.label }} is wider than the roll with its lap. Take a smaller lap.
      </p>
    </template>
    <table class="sheet" aria-label="Cut list">
      <thead>
        <tr>
          <th>Label, in lay order</th>
          <th>Cloth</th>
          <th>Zone</th>
          <th>Angle</th>
          <th>Along the roll</th>
          <th>Across</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="item in sheet.pieces" :key="item.label" data-testid="piece">
          <td class="number">{{ item.label }}</td>
          <td>{{ item.name }}</td>
          <td>{{ item.zone }}</td>
          <td class="number">{{ degrees(item.angle) }}</td>
          <td class="number">{{ shop.show(item.piece.length, 'length') }}</td>
          <td class="number">{{ shop.show(item.piece.width, 'length') }}</td>
        </tr>
        <tr v-for="core in sheet.cores" :key="core.name + core.zone">
          <td class="quiet">core</td>
          <td>{{ core.name }}</td>
          <td>{{ core.zone }}</td>
          <td></td>
          <td class="number">{{ shop.show(core.area, 'area') }}</td>
          <td class="quiet">
            {{ core.sheets ? `${core.sheets} ${core.sheets === 1 ? 'sheet' : 'sheets'} at least` : '' }}
          </td>
        </tr>
      </tbody>
    </table>
  </template>
</template>

<style scoped>
.head-row {
  align-items: end;
  margin: 6px 0 10px;
}
.wide {
  width: 180px;
}
.lap {
  width: 130px;
}
.large {
  font-size: 20px;
}
.small {
  font-size: 12px;
  margin: 4px 0 10px;
}
.assumed {
  border-bottom: 2px dotted var(--resin);
}
</style>
