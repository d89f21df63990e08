<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import { polygonOf } from '@wick/core/geometry/arcs';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import { likelyRole, type Drawing, type DrawnPart, type LayerRole } from '@wick/plan/files/drawings/drawing';
import type { Read } from '@wick/plan/files/read';
import Button from 'ant-design-vue/es/button';
import Checkbox from 'ant-design-vue/es/checkbox';
import Modal from 'ant-design-vue/es/modal';
import { computed, ref, shallowRef, watch } from 'vue';
import { fitViewport, pathOf, toScreen } from '../../board/viewport.ts';
import { incomingDrawing } from '../../data/incoming.ts';
import { readFile } from '../../data/read-file.ts';
import { withPatch } from '@wick/plan/part/edits';
import { addZone, withoutZones } from '@wick/plan/part/zones';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** Takes an outline with holes and zones from a drawing: which layers, which unit, and what is done about gaps. */
const job = useSession();
const shop = useShopStore();
const file = ref<HTMLInputElement | null>(null);
const fileName = ref('');
const drawing = shallowRef<Drawing | null>(null);
const fault = ref<string | null>(null);
const roles = ref<LayerRole[]>([]);
const unitLength = ref(1e-3);
const tolerance = ref(5e-4);
const closeGaps = ref(false);

const units = [
  { value: 1e-3, label: 'millimetres' },
  { value: 1e-2, label: 'centimetres' },
  { value: 1, label: 'metres' },
  { value: 0.0254, label: 'inches' },
  { value: 0.3048, label: 'feet' },
];
const unitOptions = computed(() => {
  const said = drawing.value?.unitLength;
  return said && !units.some(({ value }) => Math.abs(value / said - 1) < 1e-6)
    ? [{ value: said, label: 'as the file says' }, ...units]
    : units;
});
const roleOptions = [
  { value: 'part', label: 'outline and holes' },
  { value: 'zones', label: 'zones' },
  { value: 'ignored', label: 'left out' },
];

async function open(chosen: File | undefined | null) {
  if (!chosen) return;
  fileName.value = chosen.name;
  drawing.value = null;
  fault.value = null;
  const read = await readFile<'drawing'>({ kind: 'drawing', file: chosen });
  if (file.value) file.value.value = '';
  if (!read.ok) {
    fault.value = read.message;
    return;
  }
  roles.value = read.value.layers.map(({ name }) => likelyRole(name));
  if (!roles.value.includes('part')) roles.value = roles.value.map(() => 'part');
  const said = read.value.unitLength;
  unitLength.value =
    units.find(({ value }) => said && Math.abs(value / said - 1) < 1e-6)?.value ?? said ?? 1e-3;
  tolerance.value = 5e-4;
  closeGaps.value = false;
  drawing.value = read.value;
}
watch(
  incomingDrawing,
  (dropped) => {
    if (!dropped) return;
    incomingDrawing.value = null;
    void open(dropped);
  },
  { immediate: true },
);

const result = shallowRef<Read<DrawnPart> | null>(null);
const choice = computed(() => ({
  roles: [...roles.value],
  unitLength: unitLength.value,
  tolerance: tolerance.value,
  closeGaps: closeGaps.value,
}));
watch([drawing, choice], async ([drawn, chosen]) => {
  const made = drawn && (await readFile<'part'>({ kind: 'part', drawing: drawn, choice: chosen }));
  // Another choice may have been made meanwhile.
  if (drawing.value === drawn && choice.value === chosen) result.value = made;
});
const part = computed(() => (result.value?.ok ? result.value.value : null));
const size = { width: 420, height: 200 };
const openLines = computed(() =>
  (part.value?.open ?? []).map((chain) => chain.map(({ x, y }) => ({ x, y }))),
);
/** The part as it will be; while nothing closes, the open paths with a ring round each gap. */
const sketch = computed(() => {
  if (!part.value) return null;
  const { outline, holes, zones, gaps } = part.value;
  const polygon = outline ? polygonOf(outline) : null;
  const points = polygon ?? openLines.value.flat();
  if (points.length === 0) return null;
  const box = boundsOf(points);
  const view = fitViewport(box, size, 14);
  const paths = (rings: readonly (readonly Point[])[]) => rings.map((r) => pathOf(view, r, true)).join('');
  const show = (value: number) => shop.show(value, 'length');
  return {
    part: polygon ? paths([polygon, ...holes.map(polygonOf)]) : '',
    zones: polygon ? paths(zones.map((zone) => polygonOf(zone.outline))) : '',
    open: polygon ? '' : openLines.value.map((line) => pathOf(view, line, false)).join(''),
    gaps: polygon
      ? []
      : gaps.map(({ from, to }) => toScreen(view, { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 })),
    words: polygon
      ? `${show(box.maxX - box.minX)} × ${show(box.maxY - box.minY)}, ${holes.length} holes, ${zones.length} zones`
      : '',
  };
});

