<script setup lang="ts">
import { forecastPot, largestBatch, SAFE_RISE } from '@wick/core/resin/pot';
import { endName } from '@wick/plan/forecast/words';
import { formatClock } from '@wick/core/units/format';
import type { RunConditions } from '@wick/core/verdict/verdict';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The resin that stays in the pot of a run: it heats itself, and gels sooner than in the laminate. */
const props = defineProps<{
  run: RunConditions;
  pot: NonNullable<RunConditions['pot']>;
  until: number;
}>();
const shop = useShopStore();

const forecast = computed(() => {
  const { resin, temperature, drift } = props.run;
  const base = { resin, start: temperature, ambient: props.pot.ambient, drift };
  try {
    return {
      whole: forecastPot({ ...base, mass: props.pot.mass }),
      largest: largestBatch({ ...base, until: props.until }),
    };
  } catch {
    return null;
  }
});
const endWords = computed(() => {
  const whole = forecast.value?.whole;
  if (!whole) return '';
  if (Number.isFinite(whole.gelTime)) return `gels ${formatClock(whole.gelTime)}`;
  return Number.isFinite(whole.knownUntil)
    ? `${endName({ endsUnknown: true })} ${formatClock(whole.knownUntil)}`
    : 'keeps for a day';
});
</script>

<template>
  <template v-if="forecast">
    <h3>Left in one pot</h3>
    <div class="row" data-testid="pot">
      <span>{{ shop.show(pot.mass, 'mass') }} at once, vents aside</span
      ><span class="number ember">{{ endWords }}</span>
    </div>
    <div class="row">
      <span>Largest batch to {{ formatClock(until) }}, warming by {{ SAFE_RISE }} K at most</span>
      <span class="number">{{
        forecast.largest === null
          ? 'under 50 g'
          : forecast.largest === Infinity
            ? 'any'
            : shop.show(forecast.largest, 'mass')
      }}</span>
    </div>
    <p class="quiet small">
      A full pot can smoke: spread what is left over, or set it outside on stone. A lumped estimate; heat of
      cure
      {{ run.resin.heatToGel ? 'as entered' : 'assumed' }}.
    </p>
  </template>
</template>

<style scoped>
.small {
  font-size: 12px;
  margin: 4px 0;
}
</style>
