<script setup lang="ts">
import type { WarmingKind } from '@wick/contract/run/infusion-bodies';
import { cureTouchWords, type CureWindow } from '@wick/plan/infusion/cure';
import { heatWords, type HeatForecast } from '@wick/plan/infusion/heat';
import { warmingWords } from '@wick/plan/infusion/names';
import Button from 'ant-design-vue/es/button';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRun, useScheduler, useSession } from '../../compute/use-desk.ts';
import { Cancelled } from '../../compute/scheduler.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { weekClock } from '../../ui/day-clock.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import HeatCurve from './HeatCurve.vue';
import { useLive } from './live.ts';

/** From the last corner to demould: how far the cure is at its coldest place, what it still needs, how warm the thickest place gets. */
const run = useRun();
const live = useLive();
const job = useSession();
const shop = useShopStore();
const scheduler = useScheduler();
const cure = computed(() => live.cure);
const zero = computed(() => live.infusion?.contactAt ?? 0);
const HOUR = 3600;
const span = (seconds: number) =>
  seconds < 2 * HOUR ? `${Math.round(seconds / 60)} min` : `${(seconds / HOUR).toFixed(1)} h`;
const when = (seconds: number) =>
  seconds === Infinity ? 'not at this warmth' : weekClock(zero.value + 1000 * seconds);
const left = (seconds: number) => {
  const rest = seconds - (cure.value?.now ?? 0);
  return seconds === Infinity ? '' : rest > 0 ? `in ${span(rest)}` : `${span(-rest)} ago`;
};
const share = computed(() => (cure.value ? Math.min(1, cure.value.gelShare) : 0));
const rows = computed(() => {
  if (!cure.value) return [];
  const { gelsAt, holdUntil, demould, recoat, bond } = cure.value;
  const window = (name: string, { opensAt, closesAt, basis }: CureWindow) => ({
    ...{ name, at: opensAt, note: `${closesAt === null ? '' : `closes ${when(closesAt)}; `}by ${basis}` },
  });
  return [
    {
      name: 'Gel at the coldest place',
      at: gelsAt,
      note: `${shop.show(cure.value.coldest, 'temperature')} there`,
    },
    { name: 'Vacuum until', at: holdUntil, note: 'to gel and a quarter more' },
    window('Demould from', demould),
    ...(recoat ? [window('Recoat from', recoat)] : []),
    ...(bond ? [window('Bond from', bond)] : []),
  ];
});

const heat = shallowRef<HeatForecast | null>(null);
const message = ref<string | null>(null);
const warming = computed(() => live.infusion?.warming ?? { is: 'none' as const, temperature: null });
const request = computed(() => {
  if (!live.job || !live.answer || !live.clock) return null;
  const { clock, run: conditions } = live.clock;
  const fullAt = Math.min(live.answer.last.middle, 0.98 * clock.gelTime);
  const from = { temperature: live.temperature ?? conditions.temperature, gelShare: clock.ageAt(fullAt) };
  const rounded = {
    temperature: Math.round(from.temperature),
    gelShare: Math.round(20 * from.gelShare) / 20,
  };
  const { is, temperature } = warming.value;
  return { job: live.job, shop: live.shop, from: rounded, warming: { is, temperature } };
});
const key = computed(() =>
  request.value
    ? `heat ${job.id} ${JSON.stringify([request.value.from, request.value.warming, request.value.job.laminate])}`
    : null,
);
watch(
  key,
  async (now) => {
    if (now === null || !request.value) return;
    try {
      message.value = null;
      heat.value = await scheduler.want(now, { kind: 'heat', request: request.value }, { lane: 'board' });
    } catch (error) {
      if (!(error instanceof Cancelled)) message.value = (error as Error).message;
    }
  },
  { immediate: true },
);
const said = computed(() => heat.value && heatWords(heat.value));
const kinds: readonly WarmingKind[] = ['none', 'blanket', 'lamps', 'tent'];
const cautions: Readonly<Record<WarmingKind, string>> = {
  none: '',
  blanket:
    'Its own thermostat and a thermometer under it; never over dry bag film alone, never near solvent.',
  lamps: 'They heat a spot: distance, a thermometer under it, somebody there; never near solvent.',
  tent: 'Air has to move in it; no open flame, no solvent; vapour gathers: air it before anybody goes in.',
};
const setTo = ref<number | null>(null);
const warm = (is: WarmingKind) =>
  void run.say({ kind: 'warming', is, temperature: is === 'none' ? null : setTo.value });
