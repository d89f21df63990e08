<script setup lang="ts">
import { createResinClock } from '@wick/core/resin/resin-clock';
import { formatClock } from '@wick/core/units/format';
import { settle } from '@wick/plan/settle';
import { computed } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import NewerValues from '../common/NewerValues.vue';
import { useBench } from './bench.ts';
import { ratiosDisagree } from '@wick/plan/resin/ratio';

/** How long the chosen system stays thin on this job's clock. */
const bench = useBench();
const job = useSession();
const shop = useShopStore();
const forecast = useForecast();
const temperature = computed(() => settle(job.laid, shop.shop)['resin.temperature'].value);
/** Resin that has left the pot no longer warms itself. */
const filmWords = computed(() => {
  if (!bench.system) return '';
  try {
    return formatClock(createResinClock(bench.system, temperature.value).gelTime);
  } catch {
    return 'not known';
  }
});
const fillTime = computed(() => {
  const time = forecast.verdict?.fillTime ?? Infinity;
  return Number.isFinite(time) ? time : null;
});
const disagree = computed(() => bench.system && ratiosDisagree(bench.system));
/** What its sheet does not say, and what is taken instead. */
const gaps = computed(() => {
  const own = bench.system;
  if (!own || own.kinetics) return [];
  return [
    own.gelPoints.length === 1 &&
      'Its sheet gives one gel time only, so other temperatures follow a usual slope.',
    own.gelViscosityRatio === null && 'It is taken to be 20 times thicker at gel.',
    own.gelPoints.length > 0 &&
      own.gelMass == null &&
      'Nobody has said whether its gel times are of a thin film or of a pot: a thin film is taken.',
  ].filter((text) => text !== false);
});
</script>

<template>
  <template v-if="forecast.clock && bench.system">
    <div class="quiet">
      {{ forecast.clock.endsUnknown ? 'its pot leaves the data, from first mix' : 'gels, from first mix' }}
    </div>
    <div class="number huge">{{ Math.round(forecast.clock.gelTime / 60) }}<small> min</small></div>
    <div v-if="forecast.verdict" class="row">
      <span>Usable, as the workshop judges it</span
      ><span class="number">{{ formatClock(forecast.verdict.usableTime) }}</span>
    </div>
    <div class="row">
      <span>A thin film of it gels</span><span class="number">{{ filmWords }}</span>
    </div>
    <div class="row">
      <span>Feed opens</span><span class="number">{{ formatClock(forecast.before!.open) }}</span>
    </div>
    <div v-if="fillTime !== null" class="row">
      <span>Last corner</span><span class="number">{{ formatClock(fillTime) }}</span>
    </div>
    <div class="row">
      <span>Viscosity when fresh</span
      ><span class="number">{{ shop.show(forecast.clock.viscosityAt(0), 'viscosity') }}</span>
    </div>
    <div class="row">
      <span>When the feed opens</span
      ><span class="number">{{
        shop.show(forecast.clock.viscosityAt(forecast.before!.open), 'viscosity')
      }}</span>
    </div>
    <div v-if="fillTime !== null" class="row">
      <span>At the last corner</span
      ><span class="number">{{ shop.show(forecast.clock.viscosityAt(fillTime), 'viscosity') }}</span>
    </div>
    <div v-if="bench.ledger" class="row">
      <span>Resin to mix</span
      ><span class="number" data-testid="resin-mass">{{ shop.show(bench.ledger.total, 'mass') }}</span>
    </div>
    <p v-if="disagree" class="ember" role="alert">{{ disagree }}</p>
    <p v-if="gaps.length > 0" class="quiet">{{ gaps.join(' ') }} The range is wider for it.</p>
  </template>
  <NewerValues :kinds="['resin']" />
  <p class="quiet">
    Skin and eyes: gloves and glasses from the first opened can, and never peroxide near accelerator. Follow
    the safety data sheet and your site’s rules.
  </p>
</template>

<style scoped>
.huge {
  font-size: 40px;
  line-height: 1.1;
}
.huge small {
  font-size: 20px;
}
</style>
