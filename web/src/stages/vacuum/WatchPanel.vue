<script setup lang="ts">
import type { Limits } from '@wick/contract/run/run';
import Button from 'ant-design-vue/es/button';
import { computed, reactive, ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import QuantityInput from '../../ui/QuantityInput.vue';
import { soundTone } from '../../ui/tone.ts';
import { useBench } from './bench.ts';

/** Who watches, and what they are called for. */
const bench = useBench();
const run = useRun();
const shop = useShopStore();
const isOpen = ref(false);
const limits = reactive<Limits>({ pressure: null, coldest: null, warmest: null, silence: 60 });
const watching = computed(() => run.state.watch);
/** Five times what it stands at, at least a twentieth of the air outside. */
const proposed = computed(() => Math.max(5000, Math.round((2 * (bench.pressure ?? 0)) / 100) * 100));
const isNamed = computed(() => run.by.trim() !== '');

function begin() {
  Object.assign(limits, watching.value?.limits ?? { pressure: proposed.value });
  isOpen.value = true;
}
async function take() {
  await run.say({ kind: 'watch', watcher: run.by, limits: { ...limits } });
  isOpen.value = false;
}
const alarms = computed(() => run.state.alarms.length);
</script>

<template>
  <section aria-label="Watch" class="watch">
    <h3>Watch</h3>
    <p v-if="watching">
      <b>{{ watching.watcher }}</b> watches<template v-if="watching.before.length > 0"
        >, after {{ watching.before.join(', ') }}</template
      >:
      <template v-if="watching.limits.pressure !== null"
        >above {{ shop.show(watching.limits.pressure, 'absolutePressure') }},
      </template>
      <template v-if="watching.limits.coldest !== null"
        >under {{ shop.show(watching.limits.coldest, 'temperature') }},
      </template>
      <template v-if="watching.limits.warmest !== null"
        >over {{ shop.show(watching.limits.warmest, 'temperature') }},
      </template>
      silent for {{ shop.show(watching.limits.silence, 'duration') }}.
      <template v-if="alarms > 0"> {{ alarms }} {{ alarms === 1 ? 'alarm' : 'alarms' }} so far.</template>
    </p>
    <p v-else class="quiet">Nobody watches. An alarm is heard and seen on every screen that is open.</p>
    <div class="tools">
      <Button size="small" @click="isOpen ? (isOpen = false) : begin()">{{
        watching ? 'Take it over, or set limits' : 'Take the watch'
      }}</Button>
      <Button v-if="watching" size="small" @click="run.say({ kind: 'watchEnds' })">End it</Button>
      <Button size="small" @click="soundTone(1500)">Try the tone</Button>
    </div>
    <form v-if="isOpen" @submit.prevent="take">
      <QuantityInput
        v-model="limits.pressure"
        label="Call above, in the bag"
        quantity="absolutePressure"
        optional
        :limits="{ above: 0, below: 110000 }"
      />
      <QuantityInput
        v-model="limits.coldest"
        label="Call when colder than"
        quantity="temperature"
        optional
        :limits="{ above: 233, below: 473 }"
      />
      <QuantityInput
        v-model="limits.warmest"
        label="Call when warmer than"
        quantity="temperature"
        optional
        :limits="{ above: 233, below: 473 }"
      />
      <QuantityInput
        :model-value="limits.silence"
        label="Call when silent for"
        quantity="duration"
        :limits="{ atLeast: 5, below: 86400 }"
        @update:model-value="limits.silence = $event ?? limits.silence"
      />
      <p v-if="!isNamed" class="ember">Type your name above first: a watch has one.</p>
      <Button size="small" type="primary" html-type="submit" :disabled="!isNamed"
        >{{ run.by || 'Somebody' }} watches</Button
      >
    </form>
  </section>
</template>

<style scoped>
.watch {
  margin-top: 18px;
}
form {
  display: grid;
  gap: 6px;
  margin-top: 8px;
}
p {
  margin: 4px 0;
  font-size: 13px;
}
</style>
