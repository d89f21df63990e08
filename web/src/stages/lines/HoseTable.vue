<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { hoseOfLine, hoseOfTee, hoseRunsOf, potLevelOf } from '@wick/plan/layout/hoses';
import type { JobLine } from '@wick/contract/job/job';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { updateLine, withHose } from '@wick/plan/layout/edits';
import { addTee, removeStation, removeTee, updateStation, updateTee } from '@wick/plan/layout/fittings';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';
import VentVacuum from './VentVacuum.vue';
import JobField from '../common/JobField.vue';
import Choice from '../../ui/Choice.vue';

/** What resin has to pass before it is on the part: pot, hose, tee and the channel itself. */
const job = useSession();
const lines = computed(() => job.laid.lines);
const library = useLibraryStore();
const shop = useShopStore();
const stocks = computed(() => [
  { value: '', label: 'any' },
  ...library.ofKind('hose').map(({ id, name }) => ({ value: id, label: name })),
]);
const stations = (kind: 'pot' | 'pump') =>
  job.laid.stations.filter((s) => s.kind === kind).map(({ id, name }) => ({ value: id, label: name }));
const sourcesOf = (line: JobLine) =>
  line.kind === 'vent'
    ? [{ value: '', label: 'the pump' }, ...stations('pump')]
    : [
        { value: '', label: 'the pot' },
        ...stations('pot'),
        ...job.laid.tees.map(({ id, name }) => ({ value: id, label: name })),
      ];
function setSource(line: JobLine, id: string) {
  const isTee = job.laid.tees.some((tee) => tee.id === id);
  job.apply(updateLine(line.id, { tee: isTee ? id : null, stationId: isTee ? null : id || null }));
}
const total = computed(() => hoseRunsOf(job.laid).reduce((sum, { length }) => sum + length, 0));
</script>

<template>
  <div class="list">
    <VentVacuum />
    <table class="sheet">
      <thead>
        <tr>
          <th>Line</th>
          <th>Channel bore or gap</th>
          <th>Hose from</th>
          <th>Hose</th>
          <th>Length</th>
          <th>Bore</th>
          <th>Joins at</th>
          <th>Resin in the pot above inlet</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="line in lines" :key="line.id">
          <td :class="['number', line.kind]">{{ line.name }}</td>
          <td>
            <JobField
              hide-label
              :label="`Bore of ${line.name}`"
              path="layouts.lines.bore"
              :model-value="line.bore"
              @update:model-value="job.apply(updateLine(line.id, { bore: $event! }))"
            />
          </td>
          <template v-if="line.kind !== 'race'">
            <td>
              <Choice
                size="small"
                class="choice"
                :value="line.tee ?? line.stationId ?? ''"
                :options="sourcesOf(line)"
                :aria-label="`Where the hose of ${line.name} comes from`"
                @change="setSource(line, String($event))"
              />
            </td>
            <td>
              <Choice
                size="small"
                class="choice"
                :value="line.hoseId ?? ''"
                :options="stocks"
                :aria-label="`What the hose of ${line.name} is cut from`"
                @change="
                  job.apply(withHose(line.id, library.ofKind('hose').find(({ id }) => id === $event) ?? null))
                "
              />
            </td>
            <td>
              <JobField
                hide-label
                :label="`Hose length of ${line.name}`"
                path="layouts.lines.hoseLength"
                :model-value="line.hoseLength"
                :assumed="hoseOfLine(job.laid, line).length"
                @update:model-value="job.apply(updateLine(line.id, { hoseLength: $event }))"
              />
            </td>
            <td>
              <JobField
                hide-label
                :label="`Hose bore of ${line.name}`"
                path="layouts.lines.hoseBore"
                :model-value="line.hoseBore"
                :assumed="hoseOfLine(job.laid, { ...line, hoseBore: null }).bore"
                @update:model-value="job.apply(updateLine(line.id, { hoseBore: $event }))"
              />
            </td>
            <td>
              <JobField
                hide-label
                :label="`Where the hose joins ${line.name}`"
                path="layouts.lines.inlet"
                :model-value="line.inlet"
                @update:model-value="job.apply(updateLine(line.id, { inlet: $event! }))"
              />
            </td>
            <td>
              <JobField
                v-if="line.kind === 'feed'"
                hide-label
                :label="`Resin above the inlet of ${line.name}`"
                path="layouts.lines.potLevel"
                :model-value="line.potLevel"
                :assumed="potLevelOf(job.laid, { ...line, potLevel: null })"
                @update:model-value="job.apply(updateLine(line.id, { potLevel: $event }))"
              />
            </td>
          </template>
          <td v-else colspan="6" class="quiet">an edge along which resin runs ahead in the gap</td>
        </tr>
        <tr v-for="tee in job.laid.tees" :key="tee.id">
          <td class="number">{{ tee.name }}</td>
          <td class="quiet">junction</td>
          <td class="quiet">the pot</td>
          <td></td>
          <td>
            <JobField
              hide-label
              :label="`Hose length to ${tee.name}`"
              path="layouts.tees.hoseLength"
              :model-value="tee.hoseLength"
              :assumed="hoseOfTee(job.laid, tee).length"
              @update:model-value="job.apply(updateTee(tee.id, { hoseLength: $event }))"
            />
          </td>
          <td>
            <JobField
              hide-label
              :label="`Hose bore to ${tee.name}`"
              path="layouts.tees.hoseBore"
              :model-value="tee.hoseBore"
              @update:model-value="job.apply(updateTee(tee.id, { hoseBore: $event! }))"
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
        <tr v-for="station in job.laid.stations" :key="station.id">
          <td class="number">{{ station.name }}</td>
          <td class="quiet">{{ station.kind === 'pot' ? 'pot of resin' : 'pump and catch pot' }}</td>
          <td colspan="5" class="quiet">
            {{ shop.show(station.place.x, 'length') }}, {{ shop.show(station.place.y, 'length') }}
          </td>
          <td>
            <JobField
              v-if="station.kind === 'pot'"
              hide-label
              :label="`Resin in ${station.name} above the plan`"
              path="layouts.stations.level"
              :model-value="station.level"
              :assumed="0"
              @update:model-value="job.apply(updateStation(station.id, { level: $event }))"
            />
            <Button
              v-else
              size="small"
              type="text"
              :aria-label="`Delete ${station.name}`"
              @click="job.apply(removeStation(station.id))"
              >×</Button
            >
          </td>
        </tr>
      </tbody>
    </table>
    <div class="under">
      <Button size="small" type="link" @click="job.apply(addTee())">Add a tee</Button>
      <span class="quiet"
        >pots, pumps and tees are put on the plan with T; hoses then run to them and are measured. In all
        {{ shop.showLong(Math.round(10 * total) / 10) }} of hose.</span
      >
    </div>
  </div>
</template>

<style scoped>
td {
  vertical-align: middle !important;
}
td :deep(input) {
  padding: 1px 7px;
  max-width: 92px;
}
.choice {
  width: 110px;
}
.under {
  display: flex;
  gap: 12px;
  align-items: center;
  font-size: 13px;
}
.feed {
  color: var(--resin-ink);
}
.vent {
  color: var(--tide);
}
.race {
  color: var(--ember);
}
</style>
