<script setup lang="ts">
import { forecastPot, largestBatch, SAFE_RISE } from '@wick/core/resin/pot';
import type { ResinSystem } from '@wick/core/resin/resin-system';
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The resin that stays in the pot: it heats itself, and gels sooner than in the laminate. */
const props = defineProps<{
  resin: ResinSystem;
  temperature: number;
  drift: number;
  mass: number | null;
  until: number;
}>();
const shop = useShopStore();

const pot = computed(() => {
  try {
    const base = {
      resin: props.resin,
      start: props.temperature,
      ambient: shop.shop.temperature,
      drift: props.drift,
    };
    const whole = props.mass ? forecastPot({ ...base, mass: props.mass }) : null;
    const warmest = whole?.curve.reduce((most, point) => Math.max(most, point.temperature), 0) ?? 0;
    return { whole, warmest, largest: largestBatch({ ...base, until: props.until }) };
  } catch {
    return null;
  }
});
const endWords = computed(() => {
  const whole = pot.value?.whole;
  if (!whole) return '';
  if (Number.isFinite(whole.gelTime)) return `gels in the pot ${formatClock(whole.gelTime)}`;
  return Number.isFinite(whole.knownUntil)
    ? `warmer than its data from ${formatClock(whole.knownUntil)}: not known`
    : 'keeps for a day';
});
</script>

<template>
  <template v-if="pot">
    <h3>Left in one pot</h3>
    <div v-if="pot.whole && mass" class="row" data-testid="pot">
      <span>{{ shop.show(mass, 'mass') }} at once, vents aside</span
      ><span class="number ember">{{ endWords }}</span>
    </div>
    <div class="row">
      <span>Largest batch to {{ formatClock(until) }}, warming by {{ SAFE_RISE }} K at most</span>
      <span class="number">{{
        pot.largest === null
          ? 'under 50 g'
          : pot.largest === Infinity
            ? 'any'
            : shop.show(pot.largest, 'mass')
      }}</span>
    </div>
    <p class="quiet small">
      A full pot can smoke: spread what is left over, or set it outside on stone. A lumped estimate; heat of
      cure
      {{ resin.heatToGel ? 'as entered' : 'assumed' }}.
    </p>
  </template>
</template>

<style scoped>
.small {
  font-size: 12px;
  margin: 4px 0;
}
</style>
