<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { ringBounds } from '@wick/core/geometry/arcs';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed } from 'vue';
import { isSameRing, type RingRef } from '@wick/plan/part/edits';
import { raiseZone, removeRing, updateZone, withPurpose, type ZonePurpose } from '@wick/plan/part/zones';
import { useShopStore } from '../../data/shop-store.ts';
import JobField from '../common/JobField.vue';
import Choice from '../../ui/Choice.vue';

/** Zones and holes by name; each zone's plies are set under Laminate. */
defineProps<{ selected: RingRef }>();
const emit = defineEmits<{ select: [ref: RingRef] }>();
const job = useSession();
const shop = useShopStore();
const zones = computed(() => job.laid.zones);
const holes = computed(() => job.laid.part.holes);
const purposes = [
  { value: 'part', label: 'plies of its own' },
  { value: 'brake', label: 'brake before a vent' },
];
const sizeOf = (outline: (typeof zones.value)[number]['outline']) => {
  const { minX, minY, maxX, maxY } = ringBounds(outline);
  return `${shop.show(maxX - minX, 'length')} × ${shop.show(maxY - minY, 'length')}`;
};
function rename(id: string, event: Event) {
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 40);
  if (name) job.apply(updateZone(id, { name }));
}
</script>

<template>
  <p v-if="zones.length + holes.length === 0" class="quiet">
    No zones or holes. Draw a zone (Z) where the plies differ, a hole (H) where there is no part.
  </p>
  <table v-else class="sheet">
    <thead>
      <tr>
        <th>Name</th>
        <th>Purpose</th>
        <th>Mould there is at</th>
        <th>Over all</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(zone, i) in zones"
        :key="zone.id"
        :class="{ selected: isSameRing(selected, { kind: 'zone', id: zone.id }) }"
        @focusin="emit('select', { kind: 'zone', id: zone.id })"
      >
        <td>
          <Input
            size="small"
            :value="zone.name"
            :aria-label="`Name of ${zone.name}`"
            @change="rename(zone.id, $event)"
          />
        </td>
        <td>
          <Choice
            size="small"
            class="purpose"
            :value="zone.purpose"
            :options="purposes"
            :aria-label="`Purpose of ${zone.name}`"
            @change="job.apply(withPurpose(zone.id, $event as ZonePurpose))"
          />
        </td>
        <td>
          <JobField
            hide-label
            :label="`Mould temperature in ${zone.name}`"
            path="zones.temperature"
            :model-value="zone.temperature"
            @update:model-value="job.apply(updateZone(zone.id, { temperature: $event }))"
          />
        </td>
        <td class="number">{{ sizeOf(zone.outline) }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :disabled="zones[i - 1]?.purpose !== zone.purpose"
            :aria-label="`Put ${zone.name} under the one before`"
            @click="job.apply(raiseZone(zone.id, -1))"
            >↑</Button
          >
          <Button
            size="small"
            type="text"
            :disabled="zones[i + 1]?.purpose !== zone.purpose"
            :aria-label="`Put ${zone.name} over the next`"
            @click="job.apply(raiseZone(zone.id, 1))"
            >↓</Button
          >
          <Button
            size="small"
            type="text"
            :aria-label="`Delete ${zone.name}`"
            @click="job.apply(removeRing({ kind: 'zone', id: zone.id }))"
            >×</Button
          >
        </td>
      </tr>
      <tr
        v-for="(hole, i) in holes"
        :key="hole.id"
        :class="{ selected: isSameRing(selected, { kind: 'hole', id: hole.id }) }"
        @focusin="emit('select', { kind: 'hole', id: hole.id })"
      >
        <td>
          <button class="plain" @click="emit('select', { kind: 'hole', id: hole.id })">
            Hole {{ i + 1 }}
          </button>
        </td>
        <td class="quiet">no part there</td>
        <td></td>
        <td class="number">{{ sizeOf(hole.outline) }}</td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :aria-label="`Delete hole ${i + 1}`"
            @click="job.apply(removeRing({ kind: 'hole', id: hole.id }))"
            >×</Button
          >
        </td>
      </tr>
    </tbody>
  </table>
</template>

<style scoped>
.selected td {
  background: #f2e4c4;
}
td {
  vertical-align: middle !important;
}
.purpose {
  width: 190px;
}
.actions {
  white-space: nowrap;
  text-align: right;
}
</style>
