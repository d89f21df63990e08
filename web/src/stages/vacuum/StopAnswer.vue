<script setup lang="ts">
import { catchPotOf, comesBack, holdOf } from '@wick/plan/vacuum/hold';
import { waitWords } from '@wick/plan/vacuum/words';
import { computed } from 'vue';
import { useForecast, useRun, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useBench } from './bench.ts';
import { useLeak } from './leak.ts';

/** How long somebody may be away, and whether the catch pot is large enough. */
const bench = useBench();
const job = useSession();
const run = useRun();
const shop = useShopStore();
const forecast = useForecast();
const leak = useLeak();
const hold = computed(() =>
  bench.freeVolume === null
    ? null
    : holdOf(job.laid, shop.shop, {
        ...{ from: bench.pressure ?? bench.reach.best, freeVolume: bench.freeVolume, throughput: leak },
      }),
);
const isHeld = computed(() => job.laid.vacuum.hasCheckValve === true);
const headline = computed(() => {
  if (!hold.value) return 'Nothing to hold yet.';
  if (!isHeld.value) return 'Without a check valve the vacuum is gone in seconds.';
  const first = hold.value.marks[0];
  return first && Number.isFinite(first.soonest)
    ? `Shut, it holds for at least ${waitWords(first.soonest)}.`
    : 'Shut, it holds: no leak was found.';
});
const vented = computed(() => forecast.flow?.vented ?? 0);
const pot = computed(() => catchPotOf(job.laid, vented.value));
</script>

<template>
  <h2 :class="isHeld ? 'moss' : 'ember'" data-testid="hold-verdict">{{ headline }}</h2>
  <p v-if="job.laid.vacuum.hasCheckValve === null" class="quiet">
    Nobody has said whether a check valve is fitted: say so under Pull-down.
  </p>
  <h3>Catch pot</h3>
  <p v-if="pot.state === 'none'" class="ember">
    None is chosen: resin that leaves through the vents goes into the pump. Choose one under Pull-down.
  </p>
  <template v-else>
    <p :class="pot.state === 'small' ? 'ember' : 'moss'">
      {{
        pot.state === 'small'
          ? `${pot.name} is too small: the forecast draws more through the vents than it may hold.`
          : `${pot.name} holds what the forecast draws through the vents.`
      }}
    </p>
    <div class="row">
      <span>Drawn through the vents</span><span class="number">{{ shop.show(pot.vented, 'volume') }}</span>
    </div>
    <div class="row">
      <span>It may hold, seven tenths full</span
      ><span class="number">{{ shop.show(pot.usable, 'volume') }}</span>
    </div>
    <div v-if="!isHeld && pot.vented > 0" class="row">
      <span class="ember">Comes back from it with the air</span>
      <span class="number">{{ shop.show(comesBack(job.laid, pot.vented), 'mass') }}</span>
    </div>
  </template>
  <p v-if="run.state.watch" class="moss">{{ run.state.watch.watcher }} watches.</p>
  <p v-else class="ember">Nobody watches: until gel somebody or something must.</p>
</template>

<style scoped>
h2 {
  font-size: 22px;
  line-height: 1.2;
  margin-bottom: 8px;
}
p {
  margin: 6px 0;
}
</style>
