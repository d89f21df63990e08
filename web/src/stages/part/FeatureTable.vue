<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { lineLength } from '@wick/core/geometry/polygon';
import type { JobFeature } from '@wick/contract/job/job';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed } from 'vue';
import { removeFeature, updateFeature } from '@wick/plan/part/features';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import Choice from '../../ui/Choice.vue';

/** Where the surface climbs, steps or turns in: what the bag needs a pleat for and the plies may bridge. */
const job = useSession();
const shop = useShopStore();
const features = computed(() => job.laid.part.features);
const kinds: { value: JobFeature['kind']; label: string }[] = [
  { value: 'rise', label: 'rise' },
  { value: 'step', label: 'step' },
  { value: 'insideCorner', label: 'inside corner' },
];
function rename(id: string, event: Event) {
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 40);
  if (name) job.apply(updateFeature(id, { name }));
}
</script>

<template>
  <p v-if="features.length === 0" class="quiet">
    None marked. Draw a line (R) along each rise, step or inside corner: the bag gets a pleat there, and plies
    may bridge it.
  </p>
  <table v-else class="sheet">
    <thead>
      <tr>
        <th>Name</th>
        <th>Kind</th>
        <th>Height</th>
        <th>Radius</th>
        <th>Length</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="feature in features" :key="feature.id">
        <td>
          <Input
            size="small"
            :value="feature.name"
            :aria-label="`Name of ${feature.name}`"
            @change="rename(feature.id, $event)"
          />
        </td>
        <td>
          <Choice
            size="small"
            class="kind"
            :value="feature.kind"
            :options="kinds"
            :aria-label="`Kind of ${feature.name}`"
            @change="job.apply(updateFeature(feature.id, { kind: $event as JobFeature['kind'] }))"
          />
        </td>
        <td v-for="key in ['height', 'radius'] as const" :key="key">
          <JobField
            hide-label
            :label="`${key === 'height' ? 'Height' : 'Radius'} of ${feature.name}`"
            :path="`part.features.${key}`"
            :model-value="feature[key]"
            @update:model-value="job.apply(updateFeature(feature.id, { [key]: $event! }))"
          />
        </td>
        <td class="number">{{ shop.show(lineLength(feature.points), 'length') }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :aria-label="`Delete ${feature.name}`"
            @click="job.apply(removeFeature(feature.id))"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
td {
  vertical-align: middle !important;
}
.kind {
  width: 140px;
}
.actions {
  text-align: right;
}
</style>
