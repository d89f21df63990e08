<script setup lang="ts">
import type { JobLayer, LayerCovers } from '@wick/contract/job/stack';
import { updateLayer } from '@wick/plan/stack/edits';
import { layerWord } from '@wick/plan/stack/kinds';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import JobField from '../common/JobField.vue';

/** How far a layer goes: its ends, or its width, and how much pieces of it lap. */
const props = defineProps<{ layer: JobLayer }>();
const job = useSession();
const word = computed(() => layerWord(props.layer.kind));
const ofOptions = [
  { value: 'feed', label: 'feeds' },
  { value: 'vent', label: 'vents' },
  { value: 'both', label: 'all lines' },
] as const;
const has = (kind: 'feed' | 'vent') => job.laid.lines.some((line) => line.kind === kind);
const set = (covers: LayerCovers) =>
  job.apply(updateLayer(props.layer.id, { covers }), `end of the ${word.value}`);

/** A length of the layer: its place in the schema, what stands over it, and how a reader hears it. */
interface Row {
  readonly path: string;
  readonly short: string;
  readonly label: string;
  readonly value: number | null;
  readonly assumed?: number;
  readonly refuse?: (value: number) => string | null;
  readonly set: (value: number | null) => void;
}
const rows = computed((): Row[] => [...coverRows(props.layer.covers), ...lapRows(props.layer)]);

function coverRows(covers: LayerCovers): Row[] {
  const row = (name: string, short: string, label: string, more: Partial<Row> = {}): Row => ({
    ...{ path: `layouts.layers.covers.${name}`, short, label },
    value: (covers as unknown as Record<string, number | null>)[name] ?? null,
    set: (value) => set({ ...covers, [name]: value } as LayerCovers),
    ...more,
  });
  switch (covers.kind) {
    case 'part':
      return [
        row('edge', 'past the edge', 'past the edge'),
        ...(has('feed') ? [row('feed', 'at feeds', 'past the edge at feeds', { assumed: covers.edge })] : []),
        ...(has('vent') && props.layer.kind !== 'bag'
          ? [row('vent', 'short of vents', 'short of vents')]
          : []),
      ];
    case 'rim':
      return [
        row('from', 'from', 'from so far past the edge', {
          refuse: (value) => (value < covers.to ? null : 'It begins nearer to the edge than it ends.'),
        }),
        row('to', 'to', 'to so far past the edge', {
          refuse: (value) => (value > covers.from ? null : 'It ends farther from the edge than it begins.'),
        }),
      ];
    case 'areas':
      return [];
    default:
      return props.layer.kind === 'lines' ? [] : [row('width', 'wide', 'width')];
  }
}

const lapRows = ({ id, kind, lap }: JobLayer): Row[] =>
  kind === 'perforatedFilm' || lap > 0
    ? [
        {
          ...{ path: 'layouts.layers.lap', short: 'laps', label: 'laps', value: lap },
          set: (value) => job.apply(updateLayer(id, { lap: value! })),
        },
      ]
    : [];
</script>

<template>
  <div class="fields">
    <span v-if="layer.covers.kind === 'areas'" class="quiet">{{
      layer.covers.areas.length > 0
        ? layer.covers.areas.map(({ name }) => name).join(', ')
        : 'none yet: draw them under Lines'
    }}</span>
    <Choice
      v-if="layer.covers.kind === 'lines'"
      class="of"
      size="small"
      :value="layer.covers.of"
      :options="ofOptions"
      :aria-label="`${word}: at which lines`"
      @change="set({ ...layer.covers, of: $event })"
    />
    <label v-for="row in rows" :key="row.path">
      <span>{{ row.short }}</span>
      <JobField
        hide-label
        :label="`${word}, ${row.label}`"
        :path="row.path"
        :model-value="row.value"
        :assumed="row.assumed"
        :refuse="row.refuse"
        @update:model-value="row.set"
      />
    </label>
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
