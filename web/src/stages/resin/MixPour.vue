<script setup lang="ts">
import { hardenerWord } from '@wick/plan/resin/ratio';
import { weighed } from '@wick/plan/resin/sheet';
import Button from 'ant-design-vue/es/button';
import { computed, ref } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import Choice from '../../ui/Choice.vue';
import QuantityInput from '../../ui/QuantityInput.vue';
import { useMix } from './use-mix.ts';

/** The scale live, and what is still to pour, as large as it goes. */
const mix = useMix();
const shop = useShopStore();
const show = (mass: number) => weighed(mass, shop.shop, mix.step);
const wordOf = (what: 'resin' | 'hardener') => (what === 'hardener' ? hardenerWord(mix.sheet!.resin) : what);
const isTare = computed(() => mix.state?.at === 'tare');
/** Nothing shows: either the bucket is not on it yet, or the scale was set to zero with it. */
const isEmpty = computed(() => mix.shown !== null && Math.abs(mix.shown) < 3 * mix.step);
const isTyped = computed(() => !mix.scale || mix.trouble === 'silent');
const scales = computed(() => mix.scales.map(({ id, name }) => ({ value: id, label: name })));
/** Filled to its mark at two thirds of the width, so that there is room to see what is too much. */
const MARK = 2 / 3;
const share = (mass: number) => `${Math.min(100, (100 * MARK * mass) / (mix.next?.mass || 1))}%`;
const typedCount = ref(0);
async function typed(mass: number | null) {
  if (mass === null || mass <= 0) return;
  await mix.take(mass, true);
  typedCount.value += 1;
}
/** With what has to be added it would not go into its bucket any more. */
const isTooMuch = computed(() => {
  const { bucket, batch } = mix.sheet!;
  return bucket !== null && mix.answer !== null && (mix.answer.total / batch.mass) * bucket.filled > 0.95;
});
const troubles = {
  silent: 'The scale says nothing: look at its battery and its cable. Until it does, type what you poured.',
  fell: 'The scale fell: does the bucket lean or touch something? Set it free and wait. Nothing is ever taken out.',
  creeps:
    'The scale creeps though nothing is poured: a draught, or its battery. Take the bucket off, zero the scale itself, and set it to zero here again.',
} as const;
</script>

<template>
  <section aria-label="Pour by the scale">
    <template v-if="isTare">
      <p class="what">Empty bucket on the scale</p>
      <p class="left number" data-testid="scale">{{ mix.isRead ? show(mix.shown!) : '–' }}</p>
      <p class="quiet">On firm level ground, touching nothing, out of the draught.</p>
      <Button v-if="isTyped" type="primary" size="large" @click="mix.tare(0, true)"
        >I set the scale to zero itself</Button
      >
      <Button v-else-if="!mix.isStill" size="large" disabled>Wait until it stands still</Button>
      <Button v-else-if="isEmpty" size="large" @click="mix.tare(mix.shown!, false)">
        The bucket is on it, and it shows zero
      </Button>
      <Button v-else type="primary" size="large" @click="mix.tare(mix.shown!, false)">Set to zero</Button>
    </template>
    <template v-else-if="mix.next && mix.pour">
      <p class="what">
        {{ mix.next.isCorrection ? 'Add' : 'Pour' }} {{ wordOf(mix.next.what) }}, {{ show(mix.next.mass) }} in
        all
      </p>
      <p :class="['left', 'number', mix.pour.tone]" data-testid="left">
        {{ mix.pour.left >= 0 ? show(mix.pour.left) : show(-mix.pour.left) }}
        <small>{{ mix.pour.left >= 0 ? 'still to pour' : 'more than its mark' }}</small>
      </p>
      <div class="gauge" role="img" :aria-label="`${show(mix.amount)} of ${show(mix.next.mass)} poured`">
        <span
          class="good"
          :style="{
            left: share(mix.next.from),
            width: `calc(${share(Math.min(mix.next.to, 1.5 * mix.next.mass))} - ${share(mix.next.from)})`,
          }"
        ></span>
        <span :class="['fill', mix.pour.tone]" :style="{ width: share(mix.amount) }"></span>
        <span class="mark" :style="{ left: share(mix.next.mass) }"></span>
      </div>
      <p class="quiet">
        <template v-if="!isTyped">On the scale {{ show(mix.amount) }}. </template>Good from
        {{ show(mix.next.from) }} to {{ show(mix.next.to) }}.
      </p>
      <p v-if="mix.answer" class="ember say" role="alert" data-testid="over">
        Too much {{ wordOf(mix.next.what) }}. Leave it in: take it as it is, then add
        {{ show(mix.answer.mass) }} of {{ wordOf(mix.answer.what) }}; {{ show(mix.answer.total) }} in all.
        <template v-if="isTooMuch">That is more than its bucket holds: have a larger one at hand.</template>
      </p>
      <QuantityInput
        v-if="isTyped"
        :key="typedCount"
        class="typed"
        :label="`${wordOf(mix.next.what)} poured, as the scale shows it`"
        quantity="mass"
        unit="g"
        :model-value="null"
        optional
        @update:model-value="typed"
      />
      <Button
        v-else
        :type="mix.pour.tone === 'under' ? 'default' : 'primary'"
        size="large"
        :disabled="!mix.isStill || mix.amount < mix.step"
        @click="mix.take(mix.amount, false)"
      >
        {{
          mix.isStill ? `Take ${show(mix.amount)} of ${wordOf(mix.next.what)}` : 'Wait until it stands still'
        }}
      </Button>
    </template>
    <p v-if="mix.trouble" class="ember" role="alert" data-testid="scale-trouble">
      {{ troubles[mix.trouble] }}
    </p>
    <label v-if="scales.length > 1" class="scale">
      <span class="quiet">Scale</span>
      <Choice
        aria-label="Scale"
        :value="mix.scale!.id"
        :options="scales"
        @change="mix.chosenScale = $event"
      />
    </label>
    <p v-else-if="scales.length === 0" class="quiet">
      No scale with a cable here: type what yours shows, or add it under Vacuum, Gauges.
    </p>
  </section>
</template>

<style scoped>
.what {
  font: 600 26px/1.2 var(--display);
  margin: 12px 0 0;
}
.left {
  font-size: 92px;
  line-height: 1.05;
  margin: 0;
}
.left small {
  font: 400 22px var(--text);
}
.left.good {
  color: var(--moss);
}
.left.over {
  color: var(--ember);
}
.gauge {
  position: relative;
  height: 34px;
  background: var(--sheet);
  border: 1px solid var(--rule);
  margin: 6px 0;
}
.gauge span {
  position: absolute;
  top: 0;
  bottom: 0;
}
.gauge .good {
  background: #cfe0d3;
}
.gauge .fill {
  left: 0;
  top: 8px;
  bottom: 8px;
  background: var(--resin);
}
.gauge .fill.good {
  background: var(--moss);
}
.gauge .fill.over {
  background: var(--ember);
}
.gauge .mark {
  width: 3px;
  background: var(--ink);
}
.say {
  font: 600 20px/1.3 var(--display);
}
.typed,
.scale {
  display: block;
  max-width: 360px;
  margin: 10px 0;
}
</style>
