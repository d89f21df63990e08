<script setup lang="ts">
import type { Alarm } from '@wick/contract/run/run';
import { newId } from '@wick/plan/job/ids';
import { runTime } from '@wick/plan/run/clock';
import Button from 'ant-design-vue/es/button';
import Input from 'ant-design-vue/es/input';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { api } from '../../data/api.ts';
import { useInstruments } from '../../data/instruments.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { keepOwnName, ownName } from '../../data/own-name.ts';
import { stream } from '../../data/stream.ts';
import { soundTone } from '../../ui/tone.ts';
import { watched } from './watched.ts';

/** An alarm over the whole screen, wherever one is: heard, seen, and answered by name. */
const shop = useShopStore();
const { list } = useInstruments();
const by = ref('');
const message = ref<string | null>(null);
onMounted(watched.load);

const isCut = computed(() => stream.isLost.value && watched.isWatched.value);
const first = computed(() => watched.alarms.value[0] ?? null);
const isOn = computed(() => first.value !== null || isCut.value);
const more = computed(() => watched.alarms.value.length - 1);
const nameOf = (id: string) => list.value.find((one) => one.id === id)?.name ?? 'An instrument';
const LOST = {
  what: 'No word from the server',
  why: 'The watch cannot be kept from this screen. Look at the gauge yourself, and see that the server runs.',
};
const words = computed(() => (first.value ? wordsOf(first.value.entry.body) : LOST));
function wordsOf({ cause, instrumentId, value, limit }: Alarm): { what: string; why: string } {
  const gauge = nameOf(instrumentId);
  const warmth = shop.show(value, 'temperature');
  const bound = shop.show(limit, 'temperature');
  return {
    pressure: {
      what: `${shop.show(value, 'absolutePressure')} in the bag`,
      why: `${gauge} is above ${shop.show(limit, 'absolutePressure')}. Clamp the vent hose at the bag, then look at the pump.`,
    },
    cold: {
      what: `${warmth}: too cold`,
      why: `${gauge} is under ${bound}. Look at heater, blanket and tent.`,
    },
    warm: {
      what: `${warmth}: too warm`,
      why: `${gauge} is over ${bound}. Take heat away; a thick laminate warms itself.`,
    },
    silence: {
      what: `${gauge} is silent`,
      why: `Nothing was read for ${shop.show(limit, 'duration')}. Look at the gauge itself: its battery, its cable, the bag.`,
    },
  }[cause];
}

/** Sounds again and again until it is answered. */
const EVERY = 2500;
let sounding: ReturnType<typeof setInterval> | undefined;
watch(
  isOn,
  (on) => {
    clearInterval(sounding);
    if (!on) return;
    by.value = ownName.value;
    soundTone(1500);
    sounding = setInterval(() => soundTone(1500), EVERY);
  },
  { immediate: true },
);
onBeforeUnmount(() => clearInterval(sounding));

async function answer() {
  if (!first.value) return;
  const { run, entry } = first.value;
  keepOwnName(by.value);
  try {
    const kept = await api.addEntries(run.id, [
      {
        id: newId(),
        at: new Date(runTime(run, stream.now())).toISOString(),
        by: ownName.value,
        body: { kind: 'answered', alarmId: entry.id },
      },
    ]);
    kept.forEach(watched.take);
    message.value = null;
  } catch (error) {
    message.value = (error as Error).message;
  }
}
</script>

<template>
  <div v-if="isOn" class="alarm" role="alertdialog" aria-modal="true" :aria-label="words.what">
    <p class="job">
      {{
        first
          ? `${first.jobName}${first.run.kind === 'rehearsal' ? ', rehearsal' : `, part ${first.run.number}`}`
          : 'Watch'
      }}
    </p>
    <p class="what">{{ words.what }}</p>
    <p class="why">{{ words.why }}</p>
    <p v-if="first" class="watcher">
      {{ first.watcher }} watches.
      <template v-if="more > 0">{{ more }} more {{ more === 1 ? 'alarm waits' : 'alarms wait' }}.</template>
    </p>
    <form v-if="first" @submit.prevent="answer">
      <Input
        v-model:value="by"
        size="large"
        class="by"
        placeholder="your name"
        aria-label="Your name"
        :maxlength="40"
      />
      <Button size="large" html-type="submit" :disabled="by.trim() === ''">I see to it</Button>
      <RouterLink :to="`/jobs/${first.run.jobId}/vacuum?pane=stop`" class="card"
        >What to do when the pump stops</RouterLink
      >
    </form>
    <p v-if="message" class="why" role="alert">{{ message }}</p>
  </div>
</template>

<style scoped>
.alarm {
  position: fixed;
  inset: 0;
  z-index: 3000;
  background: #8f1d17;
  color: #fff;
  display: flex;
  flex-direction: column;
  justify-content: center;
  align-items: center;
  text-align: center;
  padding: 24px;
}
.job {
  font: 500 22px var(--display);
  margin: 0;
}
.what {
  font: 600 64px/1.05 var(--display);
  margin: 10px 0;
}
.why {
  font-size: 22px;
  max-width: 760px;
  margin: 0 0 14px;
}
.watcher {
  font-size: 16px;
}
form {
  display: flex;
  flex-wrap: wrap;
  gap: 12px;
  align-items: center;
  justify-content: center;
}
.by {
  width: 220px;
}
form :deep(button),
form :deep(input) {
  min-height: 48px;
  font-size: 18px;
}
.card {
  color: #fff;
  text-decoration: underline;
  font-size: 18px;
  padding: 12px;
}
</style>
