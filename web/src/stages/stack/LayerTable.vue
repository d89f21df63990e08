<script setup lang="ts">
import { BASE, layerKinds, type JobLayer, type LayerCovers, type LayerKind } from '@wick/contract/job/stack';
import {
  addLayer,
  moveLayer,
  newLayer,
  removeLayer,
  updateLayer,
  usualCoversFor,
} from '@wick/plan/stack/edits';
import { isCutFrom, layerWord, materialKindOf } from '@wick/plan/stack/kinds';
import Button from 'ant-design-vue/es/button';
import { computed } from 'vue';
import { useSession } from '../../compute/use-desk.ts';
import Choice from '../../ui/Choice.vue';
import { useChoices } from '../common/use-choices.ts';
import CoverFields from './CoverFields.vue';

/** The layers in order of laying, bag on top as they lie: what each is cut from, what it covers, how far it laps. */
defineProps<{ selected: string | null }>();
const emit = defineEmits<{ select: [id: string | null] }>();
const job = useSession();
const choices = useChoices();

const rows = computed(() => [...job.laid.layers].reverse());
const materials = (kind: LayerKind) => {
  const wanted = materialKindOf(kind);
  return wanted === null ? [] : choices(wanted).filter((own) => isCutFrom(kind, own));
};
const materialOptions = (layer: JobLayer) => [
  { value: '', label: 'not chosen yet' },
  ...materials(layer.kind).map((own) => ({ value: own.id, label: own.name })),
];
const coverOptions: { value: LayerCovers['kind']; label: string }[] = [
  { value: 'part', label: 'whole part' },
  { value: 'areas', label: 'areas' },
  { value: 'lines', label: 'strips' },
  { value: 'ports', label: 'patches' },
  { value: 'rim', label: 'round it' },
];
const kindOptions = computed(() => [
  { value: '', label: 'Add a layer…' },
  ...layerKinds.map((value) => ({ value, label: layerWord(value) })),
]);
const brakes = computed(() => job.laid.zones.filter(({ purpose }) => purpose === 'brake'));
const places = computed(() => [
  { id: BASE, name: job.laid.zones.length > 0 ? 'main laminate' : 'laminate' },
  ...job.laid.zones.map(({ id, name }) => ({ id, name })),
]);
/** What resin runs in may lie on the mould as well. */
const canLieUnder = (kind: LayerKind) => kind === 'flowMesh' || kind === 'peelPly';
const offOptions = (layer: JobLayer) => [
  { value: '', label: layer.except.length > 0 ? `off on ${layer.except.length}` : 'on all' },
  ...places.value.map(({ id, name }) => ({
    value: id,
    label: layer.except.includes(id) ? `lay it on ${name}` : `leave it off on ${name}`,
  })),
];

function choose(layer: JobLayer, id: string) {
  const material = materials(layer.kind).find((own) => own.id === id) ?? null;
  job.apply(updateLayer(layer.id, { materialId: material?.id ?? null }, material));
}
function cover(layer: JobLayer, kind: LayerCovers['kind']) {
  job.apply(updateLayer(layer.id, { covers: usualCoversFor(kind, layer.kind) }));
}
function turn(layer: JobLayer, id: string) {
  if (!id) return;
  const except = layer.except.includes(id) ? layer.except.filter((own) => own !== id) : [...layer.except, id];
  job.apply(updateLayer(layer.id, { except }));
}
function add(kind: string) {
  if (!kind) return;
  const [material] = materials(kind as LayerKind);
  const layer = newLayer(kind as LayerKind, material?.id ?? null);
  job.apply(addLayer(layer, material ?? null));
  emit('select', layer.id);
}
/** Down the screen is towards the part. */
function onKey(event: KeyboardEvent, layer: JobLayer) {
  if (event.key === 'Delete') job.apply(removeLayer(layer.id));
  else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown'))
    job.apply(moveLayer(layer.id, event.key === 'ArrowUp' ? 1 : -1));
  else return;
  event.preventDefault();
}
</script>

