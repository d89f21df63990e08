<script setup lang="ts">
import { dueWords } from '@wick/plan/card/timers';
import { Button } from 'ant-design-vue';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { localCalls, type Call } from '../../data/local-calls.ts';
import { soundTone } from '../../ui/tone.ts';
import { watched } from './watched.ts';

/** Clocks that are due, on whatever page: heard and seen until somebody at this screen has taken note. */
const keyOf = ({ timerId, what }: Call) => `${timerId} ${what}`;
const noted = ref<ReadonlySet<string>>(new Set());
const calls = computed(() => {
  const all = [...watched.calls.value, ...localCalls.value];
  const keys = all.map(keyOf);
  return all.filter((call, n) => keys.indexOf(keyOf(call)) === n && !noted.value.has(keyOf(call)));
});
const note = (call: Call) => (noted.value = new Set([...noted.value, keyOf(call)]));

/** Again and again, but not without end: what nobody hears is nobody's. ms */
const TONE = 900;
const EVERY = 12_000;
const MOST = 5;
let sounding: ReturnType<typeof setInterval> | undefined;
watch(
  () => calls.value.map(keyOf).join(),
  (now) => {
    clearInterval(sounding);
    if (now === '') return;
    let left = MOST;
    const sound = () => {
      soundTone(TONE);
      if (--left <= 0) clearInterval(sounding);
    };
    sounding = setInterval(sound, EVERY);
    sound();
  },
);
onBeforeUnmount(() => clearInterval(sounding));
</script>

<template>
  <div v-if="calls.length > 0" class="calls" role="alert" data-testid="calls">
    <p v-for="call in calls" :key="keyOf(call)" :class="call.what">
      <span class="what"
        ><b>{{ dueWords[call.what] }}: {{ call.word }}</b>
        <small>{{ call.jobName }}, {{ call.part }}</small></span
      >
      <RouterLink :to="`/jobs/${call.jobId}/run`" class="go">Open</RouterLink>
      <Button size="large" @click="note(call)">Heard</Button>
    </p>
  </div>
</template>

<style scoped>
.calls {
  position: fixed;
  top: 0;
  left: 50%;
  transform: translateX(-50%);
  z-index: 2500;
  width: min(720px, 100vw);
}
p {
  display: flex;
  gap: 16px;
  align-items: center;
  margin: 0 0 2px;
  padding: 8px 18px;
  background: #f2a93b;
  color: #10181b;
  box-shadow: 0 2px 10px #0006;
}
p.closed {
  background: #b3261e;
  color: #fff;
}
.what {
  flex: 1;
  font: 600 20px/1.15 var(--display);
}
small {
  display: block;
  font: 400 14px var(--text);
}
.go {
  color: inherit;
  min-height: 44px;
  display: inline-flex;
  align-items: center;
}
</style>
