<script setup lang="ts">
import { materialOf, missingOf, partArea, stackOf } from '@wick/contract/forecast-input';
import type { Material, MaterialKind } from '@wick/contract/materials';
import { Button, Select } from 'ant-design-vue';
import { computed } from 'vue';
import { withLaminate, withPlies, withPly } from '../../state/job-edits.ts';
import { useJobStore } from '../../state/job-store.ts';
import { useShopStore } from '../../state/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import type { Stage } from '../stage.ts';
import PlyTable from './PlyTable.vue';
import StackDrawing from './StackDrawing.vue';

defineProps<{ stage: Stage; minute: number | null }>();
const job = useJobStore();
const shop = useShopStore();

const laminate = computed(() => job.document!.laminate);
/** The job's own copies first, then the library's others. */
const choices = (kind: MaterialKind): Material[] => {
  const own = job.document!.materials.filter((item) => item.kind === kind);
  return [...own, ...shop.ofKind(kind).filter((item) => !own.some((known) => known.id === item.id))];
};
const options = (kind: MaterialKind, none: string) => [
  { value: '', label: none },
  ...choices(kind).map((item) => ({ value: item.id, label: item.name })),
];
const result = computed(() => {
  if (missingOf(job.document!).some((item) => item.stage === 'laminate'))
    return { message: 'No plies yet. Add the first from the library.' };
  try {
    return { stack: stackOf(job.document!, shop.shop) };
  } catch (error) {
    return { message: (error as Error).message };
  }
});
const area = computed(() => partArea(job.document!.part));
const addOns = [
  ['coreId', 'core', 'Core', 'no core'],
  ['flowMeshId', 'flowMesh', 'Flow mesh', 'no mesh'],
  ['peelPlyId', 'peelPly', 'Peel ply', 'no peel ply'],
] as const;

/** Keeps the picker empty after each choice; undefined would let it remember the last one and ignore a second click on it. */
const nothingChosen = null as unknown as undefined;

function add(id: string) {
  const fabric = choices('fabric').find((item) => item.id === id);
  if (fabric) job.apply(withPly(fabric, laminate.value.plies.at(-1)?.angle ?? 0));
}
const setAddOn = (key: 'coreId' | 'flowMeshId' | 'peelPlyId', id: string) =>
  job.apply(withLaminate({ [key]: id === '' ? null : id }, shop.materials));
const refuseFraction = (value: number) =>
  value > 0.05 && value < 0.75 ? null : 'Fibre volumes under a bag lie between 5 and 75 %.';
</script>

<template>
  <div class="stage">
    <section class="bench">
      <h1>{{ stage.question }}</h1>
      <div class="columns">
        <div>
          <PlyTable
            :plies="laminate.plies"
            :name-of="(id) => materialOf(job.document!, id, 'fabric')?.name ?? id"
            :thicknesses="result.stack?.plies.map((ply) => ply.thickness) ?? []"
            @change="job.apply(withPlies($event))"
          />
          <div class="tools add">
            <Select
              :value="nothingChosen"
              placeholder="Add a ply from the library"
              aria-label="Add a ply from the library"
              class="wide"
              :options="choices('fabric').map((item) => ({ value: item.id, label: item.name }))"
              @change="add(String($event))"
            />
            <Button
              :disabled="laminate.plies.length === 0"
              @click="
                job.apply(
                  withPlies([
                    ...laminate.plies,
                    ...[...laminate.plies].reverse().map((ply, i) => ({
                      ...ply,
                      id: `mirror-${laminate.plies.length + i}-${Date.now() % 1e6}`,
                    })),
                  ]),
                )
              "
            >
              Mirror the stack
            </Button>
          </div>
          <div class="fields">
            <label v-for="[key, kind, label, none] in addOns" :key="key">
              <span class="quiet">{{ label }}</span>
              <Select
                :value="laminate[key] ?? ''"
                :options="options(kind, none)"
                :aria-label="label"
                @change="setAddOn(key, String($event))"
              />
            </label>
            <QuantityInput
              label="Fibre volume wanted"
              quantity="fraction"
              :model-value="laminate.fibreVolumeFraction"
              :assumed="result.stack?.fibreVolumeFraction"
              optional
              :refuse="refuseFraction"
              @update:model-value="job.apply(withLaminate({ fibreVolumeFraction: $event }, []))"
            />
          </div>
          <p class="quiet">
            Left empty, the fibre volume is what this vacuum presses: the fabrics share the pressure, not the
            fraction.
          </p>
        </div>
        <StackDrawing v-if="result.stack" :job="job.document!" :stack="result.stack" />
      </div>
    </section>
    <aside class="answer">
      <p v-if="result.message" class="ember" role="alert">{{ result.message }}</p>
      <template v-if="result.stack">
        <div class="quiet">laminate, {{ laminate.plies.length }} plies</div>
        <div class="number huge" data-testid="thickness">
          {{ shop.show(result.stack.laminateThickness, 'thickness') }}
        </div>
        <div class="row">
          <span>With core</span
          ><span class="number">{{ shop.show(result.stack.thickness, 'thickness') }}</span>
        </div>
        <div class="row">
          <span>Fibre volume</span
          ><span class="number">{{ shop.show(result.stack.fibreVolumeFraction, 'fraction') }}</span>
        </div>
        <div class="row">
          <span>Pressed with</span
          ><span class="number">{{ shop.show(result.stack.compactionPressure, 'gaugePressure') }}</span>
        </div>
        <div class="row">
          <span>Fibre a square metre</span
          ><span class="number">{{ shop.show(result.stack.fibreWeight, 'arealWeight') }}</span>
        </div>
        <div class="row">
          <span>Fibre in the part</span
          ><span class="number">{{ shop.show(result.stack.fibreWeight * area, 'mass') }}</span>
        </div>
        <div v-if="result.stack.coreWeight > 0" class="row">
          <span>Core in the part</span
          ><span class="number">{{ shop.show(result.stack.coreWeight * area, 'mass') }}</span>
        </div>
        <h3>How resin runs in it</h3>
        <div class="row">
          <span>Pores to fill</span
          ><span class="number">{{ shop.show(result.stack.storage * area, 'volume') }}</span>
        </div>
        <div class="row">
          <span>Flow carried by the mesh</span
          ><span class="number">{{ shop.show(result.stack.meshShare, 'fraction') }}</span>
        </div>
        <p class="quiet">
          Permeability is the least certain number here: a front timed on a test strip is worth more than any
          table.
        </p>
      </template>
    </aside>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(380px, 1fr) minmax(220px, 0.7fr);
  gap: 28px;
  margin-top: 10px;
}
.add {
  margin: 10px 0 18px;
}
.wide {
  width: 260px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.fields label {
  display: flex;
  flex-direction: column;
}
.fields .quiet {
  font-size: 12px;
}
.huge {
  font-size: 40px;
  line-height: 1.1;
}
</style>