</script>

<template>
  <p v-if="!cure" class="quiet">The cure clock starts when resin and hardener meet.</p>
  <div v-else class="cure">
    <section class="head">
      <div>
        <p class="large number" data-testid="gel-share">{{ Math.round(100 * cure.gelShare) }} %</p>
        <small class="quiet">of the way to gel, at the coldest place</small>
      </div>
      <div class="bar" role="img" :aria-label="`${Math.round(100 * share)} % of the way to gel`">
        <i :style="{ width: `${100 * share}%` }"></i>
      </div>
      <p>
        A spot of the same resin: <b>{{ cureTouchWords[cure.touch] }}</b>.
        <template v-if="cure.glass"
          >Glassy below {{ shop.show(cure.glass.temperature, 'temperature') }} by now; at this warmth it
          stands still at {{ Math.round(100 * cure.glass.stallsAt) }} % cured.</template
        >
      </p>
    </section>
    <table>
      <tbody>
        <tr v-for="row in rows" :key="row.name">
          <th scope="row">{{ row.name }}</th>
          <td class="number">{{ when(row.at) }}</td>
          <td>{{ left(row.at) }}</td>
          <td class="quiet">{{ row.note }}</td>
        </tr>
      </tbody>
    </table>
    <section>
      <h2>The thickest place</h2>
      <p v-if="message" class="ember" role="alert">{{ message }}</p>
      <template v-if="heat">
        <p :class="said ? (said.level === 'warm' ? 'resin' : 'ember') : ''" data-testid="heat">
          {{
            said?.words ??
            `${heat.name} stays within ${Math.max(1, Math.round(heat.course.peak.temperature - heat.start))} K of where it starts.`
          }}
        </p>
        <HeatCurve :forecast="heat" />
      </template>
      <p v-else-if="!message" class="quiet">Worked out once the resin is mixed and the front is known.</p>
    </section>
    <section>
      <h2>Help it along</h2>
      <div class="row">
        <QuantityInput
          v-model="setTo"
          label="Set to"
          quantity="temperature"
          optional
          :limits="{ above: 233, below: 473 }"
        />
        <Button
          v-for="kind in kinds"
          :key="kind"
          :type="warming.is === kind ? 'primary' : 'default'"
          :disabled="!run.run"
          @click="warm(kind)"
          >{{ warmingWords[kind] }}</Button
        >
      </div>
      <p class="ember">
        {{ cautions[warming.is] || 'Heat thins the resin before it cures it: not before the fill is done.' }}
        Follow the safety data sheet and your site’s rules.
      </p>
    </section>
    <p>
      <RouterLink :to="`/jobs/${job.id}/vacuum?pane=gauges`"
        >Watch by name, with limits of pressure and warmth</RouterLink
      >:
      {{ run.state.watch ? `${run.state.watch.watcher} watches.` : 'nobody watches yet.' }}
    </p>
  </div>
</template>

<style scoped>
.head {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 4px 20px;
  align-items: center;
}
.head p:last-child {
  grid-column: 1 / -1;
}
.large {
  font: 600 40px/1 var(--display);
  margin: 0;
}
.bar {
  height: 18px;
  border: 1px solid var(--edge);
  background: var(--sheet);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--resin);
}
table {
  border-collapse: collapse;
  width: 100%;
  margin: 8px 0;
}
th,
td {
  text-align: left;
  padding: 6px 12px 6px 0;
  border-bottom: 1px solid var(--rule);
  font-weight: 400;
}
td.number {
  font: 600 20px var(--display);
  white-space: nowrap;
}
h2 {
  font-size: 20px;
  margin: 8px 0 2px;
}
p {
  margin: 2px 0 6px;
}
.resin {
  color: var(--resin-ink);
  font-weight: 600;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
}
</style>
