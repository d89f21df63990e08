<script setup lang="ts">
import { dueWords } from '@wick/plan/card/timers';
import Button from 'ant-design-vue/es/button';
import { computed, onBeforeUnmount, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { localCalls, type Call } from '../../data/local-calls.ts';
import { soundTone } from '../../ui/tone.ts';
import { watched } from './watched.ts';

/** Clocks that are due, on whatever page: heard and seen until somebody at this screen has taken note. */
const keyOf = ({ timerId, what }: Call) => `${timerId} ${what}`;
const route = useRoute();
const noted = ref<ReadonlySet<string>>(new Set());
const calls = computed(() => {
  const all = [...watched.calls.value, ...localCalls.value];
  const keys = all.map(keyOf);
  const isMeant = ({ isRehearsal, jobId }: Call) => !isRehearsal || route.params.id === jobId;
  return all.filter(
    (call, n) => isMeant(call) && keys.indexOf(keyOf(call)) === n && !noted.value.has(keyOf(call)),
  );
});
/** One at a time, so that they cover nothing: what has closed before what closes and what is due. */
const URGENCY = ['closed', 'closing', 'opens'] as const;
const first = computed(
  () => [...calls.value].sort((a, b) => URGENCY.indexOf(a.what) - URGENCY.indexOf(b.what))[0] ?? null,
);
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
  <div v-if="first" :class="['call', first.what]" role="alert" data-testid="calls">
    <span class="what"
      ><b>{{ dueWords[first.what] }}: {{ first.word }}</b>
      <small
        >{{ first.jobName }}, {{ first.part
        }}<template v-if="calls.length > 1"> · and {{ calls.length - 1 }} more</template></small
      ></span
    >
    <RouterLink :to="`/jobs/${first.jobId}/run`" class="go">Open</RouterLink>
    <Button size="large" @click="note(first)">Heard</Button>
  </div>
</template>

<style scoped>
.call {
  position: fixed;
  top: 0;
  left: 50%;
  transform: translateX(-50%);
  z-index: 2500;
  width: min(720px, 100vw);
  display: flex;
  gap: 16px;
  align-items: center;
  padding: 8px 18px;
  background: var(--call);
  color: var(--call-ink);
  box-shadow: 0 2px 10px #0006;
}
.call.closed {
  background: var(--late);
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
