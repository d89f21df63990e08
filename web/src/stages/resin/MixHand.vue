<script setup lang="ts">
import type { EntryBody } from '@wick/contract/run/run';
import Button from 'ant-design-vue/es/button';
import { useRun } from '../../compute/use-desk.ts';

/** The hand of a rehearsal: it pours as long as it is held, and the scale suffers what is asked for. */
const run = useRun();
type Does = Extract<EntryBody, { kind: 'hand' }>['does'];
const hand = (does: Does, rate = 0) => run.say({ kind: 'hand', does, rate });
const streams = [
  { label: 'Pour', rate: 0.06 },
  { label: 'Thin stream', rate: 0.012 },
  { label: 'Drops', rate: 0.002 },
];
let pours = false;
function start(event: PointerEvent, rate: number) {
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  pours = true;
  void hand('pour', rate);
}
function stop() {
  if (pours) void hand('stop');
  pours = false;
}
/** By keys: once to pour, once more to stop. */
function key(event: KeyboardEvent, rate: number) {
  if (event.key !== 'Enter' && event.key !== ' ') return;
  event.preventDefault();
  if (pours) return stop();
  pours = true;
  void hand('pour', rate);
}
const suffer = (what: 'scaleDrifts' | 'scaleFlat' | 'bucketLeans' | 'none', amount = 0) =>
  run.say({ kind: 'trouble', what, placeId: null, amount });
</script>

<template>
  <section class="hand" aria-label="Hand of the rehearsal">
    <span class="quiet">Your hand in this rehearsal:</span>
    <Button @click="hand('bucket')">Bucket on the scale</Button>
    <Button
      v-for="{ label, rate } in streams"
      :key="label"
      class="pour"
      @pointerdown="start($event, rate)"
      @pointerup="stop"
      @pointercancel="stop"
      @keydown="key($event, rate)"
      >{{ label }}</Button
    >
    <span class="quiet">and its troubles:</span>
    <Button @click="suffer('scaleDrifts', 2e-4)">It drifts</Button>
    <Button @click="suffer('bucketLeans', 0.08)">The bucket leans</Button>
    <Button @click="suffer('scaleFlat')">Its battery is flat</Button>
    <Button @click="suffer('none')">All well again</Button>
  </section>
</template>

<style scoped>
.hand {
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border-top: 1px dashed var(--quiet);
  padding-top: 8px;
  font-size: 14px;
}
.hand :deep(button.ant-btn) {
  min-height: 44px;
  font-size: 14px;
  padding: 4px 10px;
}
.pour {
  touch-action: none;
}
</style>
