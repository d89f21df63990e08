<script setup lang="ts">
import { formatClock } from '@wick/core/units/format';
import { openingNow } from '@wick/plan/infusion/infusion';
import { WEAK_DRIVE } from '@wick/plan/infusion/live-clock';
import { rangeWords, reforecastWords } from '@wick/plan/infusion/words';
import { computed } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import { useLive } from './live.ts';
import WhatNow from './WhatNow.vue';

/** The last corner against gel, how sure, what the marks say, what is left in the pot. */
const live = useLive();
const shop = useShopStore();
const answer = computed(() => live.answer);
const minute = (seconds: number) => Math.round(seconds / 60);
const margin = computed(() => {
  if (!answer.value) return null;
  const { last, gelTime } = answer.value;
  return last.middle < Infinity ? minute(gelTime - last.middle) : null;
});
const tone = computed(() => {
  if (!answer.value) return 'quiet';
  if (answer.value.chance >= 0.95) return 'moss';
  return answer.value.chance >= 0.8 ? 'resin' : 'ember';
});
const words = computed(() => (answer.value ? reforecastWords(answer.value) : []));
const resinWords = computed(() => {
  const { resin } = live;
  if (!resin) return [];
  const mass = (value: number) => shop.show(value, 'mass');
  return [
    `${mass(resin.poured)} poured of ${mass(resin.needed)}; ${mass(resin.inPot)} in the pot${resin.isWeighed ? '' : ' by the forecast'}.`,
    ...(resin.dryAt === null || resin.short === 0
      ? []
      : [
          `The hose draws air at ${minute(resin.dryAt)} min: mix ${mass(resin.short)} by ${minute(resin.mixBy!)} min.`,
        ]),
  ];
});
const readings = computed(() => [
  { name: 'in the bag', value: live.pressure === null ? null : shop.show(live.pressure, 'absolutePressure') },
  { name: 'of the planned drive', value: live.drive === null ? null : `${Math.round(100 * live.drive)} %` },
  {
    name: 'on the mould',
    value: live.temperature === null ? null : shop.show(live.temperature, 'temperature'),
  },
  { name: 'in the pot', value: live.pot === null ? null : shop.show(Math.max(0, live.pot), 'mass') },
]);
/** Pressure is what drives it: said when much of it is missing. */
const weak = computed(() =>
  live.drive !== null && live.drive < WEAK_DRIVE
    ? `The bag holds ${Math.round(100 * live.drive)} % of the planned pressure: all minutes are counted with that.`
    : null,
);
/** Clamped while part of it is dry: said, for the minutes still count with a feed that gives. */
const isShut = computed(() => {
  const { infusion, job } = live;
  if (!infusion || !job || infusion.openedAt === null || infusion.allWetAt !== null) return false;
  return job.lines.every((line) => line.kind !== 'feed' || openingNow(infusion, line) === 0);
});
const isWet = computed(() => live.infusion?.allWetAt != null);
</script>

<template>
  <section class="infusion-answer">
    <template v-if="answer">
      <h2>{{ isWet ? 'It was wet' : 'Last corner' }}</h2>
      <p :class="['large number', tone]" data-testid="last-corner">{{ rangeWords(answer.last) }}</p>
      <p class="quiet">planned {{ rangeWords(answer.planned) }}</p>
      <p>
        Gel at <b>{{ formatClock(answer.gelTime) }}</b><template v-if="margin !== null"
          >, <b data-testid="margin">{{ margin }} min</b> in hand</template
        >.
      </p>
      <p v-if="!isWet" :class="tone">
        {{ Math.round(100 * answer.chance) }} in 100 that it is full before gel<template
          v-if="answer.marks.length === 0"
          >, by the plan alone</template
        ><template v-else
          >, after {{ answer.marks.length }} {{ answer.marks.length === 1 ? 'mark' : 'marks' }}</template
        >.
      </p>
      <p v-for="sentence in words" :key="sentence" class="said" data-testid="marks-say">{{ sentence }}</p>
    </template>
    <p v-else class="quiet">
      {{
        live.infusion?.contactAt == null
          ? 'The clock starts when resin and hardener meet.'
          : 'Working out in how many ways it may run …'
      }}
    </p>
    <p v-if="live.isRunningAgain" class="quiet">Running it again with what was turned …</p>
    <p v-else-if="live.isRunAgain" class="quiet">Run again with what was turned.</p>
    <p v-if="isShut" class="ember">
      Every feed is shut: only what lies behind the front still creeps. The minutes count with an open one.
    </p>
    <p v-if="live.clock && !live.clock.isKnown" class="ember">
      The part is warmer or colder than the resin’s data cover: minutes count with the last temperature that
      they do.
    </p>
    <p v-if="weak" class="ember">{{ weak }}</p>
    <WhatNow v-if="!isWet" />
    <h2>Resin</h2>
    <p v-for="sentence in resinWords" :key="sentence">{{ sentence }}</p>
    <p v-if="resinWords.length === 0" class="quiet">Nothing poured yet.</p>
    <dl>
      <template v-for="reading in readings" :key="reading.name">
        <div>
          <dd class="number">{{ reading.value ?? '–' }}</dd>
          <dt>{{ reading.name }}</dt>
        </div>
      </template>
    </dl>
  </section>
</template>

<style scoped>
h2 {
  font-size: 18px;
  margin: 10px 0 0;
}
h2:first-child {
  margin-top: 0;
}
p {
  margin: 2px 0 6px;
}
.large {
  font: 600 38px/1.05 var(--display);
}
.moss {
  color: var(--moss);
}
.resin {
  color: var(--resin-ink);
}
.said {
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
  margin: 10px 0 0;
}
dd {
  margin: 0;
  font: 600 20px var(--display);
}
dt {
  color: var(--quiet);
  font-size: 13px;
}
</style>
