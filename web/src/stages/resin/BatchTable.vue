<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { changeBatch, deleteBatch } from '@wick/plan/resin/edits';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import JobField from '../common/JobField.vue';
import { useBench } from './bench.ts';

/** The same batches typed: when each is mixed, how much, into which pot. */
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const pots = computed(() => bench.pots.map(({ id, name }) => ({ value: id, label: name })));
const typed = computed(() => {
  const own = new Map(job.laid.resin.batches.map((batch) => [batch.id, batch]));
  return bench.batches.map((batch) => ({ ...batch, typed: batch.id === null ? null : own.get(batch.id)! }));
});
</script>

<template>
  <table class="sheet" data-testid="batch-table">
    <thead>
      <tr>
        <th></th>
        <th>Mixed after the first mix</th>
        <th>Mass</th>
        <th v-if="pots.length > 1">Into</th>
        <th>In the pot</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(batch, n) in typed" :key="batch.id ?? n">
        <td class="number">{{ n + 1 }}</td>
        <template v-if="batch.typed">
          <td>
            <span v-if="n === 0" class="number">0:00</span>
            <JobField
              v-else
              hide-label
              :label="`Batch ${n + 1} mixed at`"
              path="resin.batches.mixedAt"
              :model-value="batch.typed.mixedAt"
              @update:model-value="job.apply(changeBatch(batch.typed.id, { mixedAt: $event! }), 'batch')"
            />
          </td>
          <td>
            <JobField
              hide-label
              :label="`Mass of batch ${n + 1}`"
              path="resin.batches.mass"
              :model-value="batch.typed.mass"
              :assumed="batch.mass"
              @update:model-value="job.apply(changeBatch(batch.typed.id, { mass: $event }), 'batch')"
            />
          </td>
          <td v-if="pots.length > 1">
            <Choice
              size="small"
              :aria-label="`Pot of batch ${n + 1}`"
              :value="batch.typed.stationId ?? pots[0]!.value"
              :options="pots"
              @change="job.apply(changeBatch(batch.typed.id, { stationId: $event }), 'batch')"
            />
          </td>
        </template>
        <template v-else>
          <td class="number">0:00</td>
          <td class="number">{{ shop.show(batch.mass, 'mass') }}</td>
          <td v-if="pots.length > 1">{{ pots[batch.pot]?.label }}</td>
        </template>
        <td class="number">{{ formatClock(batch.pouredAt) }}</td>
        <td>
          <Button
            v-if="batch.typed"
            size="small"
            type="text"
            :aria-label="`Delete batch ${n + 1}`"
            @click="job.apply(deleteBatch(batch.typed.id), 'batch deleted')"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td :deep(input) {
  padding: 1px 7px;
  width: 110px;
}
td {
  vertical-align: middle;
}
</style>
