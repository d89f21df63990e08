<script setup lang="ts">
import { useSession } from '../../compute/use-desk.ts';
import Button from 'ant-design-vue/es/button';
import Popover from 'ant-design-vue/es/popover';
import { computed, ref } from 'vue';
import { mirrorJob, mirrorRing, type RingRef } from '@wick/plan/part/edits';
import { bandAlong, copyRing, joinToPart, offsetRing, removeRing, zoneByOffset } from '@wick/plan/part/zones';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import Choice from '../../ui/Choice.vue';

/** What can be done with the chosen ring as a whole. */
const props = defineProps<{ ringRef: RingRef; name: string; corner: number | null }>();
const emit = defineEmits<{ removed: [] }>();
const grid = defineModel<number | null>('grid', { required: true });
const job = useSession();
const shop = useShopStore();
const margin = ref(0.05);
const isOffsetOpen = ref(false);
const fault = ref<string | null>(null);
const zoneId = computed(() => (props.ringRef.kind === 'zone' ? props.ringRef.id : null));

const GRIDS = [0.001, 0.005, 0.01, 0.025, 0.05, 0.1];
const gridOptions = computed(() => [
  { value: 0, label: 'No grid' },
  ...GRIDS.map((value) => ({ value, label: `Grid ${shop.show(value, 'length')}` })),
]);

/** A change that geometry may refuse: said beside the button, nothing changed. */
function attempt(change: Parameters<typeof job.apply>[0]) {
  fault.value = null;
  const before = job.laid;
  try {
    job.apply(change);
    if (job.laid === before) fault.value = 'Nothing is left of it that way. Take a smaller margin.';
    else isOffsetOpen.value = false;
  } catch (error) {
    fault.value = (error as Error).message;
  }
}
function mirror() {
  attempt(props.ringRef.kind === 'outline' ? mirrorJob : mirrorRing(props.ringRef));
}
function remove() {
  job.apply(removeRing(props.ringRef));
  emit('removed');
}
function join(operation: 'unite' | 'subtract') {
  if (!zoneId.value) return;
  attempt(joinToPart(zoneId.value, operation));
  emit('removed');
}
</script>

<template>
  <div class="tools">
    <Popover v-model:open="isOffsetOpen" trigger="click" placement="topRight">
      <Button size="small">Offset</Button>
      <template #content>
        <div class="fields">
          <QuantityInput
            label="Margin, below 0 inwards"
            quantity="length"
            :model-value="margin"
            @update:model-value="margin = $event ?? margin"
          />
          <Button size="small" @click="attempt(offsetRing(ringRef, margin))">Move {{ name }} by it</Button>
          <Button size="small" @click="attempt(zoneByOffset(ringRef, margin))">New zone at it</Button>
          <template v-if="corner !== null">
            <Button size="small" @click="attempt(bandAlong(ringRef, corner, Math.abs(margin), 'part'))">
              New zone along edge {{ corner + 1 }}
            </Button>
            <Button size="small" @click="attempt(bandAlong(ringRef, corner, Math.abs(margin), 'brake'))">
              New brake along edge {{ corner + 1 }}
            </Button>
          </template>
          <p v-else class="quiet">Choose a corner first for a band along the edge after it.</p>
          <p v-if="fault" class="ember" role="alert">{{ fault }}</p>
        </div>
      </template>
    </Popover>
    <Button size="small" @click="mirror">{{
      ringRef.kind === 'outline' ? 'Mirror the part' : 'Mirror'
    }}</Button>
    <Button size="small" @click="job.apply(copyRing(ringRef))">{{
      ringRef.kind === 'outline' ? 'Copy as zone' : 'Copy'
    }}</Button>
    <template v-if="zoneId">
      <Button size="small" @click="join('unite')">Add to part</Button>
      <Button size="small" @click="join('subtract')">Cut from part</Button>
    </template>
    <Button v-if="ringRef.kind !== 'outline'" size="small" danger @click="remove">Delete</Button>
    <Choice
      size="small"
      class="grid"
      aria-label="Grid to snap to"
      :value="grid ?? 0"
      :options="gridOptions"
      @change="grid = Number($event) || null"
    />
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 8px;
  width: 230px;
}
.fields p {
  margin: 0;
}
.grid {
  width: 116px;
}
</style>
