<script setup lang="ts">
import type { EntryBody } from '@wick/contract/run/run';
import { handTurn } from '@wick/plan/infusion/card-valves';
import { openingNow } from '@wick/plan/infusion/infusion';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import PictureButton from './PictureButton.vue';
import { useLive } from './live.ts';
import { useWork } from './use-work.ts';

/** One tap each: bubbles, valves, resin, a note, a picture. */
const run = useRun();
const live = useLive();
const shop = useShopStore();
const { turned } = useWork();
const note = ref('');
/** By which a mark on the film, and a measured place, may be off, m. */
const AT_MARK = 0.008;
const typed = ref<{ x: number | null; y: number | null }>({ x: null, y: null });
function markTyped() {
  const { x, y } = typed.value;
  if (x !== null && y !== null) void live.marking.mark({ markId: null, x, y, doubt: AT_MARK });
  typed.value = { x: null, y: null };
}
const say = (body: EntryBody) => void run.say(body);
const lines = computed(() =>
  (live.job?.lines ?? [])
    .filter(({ kind }) => kind !== 'race')
    .map((line) => ({ line, opening: live.infusion ? openingNow(live.infusion, line) : 0 })),
);
const words = (opening: number) =>
  opening === 0 ? 'shut' : opening === 1 ? 'open' : `${Math.round(100 * opening)} %`;
async function turn(lineId: string, opening: number) {
  if (!live.job || !live.infusion) return;
  const valve = handTurn(live.job, live.infusion, lineId, opening);
  await run.say(valve);
  await turned(valve);
}
function write() {
  if (note.value.trim() === '') return;
  say({ kind: 'note', text: note.value.trim() });
  note.value = '';
}
const mass = (kind: 'batchPoured' | 'potLeft') => (value: number | null) => {
  if (value !== null) say({ kind, mass: value });
};
</script>

<template>
  <div class="buttons">
    <div class="row" role="group" aria-label="Bubbles">
      <span class="name">Bubbles</span>
      <Button @click="say({ kind: 'bubbles', where: 'inlet' })">at the inlet</Button>
      <Button @click="say({ kind: 'bubbles', where: 'outlet' })">in the outlet</Button>
      <Button @click="say({ kind: 'bubbles', where: 'bag' })">in the bag</Button>
    </div>
    <div v-for="{ line, opening } in lines" :key="line.id" class="row" role="group" :aria-label="line.name">
      <span class="name"
        >{{ line.name }} <small>{{ words(opening) }}</small></span
      >
      <Button :disabled="opening === 1" @click="turn(line.id, 1)">Open</Button>
      <Button v-if="line.kind === 'feed'" :disabled="opening === 0.5" @click="turn(line.id, 0.5)"
        >Throttle</Button
      >
      <Button :disabled="opening === 0" @click="turn(line.id, 0)">Clamp</Button>
    </div>
    <div class="row" role="group" aria-label="Front at">
      <span class="name">Front at</span>
      <Button
        v-for="mark in live.job?.marks ?? []"
        :key="mark.id"
        :disabled="live.infusion?.openedAt == null"
        @click="live.marking.mark({ markId: mark.id, x: mark.x, y: mark.y, doubt: AT_MARK })"
        >{{ mark.name }}</Button
      >
      <QuantityInput v-model="typed.x" label="x" quantity="length" optional :limits="{}" />
      <QuantityInput v-model="typed.y" label="y" quantity="length" optional :limits="{}" />
      <Button
        :disabled="typed.x === null || typed.y === null || live.infusion?.openedAt == null"
        @click="markTyped"
        >there</Button
      >
    </div>
    <div class="row" role="group" aria-label="Resin">
      <QuantityInput
        :model-value="null"
        label="Batch poured"
        quantity="mass"
        optional
        :limits="{ above: 0, below: 1000 }"
        @update:model-value="(value) => mass('batchPoured')(value)"
      />
      <QuantityInput
        :model-value="null"
        label="Left in the pot"
        quantity="mass"
        optional
        :limits="{ atLeast: 0, below: 1000 }"
        @update:model-value="(value) => mass('potLeft')(value)"
      />
      <Button v-if="live.pot !== null" @click="say({ kind: 'potLeft', mass: Math.max(0, live.pot) })"
        >Scale: {{ shop.show(Math.max(0, live.pot), 'mass') }}</Button
      >
    </div>
    <form class="row" @submit.prevent="write">
      <Input v-model:value="note" placeholder="note" aria-label="Note" :maxlength="1000" />
      <Button html-type="submit" :disabled="note.trim() === ''">Write it down</Button>
      <PictureButton :step-id="null" caption="The fill" />
    </form>
  </div>
</template>

<style scoped>
.buttons {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(320px, 1fr));
  gap: 6px 20px;
  align-items: end;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: end;
}
.name {
  min-width: 74px;
  min-height: 44px;
  display: inline-flex;
  flex-direction: column;
  justify-content: center;
  font-weight: 600;
  line-height: 1.1;
}
.name small {
  font-weight: 400;
  color: var(--quiet);
}
/* A place takes little room. */
[aria-label='Front at'] :deep(label) {
  width: 96px;
}
.row :deep(input[type='text']) {
  flex: 1 1 120px;
}
</style>