function use() {
  const taken = part.value;
  if (!taken?.outline) return;
  job.apply((document) => {
    const outlined = withPatch({ outline: taken.outline!, holes: taken.holes })(
      taken.zones.length > 0 ? withoutZones(document) : document,
    );
    return taken.zones.reduce((after, zone) => addZone(zone.outline, { name: zone.name })(after), outlined);
  });
  drawing.value = null;
}
const refuseTolerance = (value: number) => (value >= 0 && value <= 0.1 ? null : 'From 0 to 100 mm.');
</script>

<template>
  <Button size="small" @click="file?.click()">From a drawing</Button>
  <input
    ref="file"
    type="file"
    accept=".dxf,.svg,.geojson,.json"
    hidden
    aria-label="Drawing to take the outline from"
    @change="open(file?.files?.[0])"
  />
  <p v-if="fault" class="ember" role="alert">“{{ fileName }}” was not taken in. {{ fault }}</p>
  <Modal
    transition-name=""
    mask-transition-name=""
    :open="drawing !== null"
    :title="`Outline from “${fileName}”`"
    width="760px"
    ok-text="Use this outline"
    cancel-text="Leave the part as it is"
    :ok-button-props="{ disabled: !part?.outline }"
    @ok="use"
    @cancel="drawing = null"
  >
    <div v-if="drawing" class="columns">
      <div class="fields">
        <label>
          <span class="quiet">Drawn in</span>
          <Choice v-model:value="unitLength" aria-label="Unit of the drawing" :options="unitOptions" />
        </label>
        <QuantityInput
          label="Ends this near are joined"
          quantity="length"
          :model-value="tolerance"
          :refuse="refuseTolerance"
          @update:model-value="tolerance = $event ?? tolerance"
        />
        <h3>Layers</h3>
        <label v-for="(layer, i) in drawing.layers" :key="layer.name" class="layer">
          <span
            >{{ layer.name }} <span class="quiet">{{ layer.paths.length }} paths</span></span
          >
          <Choice
            v-model:value="roles[i]"
            size="small"
            :aria-label="`Layer ${layer.name}`"
            :options="roleOptions"
          />
        </label>
        <p v-if="drawing.skipped.length > 0" class="quiet">Left out: {{ drawing.skipped.join(', ') }}.</p>
      </div>
      <div>
        <svg v-bind="size" role="img" aria-label="The outline as it will be">
          <template v-if="sketch">
            <path :d="sketch.part" class="part" />
            <path :d="sketch.zones" class="zone" />
            <path :d="sketch.open" class="open" />
            <circle v-for="(gap, i) in sketch.gaps" :key="i" :cx="gap.x" :cy="gap.y" r="8" class="gap" />
          </template>
        </svg>
        <p v-if="sketch?.words" class="number" data-testid="drawn-size">{{ sketch.words }}</p>
        <p v-if="result && !result.ok" class="ember" role="alert">{{ result.message }}</p>
        <template v-if="part && (part.gaps.length > 0 || closeGaps)">
          <p v-if="part.gaps.length > 0" class="ember" role="alert" data-testid="gaps">
            {{ part.gaps.length === 1 ? 'One path does' : `${part.gaps.length} paths do` }} not close:
            <template v-for="(gap, i) in part.gaps.slice(0, 4)" :key="i">
              {{ i > 0 ? '; ' : '' }}{{ shop.show(gap.width, 'length') }} apart near
              {{ shop.show(gap.from.x, 'length') }}, {{ shop.show(gap.from.y, 'length') }}</template
            >. Close them here, or join ends that are farther apart.
          </p>
          <Checkbox v-model:checked="closeGaps">Close gaps with a straight edge</Checkbox>
        </template>
        <p v-if="part && !part.outline && part.gaps.length === 0" class="ember">
          No layer is taken for the outline. Choose one on the left.
        </p>
        <p v-if="part && part.beside > 0" class="quiet">
          {{ part.beside }} further closed paths lie beside the largest one and are left out.
        </p>
        <p class="quiet">
          Plies and lines stay; the outline and its holes are replaced. One undo brings the old ones back.
        </p>
      </div>
    </div>
  </Modal>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: 260px 1fr;
  gap: 24px;
}
.fields {
  display: grid;
  gap: 8px;
  align-content: start;
}
.fields label {
  display: flex;
  flex-direction: column;
}
.fields .layer {
  flex-direction: row;
  justify-content: space-between;
  align-items: center;
}
.layer select {
  width: 158px;
}
svg {
  background: #fbfaf6;
  border: 1px solid var(--rule);
}
.part {
  fill: #f2dfb4;
  fill-rule: evenodd;
  stroke: var(--ink);
}
.open {
  fill: none;
  stroke: var(--ink);
}
.gap {
  fill: none;
  stroke: var(--ember);
  stroke-width: 2;
}
.zone {
  fill: #c7770022;
  stroke: var(--ink);
  stroke-dasharray: 4 3;
}
</style>