<template>
  <table class="sheet">
    <thead>
      <tr>
        <th></th>
        <th>Layer, bag on top</th>
        <th>Cut from</th>
        <th>Lies on</th>
        <th>As far as</th>
        <th v-if="job.laid.zones.length > 0">Zones</th>
        <th></th>
      </tr>
    </thead>
    <tbody>
      <tr
        v-for="(layer, row) in rows"
        :key="layer.id"
        :class="{ chosen: layer.id === selected }"
        data-testid="layer"
        @focusin="emit('select', layer.id)"
        @pointerdown="emit('select', layer.id)"
      >
        <td>
          <span
            class="number grip"
            tabindex="0"
            role="button"
            :aria-label="`${rows.length - row}, ${layerWord(layer.kind)}: Alt and arrows to move, Delete to take it out`"
            @keydown="onKey($event, layer)"
            >{{ rows.length - row }}</span
          >
        </td>
        <td class="word">
          {{ layerWord(layer.kind) }}
          <button
            v-if="canLieUnder(layer.kind)"
            class="plain side quiet"
            :aria-label="`${layerWord(layer.kind)}: ${layer.side === 'bag' ? 'over' : 'under'} the plies, turn`"
            @click="
              job.apply(
                updateLayer(layer.id, { side: layer.side === 'bag' ? 'mould' : 'bag' }),
                `side of the ${layerWord(layer.kind)}`,
              )
            "
          >
            {{ layer.side === 'bag' ? 'over' : 'under' }} the plies
          </button>
        </td>
        <td class="cut">
          <Choice
            v-if="materialKindOf(layer.kind) !== null"
            size="small"
            :value="layer.materialId ?? ''"
            :options="materialOptions(layer)"
            :aria-label="`${layerWord(layer.kind)} is cut from`"
            @change="choose(layer, String($event))"
          />
          <span v-else class="quiet">as under Lines</span>
        </td>
        <td class="covers">
          <Choice
            size="small"
            :value="layer.covers.kind"
            :options="coverOptions"
            :aria-label="`${layerWord(layer.kind)} lies on`"
            @change="cover(layer, $event)"
          />
        </td>
        <td><CoverFields :layer="layer" /></td>
        <td v-if="job.laid.zones.length > 0" class="off">
          <Choice
            size="small"
            value=""
            :options="offOptions(layer)"
            :aria-label="`Zones of the ${layerWord(layer.kind)}`"
            @change="turn(layer, String($event))"
          />
        </td>
        <td class="actions">
          <Button
            size="small"
            type="text"
            :disabled="row === 0"
            :aria-label="`${layerWord(layer.kind)} further up`"
            @click="job.apply(moveLayer(layer.id, 1))"
            >↑</Button
          >
          <Button
            size="small"
            type="text"
            :disabled="row === rows.length - 1"
            :aria-label="`${layerWord(layer.kind)} further down`"
            @click="job.apply(moveLayer(layer.id, -1))"
            >↓</Button
          >
          <Button
            size="small"
            type="text"
            :aria-label="`Take out the ${layerWord(layer.kind)}`"
            @click="job.apply(removeLayer(layer.id))"
            >×</Button
          >
        </td>
      </tr>
      <tr v-for="zone in brakes" :key="zone.id" class="brake">
        <td></td>
        <td class="word">brake</td>
        <td colspan="2">{{ zone.name }}: {{ zone.laminate.plies.length }} plies</td>
        <td class="quiet">
          drawn on the plan under <RouterLink :to="`/jobs/${job.id}/lines`">Lines</RouterLink>
        </td>
        <td v-if="job.laid.zones.length > 0"></td>
        <td></td>
      </tr>
    </tbody>
  </table>
  <Choice
    class="add"
    size="small"
    value=""
    :options="kindOptions"
    aria-label="Add a layer"
    @change="add(String($event))"
  />
</template>

<style scoped>
.grip {
  cursor: pointer;
  padding: 2px 6px;
}
.word {
  font: 500 14px var(--display);
  white-space: nowrap;
}
.side {
  display: block;
  font: 400 12px var(--text);
  text-decoration: underline dotted;
}
.cut {
  width: 168px;
}
.covers {
  width: 108px;
}
.off {
  width: 92px;
}
.chosen td {
  background: #f2e4c4;
}
.actions {
  white-space: nowrap;
  text-align: right;
}
.add {
  width: 150px;
  margin: 8px 0;
}
</style>
