<script setup lang="ts">
import NewerValues from '../common/NewerValues.vue';
import { allMeasuredHere } from '@wick/plan/review/learned-values';
import { vacuumCautions } from '@wick/plan/vacuum/cautions';
import { useForecast, useSession, useUnentered } from '../../compute/use-desk.ts';
import { assumptionsOf } from '@wick/plan/settle';
import { formatClock } from '@wick/core/units/format';
import { runsOnClock } from '@wick/plan/forecast/problem';
import {
  bandTones,
  dryName,
  findingWords,
  inputWords,
  likelyWords,
  endName,
  lagWarning,
  unenteredWords,
  usedWords,
  verdictSentence,
} from '@wick/plan/forecast/words';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';

/** The answer: last corner, its doubt, the band, what would change it most, and what it rests on. */
const forecast = useForecast();
const job = useSession();
const shop = useShopStore();

const fills = computed(() => forecast.verdict !== null && Number.isFinite(forecast.verdict.fillTime));
const used = computed(() => (forecast.verdict ? usedWords(forecast.verdict) : []));
const tone = computed(() => (forecast.verdict ? bandTones[forecast.verdict.band] : 'ember'));
const minutes = (time: number) => Math.round(time / 60);
const effects = computed(() => forecast.effects.slice(0, 4));
const effectWords = ({ fillTime, gelTime }: { fillTime: number; gelTime: number }) =>
  Number.isFinite(fillTime)
    ? `${minutes(fillTime)} min, gel ${minutes(gelTime)}`
    : `gels first, at ${minutes(gelTime)}`;
const findings = computed(() => [
  ...vacuumCautions(job.laid, shop.shop, shop.show),
  ...(forecast.bandWithoutLag && forecast.verdict
    ? [lagWarning(forecast.bandWithoutLag, forecast.verdict.band)]
    : []),
  ...(forecast.flow?.findings ?? []).map((finding) =>
    findingWords(finding, { clock: clockWords, show: shop.show, nameOf: forecast.nameOf }),
  ),
]);
const clockWords = (time: number) => {
  const at = forecast.timeOf(time);
  return Number.isFinite(at) ? formatClock(at) : 'after gel';
};
const lagWords = computed(() => {
  const flow = forecast.flow;
  return flow?.lag
    ? `mesh, plies and core as ${flow.layers.length} layers: the mould side lags by up to ${shop.show(flow.lag.largest, 'length')}`
    : null;
});
const runsOnTheClock = computed(() => runsOnClock(job.laid));
const unentered = useUnentered();
const effectOf = (item: (typeof unentered.items)[number]) => {
  const effect = unentered.effects.get(item.id);
  return effect ? unenteredWords(item, effect) : `could be ${item.range}`;
};
/** What the workshop has measured itself of what is laid and mixed. */
const measured = computed(() => allMeasuredHere(job.laid.materials));
const assumptions = computed(() => assumptionsOf(job.laid, shop.shop));
const place = (p: { x: number; y: number }) => `${shop.show(p.x, 'length')}, ${shop.show(p.y, 'length')}`;
</script>

