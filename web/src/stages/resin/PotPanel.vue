<script setup lang="ts">
import { orNull } from '@wick/core/model-error';
import { forecastPot, largestBatch, SAFE_RISE } from '@wick/core/resin/pot';
import { endName } from '@wick/plan/forecast/words';
import { formatClock } from '@wick/core/units/format';
import { computed } from 'vue';
import { useForecast } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** The resin that stays in the pot of a run: it heats itself, and gels sooner than in the laminate. */
const shop = useShopStore();
const forecast = useForecast();

/** Until it is used up: the last corner, or gel where that comes first. */
const until = computed(() => {
  const fill = forecast.verdict?.fillTime ?? Infinity;
  return Number.isFinite(fill) ? fill : (forecast.clock?.gelTime ?? 3600);
});
const found = computed(() => {
  const { run } = forecast;
  if (!run?.pot) return null;
  const { resin, temperature, drift, pot } = run;
  const base = { resin, start: temperature, ambient: pot.ambient, drift };
  return orNull(() => ({
    ...{ resin, pot },
    whole: forecastPot({ ...base, mass: pot.mass }),
    largest: largestBatch({ ...base, until: until.value }),
  }));
});
const endWords = computed(() => {
  const whole = found.value?.whole;
  if (!whole) return '';
  if (Number.isFinite(whole.gelTime)) return `gels ${formatClock(whole.gelTime)}`;
  return Number.isFinite(whole.knownUntil)
    ? `${endName({ endsUnknown: true })} ${formatClock(whole.knownUntil)}`
    : 'keeps for a day';
});
</script>

<template>
  <template v-if="found">
    <h3>Left in one pot</h3>
    <div class="row" data-testid="pot">
      <span>{{ shop.show(found.pot.mass, 'mass') }} at once, vents aside</span
      ><span class="number ember">{{ endWords }}</span>
    </div>
    <div class="row">
      <span>Largest batch to {{ formatClock(until) }}, warming by {{ SAFE_RISE }} K at most</span>
      <span class="number">{{
        found.largest === null
          ? 'under 50 g'
          : found.largest === Infinity
            ? 'any'
            : shop.show(found.largest, 'mass')
      }}</span>
    </div>
    <p class="quiet small">
      A full pot can smoke: spread what is left over, or set it outside on stone. A lumped estimate; heat of
      cure
      {{ found.resin.heatToGel ? 'as entered' : 'assumed' }}.
    </p>
  </template>
</template>

<style scoped>
.small {
  font-size: 12px;
  margin: 4px 0;
}
</style>
