<script setup lang="ts">
import { hoseOf } from '@wick/contract/forecast-input';
import { Button, Select } from 'ant-design-vue';
import { computed } from 'vue';
import { updateLine } from '../../state/job-edits.ts';
import { addTee, removeTee } from '../../state/layout-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';

/** What resin has to pass before it is on the part: pot, hose, tee and the channel itself. */
const job = useJobStore();
const lines = computed(() => job.document!.lines.filter((line) => line.kind !== 'vent'));
const usual = computed(() => hoseOf(job.document!));
const sources = computed(() => [
  { value: '', label: 'the pot' },
  ...job.document!.tees.map(({ id, name }) => ({ value: id, label: name })),
]);
const refuseShare = (value: number) =>
  value >= 0 && value <= 1 ? null : 'From 0 % (start) to 100 % (end of the line).';
const positive = (value: number) => (value > 0.00005 && value < 0.2 ? null : 'Between 0.05 mm and 200 mm.');
function setTee(id: string, changes: Partial<{ hoseLength: number; hoseBore: number }>) {
  job.apply((document) => ({
    ...document,
    tees: document.tees.map((tee) => (tee.id === id ? { ...tee, ...changes } : tee)),
  }));
}
</script>

<template>
  <div class="list">
    <table class="sheet">
      <thead>
        <tr>
          <th>Line</th>
          <th>Channel bore or gap</th>
          <th>Hose from</th>
          <th>Hose length</th>
          <th>Hose bore</th>
          <th>Joins at</th>
          <th>Resin in the pot above inlet</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id">
          <td :class="['number', line.kind]">{{ line.name }}</td>
          <td>
            <QuantityInput
              hide-label
              :label="`Bore of ${line.name}`"
              quantity="thickness"
              :model-value="line.bore"
              :refuse="positive"
              @update:model-value="job.apply(updateLine(line.id, { bore: $event! }))"
            />
          </td>
          <template v-if="line.kind === 'feed'">
            <td>
              <Select
                size="small"
                class="choice"
                :value="line.tee ?? ''"
                :options="sources"
                :aria-label="`Where the hose of ${line.name} comes from`"
                @change="job.apply(updateLine(line.id, { tee: String($event) || null }))"
              />
            </td>
            <td>
              <QuantityInput
                hide-label
                :label="`Hose length of ${line.name}`"
                quantity="length"
                :model-value="line.hoseLength"
                :assumed="usual.length"
                @update:model-value="job.apply(updateLine(line.id, { hoseLength: $event }))"
              />
            </td>
            <td>
              <QuantityInput
                hide-label
                :label="`Hose bore of ${line.name}`"
                quantity="thickness"
                :model-value="line.hoseBore"
                :assumed="usual.bore"
                @update:model-value="job.apply(updateLine(line.id, { hoseBore: $event }))"
              />
            </td>
            <td>
              <QuantityInput
                hide-label
                :label="`Where the hose joins ${line.name}`"
                quantity="fraction"
                :model-value="line.inlet"
                :refuse="refuseShare"
                @update:model-value="job.apply(updateLine(line.id, { inlet: $event! }))"
              />
            </td>
            <td>
              <QuantityInput
                hide-label
                :label="`Resin above the inlet of ${line.name}`"
                quantity="length"
                :model-value="line.potLevel"
                :assumed="0"
                @update:model-value="job.apply(updateLine(line.id, { potLevel: $event }))"
              />
            </td>
          </template>
          <td v-else colspan="5" class="quiet">an edge along which resin runs ahead in the gap</td>
        </tr>
        <tr v-for="tee in job.document!.tees" :key="tee.id">
          <td class="number">{{ tee.name }}</td>
          <td class="quiet">junction</td>
          <td class="quiet">the pot</td>
          <td>
            <QuantityInput
              hide-label
              :label="`Hose length to ${tee.name}`"
              quantity="length"
              :model-value="tee.hoseLength"
              @update:model-value="setTee(tee.id, { hoseLength: $event! })"
            />
          </td>
          <td>
            <QuantityInput
              hide-label
              :label="`Hose bore to ${tee.name}`"
              quantity="thickness"
              :model-value="tee.hoseBore"
              @update:model-value="setTee(tee.id, { hoseBore: $event! })"
            />
          </td>
          <td colspan="2">
            <Button
              size="small"
              type="text"
              :aria-label="`Delete ${tee.name}`"
              @click="job.apply(removeTee(tee.id))"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <Button size="small" type="link" @click="job.apply(addTee())">Add a tee</Button>
  </div>
</template>

<style scoped>
td {
  vertical-align: middle !important;
}
td :deep(input) {
  padding: 1px 7px;
  max-width: 104px;
}
.choice {
  width: 110px;
}
.feed {
  color: var(--resin-ink);
}
.race {
  color: var(--ember);
}
</style>