<template>
  <section aria-label="Verdict" aria-live="polite">
    <template v-if="forecast.verdict && forecast.flow">
      <div class="quiet">last corner wet, from first mix</div>
      <div class="big number" data-testid="fill-time">
        <template v-if="fills">{{ minutes(forecast.verdict.fillTime) }}<small> min</small></template>
        <template v-else>never</template>
      </div>
      <div class="quiet">
        likely {{ likelyWords(forecast.verdict) }} · {{ endName(forecast.verdict) }} at
        <b class="ember number">{{ minutes(forecast.verdict.gelTime) }}</b>
      </div>
      <p :class="['sentence', tone]" data-testid="verdict">{{ verdictSentence(forecast.verdict) }}</p>
      <div v-if="used.length > 0" class="used" data-testid="used">
        <div v-for="{ share, what } in used" :key="what">
          <div class="number">{{ share }}</div>
          <div class="quiet">{{ what }}</div>
        </div>
      </div>
      <slot name="mend" />
      <div v-if="forecast.progress !== null" class="quiet">
        refining, {{ Math.round(100 * forecast.progress) }} %
        <button class="plain link" @click="forecast.cancel()">keep the quick one</button>
      </div>
      <div v-else-if="!forecast.solved?.isFine" class="quiet">quick forecast while you move things</div>
      <template v-if="forecast.flow.dryRegions.length > 0">
        <h3 class="ember">Air cut off from every vent</h3>
        <div v-for="(region, i) in forecast.flow.dryRegions.slice(0, 4)" :key="region.id" class="row">
          <span
            >{{ dryName(i) }}: {{ shop.show(region.area, 'area') }} near {{ place(region.place) }}, pressed to
            {{ shop.show(region.finalArea, 'area') }}</span
          >
          <span class="number">{{ formatClock(forecast.timeOf(region.time)) }}</span>
        </div>
        <p class="quiet small">
          A vent there, or a feed moved so that the front ends at a vent, lets the air out.
        </p>
      </template>
      <template v-if="findings.length > 0">
        <h3>Look at</h3>
        <p v-for="text in findings" :key="text" class="small finding">{{ text }}</p>
      </template>
      <template v-if="effects.length > 0">
        <h3>What would change it most</h3>
        <div v-for="effect in effects" :key="effect.label" class="row">
          <span>{{ effect.label }}</span>
          <span class="number">{{ effectWords(effect) }}</span>
        </div>
        <p v-if="forecast.leastSure" class="quiet small">
          Least sure: {{ inputWords[forecast.leastSure] }}. A further or better placed feed often does more
          than any of these.
        </p>
      </template>
    </template>
    <p v-else class="waiting">{{ forecast.message ?? 'Working out where the front goes …' }}</p>
    <NewerValues :kinds="['fabric', 'flowMesh', 'core', 'peelPly', 'resin']" />
    <h3>Rests on</h3>
    <ul>
      <li v-if="lagWords">{{ lagWords }}</li>
      <li v-else>mesh and laminate averaged: the front on the mould side lags behind this</li>
      <li v-if="runsOnTheClock">
        times or temperatures set on the clock: the likely range is read as if the whole run stretched alike;
        sample the doubt for better
      </li>
      <li v-for="item in assumptions" :key="item.label">
        {{ item.label.toLowerCase() }}
        <span class="assumed number">{{ shop.show(item.value, item.quantity) }}</span>
        <span class="quiet"> ({{ item.reason }})</span>
      </li>
      <li v-for="words in measured" :key="words" data-testid="measured-here">{{ words }}</li>
      <li v-for="item in unentered.items" :key="item.id">
        {{ item.label }} <span class="assumed number">{{ item.taken }}</span>
        <span class="quiet"> (no entry says, from memory): {{ effectOf(item) }}</span>
      </li>
    </ul>
  </section>
</template>

<style scoped>
.used {
  display: grid;
  grid-template-columns: 1.3fr 1fr 1fr;
  gap: 8px;
  margin: 6px 0;
  font-size: 12px;
}
.used .number {
  font-size: 19px;
}
.big {
  font-size: 52px;
  line-height: 1.05;
}
.big small {
  font-size: 24px;
}
.sentence {
  font: 600 15px/1.35 var(--display);
  margin: 8px 0;
}
.amber {
  color: var(--resin-ink);
}
.finding {
  color: var(--ember);
}
.small {
  font-size: 12px;
  margin: 4px 0;
}
.waiting {
  font: 600 17px/1.35 var(--display);
}
.link {
  text-decoration: underline;
}
ul {
  margin: 0;
  padding-left: 16px;
  font-size: 13px;
}
.assumed {
  border-bottom: 2px dotted var(--resin);
}
</style>
