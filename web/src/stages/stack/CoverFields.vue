<script setup lang="ts">
import type { JobLayer, LayerCovers } from '@wick/contract/job/stack';
import { updateLayer } from '@wick/plan/stack/edits';
import { layerWord } from '@wick/plan/stack/kinds';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** How far a layer goes: its ends, or its width, and how much pieces of it lap. */
const props = defineProps<{ layer: JobLayer }>();
const job = useSession();
const word = computed(() => layerWord(props.layer.kind));
const ofOptions = [
  { value: 'feed', label: 'feeds' },
  { value: 'vent', label: 'vents' },
  { value: 'both', label: 'all lines' },
] as const;
const END = { atLeast: -5, atMost: 5 };
const WIDTH = { above: 0, below: 5 };
const has = (kind: 'feed' | 'vent') => job.laid.lines.some((line) => line.kind === kind);
const set = (covers: LayerCovers) =>
  job.apply(updateLayer(props.layer.id, { covers }), `end of the ${word.value}`);
</script>

<template>
  <div class="fields">
    <template v-if="layer.covers.kind === 'part'">
      <label>
        <span>past the edge</span>
        <QuantityInput
          hide-label
          :label="`${word}, past the edge`"
          quantity="length"
          :limits="END"
          :model-value="layer.covers.edge"
          @update:model-value="set({ ...layer.covers, edge: $event! })"
        />
      </label>
      <label v-if="has('feed')">
        <span>at feeds</span>
        <QuantityInput
          hide-label
          :label="`${word}, past the edge at feeds`"
          quantity="length"
          :limits="END"
          :assumed="layer.covers.edge"
          :model-value="layer.covers.feed"
          @update:model-value="set({ ...layer.covers, feed: $event })"
        />
      </label>
      <label v-if="has('vent') && layer.kind !== 'bag'">
        <span>short of vents</span>
        <QuantityInput
          hide-label
          optional
          :label="`${word}, short of vents`"
          quantity="length"
          :limits="{ atLeast: 0, atMost: 5 }"
          :model-value="layer.covers.vent"
          @update:model-value="set({ ...layer.covers, vent: $event })"
        />
      </label>
    </template>
    <template v-else-if="layer.covers.kind === 'rim'">
      <label>
        <span>from</span>
        <QuantityInput
          hide-label
          :label="`${word}, from so far past the edge`"
          quantity="length"
          :limits="{ atLeast: -5, below: layer.covers.to }"
          :model-value="layer.covers.from"
          @update:model-value="set({ ...layer.covers, from: $event! })"
        />
      </label>
      <label>
        <span>to</span>
        <QuantityInput
          hide-label
          :label="`${word}, to so far past the edge`"
          quantity="length"
          :limits="{ above: layer.covers.from, atMost: 5 }"
          :model-value="layer.covers.to"
          @update:model-value="set({ ...layer.covers, to: $event! })"
        />
      </label>
    </template>
    <template v-else-if="layer.covers.kind === 'areas'">
      <span class="quiet">{{
        layer.covers.areas.length > 0
          ? layer.covers.areas.map(({ name }) => name).join(', ')
          : 'none yet: draw them under Lines'
      }}</span>
    </template>
    <template v-else>
      <Choice
        v-if="layer.covers.kind === 'lines'"
        class="of"
        size="small"
        :value="layer.covers.of"
        :options="ofOptions"
        :aria-label="`${word}: at which lines`"
        @change="set({ ...layer.covers, of: $event })"
      />
      <label v-if="layer.kind !== 'lines'">
        <span>wide</span>
        <QuantityInput
          hide-label
          :label="`${word}, width`"
          quantity="length"
          :limits="WIDTH"
          :model-value="layer.covers.width"
          @update:model-value="set({ ...layer.covers, width: $event! })"
        />
      </label>
    </template>
    <label v-if="layer.kind === 'bag'">
      <span>serves parts</span>
      <QuantityInput
        hide-label
        optional
        :label="`${word}, serves parts`"
        quantity="number"
        :limits="{ atLeast: 1, atMost: 1000 }"
        :refuse="(value) => (Number.isInteger(value) ? null : 'Count whole parts.')"
        :model-value="layer.uses"
        @update:model-value="job.apply(updateLayer(layer.id, { uses: $event }))"
      />
    </label>
    <label v-if="layer.kind === 'perforatedFilm' || layer.lap > 0">
      <span>laps</span>
      <QuantityInput
        hide-label
        :label="`${word}, laps`"
        quantity="length"
        :limits="{ atLeast: 0, below: 1 }"
        :model-value="layer.lap"
        @update:model-value="job.apply(updateLayer(layer.id, { lap: $event! }))"
      />
    </label>
  </div>
</template>

<style scoped>
.fields {
  display: flex;
  gap: 8px;
  align-items: end;
}
label {
  display: flex;
  flex-direction: column;
  width: 84px;
}
label :deep(input) {
  height: 26px;
  padding: 0 7px;
}
label span {
  font-size: 11px;
  color: var(--quiet);
  white-space: nowrap;
}
.of {
  width: 84px;
}
.quiet {
  font-size: 12px;
}
</style>
