<script setup lang="ts">
import { bandTones, endName } from '@wick/plan/forecast/words';
import { useCard, useForecast, useSession } from '../../compute/use-desk.ts';
import { formatClock } from '@wick/core/units/format';
import { computed, onBeforeUnmount, onMounted, ref } from 'vue';
import { resinColour } from '../../ui/theme.ts';
import { isTyping } from '../../ui/typing.ts';
import FuseBurnt from './FuseBurnt.vue';
import FuseControls from './FuseControls.vue';
import { fuseMarks, placeLabels } from '../../ui/fuse/fuse-marks.ts';
import { fuseScale } from '../../ui/fuse/fuse-scale.ts';
import { usePlayback } from '../../ui/fuse/use-playback.ts';

/** Time from first mix to gel along the foot of every job screen; drag the flame to see the front at that minute. */
const minute = defineModel<number | null>({ required: true });
const { onPaper = false } = defineProps<{ onPaper?: boolean }>();
const forecast = useForecast();
const job = useSession();
const work = useCard();
const root = ref<SVGSVGElement | null>(null);
const width = ref(1200);
const TOP = 35;

const gel = computed(() => forecast.clock?.gelTime ?? null);
/** While a fill runs and is followed, by its marks; else as planned. */
const live = computed(() => (onPaper ? null : work.liveEnd));
const planned = computed(() =>
  forecast.verdict && Number.isFinite(forecast.verdict.fillTime) ? forecast.verdict.fillTime : null,
);
const fill = computed(() => {
  if (!live.value) return planned.value;
  return Number.isFinite(live.value.last.middle) ? live.value.last.middle : null;
});
const scale = computed(() => fuseScale(width.value, gel.value));
const LEFT = computed(() => scale.value.left);
const end = computed(() => scale.value.end);
const xOf = (time: number) => scale.value.xOf(time);
const { playing, speed, toggle, stop, step } = usePlayback(minute, () =>
  gel.value === null || !forecast.flow
    ? null
    : { from: forecast.before?.open ?? 0, to: fill.value ?? gel.value },
);
const marks = computed(() => {
  if (!forecast.before || gel.value === null) return [];
  const events = (forecast.flow?.events ?? []).map(({ lineId, kind, time }) => ({
    name: forecast.nameOf(lineId),
    kind,
    time: forecast.timeOf(time),
  }));
  return placeLabels(
    fuseMarks({
      before: forecast.before,
      events,
      batches: job.laid.resin.batches.map(({ mixedAt }) => mixedAt).sort((a, b) => a - b),
      fill: fill.value,
      usable: forecast.verdict?.usableTime ?? null,
      gel: gel.value,
      endName: endName(forecast.clock!),
    }),
    xOf,
  );
});
/** The body darkens as the resin thickens. */
const stops = computed(() => {
  const { clock } = forecast;
  if (!clock) return [];
  const full = Math.log(clock.viscosityAt(clock.gelTime) / clock.viscosityAt(0));
  return Array.from({ length: 13 }, (_, i) => {
    const time = (clock.gelTime * i) / 12;
    return {
      offset: i / 12,
      colour: resinColour(Math.log(clock.viscosityAt(time) / clock.viscosityAt(0)) / full),
    };
  });
});
const margin = computed(() => {
  const end = live.value?.gelTime ?? gel.value;
  return fill.value !== null && end !== null ? end - fill.value : null;
});
/** The hand's width of time is as good as the verdict says. */
const tone = computed(() =>
  forecast.verdict && margin.value !== null ? bandTones[forecast.verdict.band] : 'ember',
);
const headline = computed(() => {
  if (margin.value !== null)
    return `${Math.round(margin.value / 60)} min in hand${live.value ? ', by the marks' : ''}`;
  if (forecast.verdict && gel.value !== null)
    return `${endName(forecast.verdict) === 'gel' ? 'gels' : 'data end'} with ${Math.round(100 * forecast.verdict.reachedFraction)} % wet`;
  return null;
});

function scrub(event: PointerEvent) {
  if (!forecast.flow || event.buttons !== 1) return;
  const frame = root.value!.getBoundingClientRect();
  stop();
  const time = scale.value.timeAt(event.clientX - frame.left);
  minute.value = Math.max(0, Math.min(gel.value ?? end.value, time));
}

function onKey(event: KeyboardEvent) {
  const step = { ArrowLeft: -60, ArrowRight: 60, PageDown: -600, PageUp: 600 }[event.key];
  if (step === undefined || gel.value === null) return;
  event.preventDefault();
  minute.value = Math.max(0, Math.min(gel.value, (minute.value ?? forecast.before?.open ?? 0) + step));
}

function onPageKey(event: KeyboardEvent) {
  if (isTyping(event) || event.ctrlKey || event.metaKey || event.altKey) return;
  const isOnControl = (event.target as Element).closest?.('button, a, [role="button"], [role="tab"]');
  if (event.key === ' ' && !isOnControl) toggle();
  else if (event.key === ',') step(-1);
  else if (event.key === '.') step(1);
  else return;
  event.preventDefault();
}
onMounted(() => window.addEventListener('keydown', onPageKey));
onBeforeUnmount(() => window.removeEventListener('keydown', onPageKey));

const observer = new ResizeObserver(([entry]) => (width.value = Math.max(400, entry!.contentRect.width)));
onMounted(() => observer.observe(root.value!));
onBeforeUnmount(() => observer.disconnect());
</script>

<template>
  <footer class="fuse">
    <div id="fuse-lanes"></div>
    <div class="body">
      <svg
        ref="root"
        tabindex="0"
        role="slider"
        aria-label="Time since first mix"
        :aria-valuenow="Math.round((minute ?? 0) / 60)"
        aria-valuemin="0"
        :aria-valuemax="Math.round(end / 60)"
        :aria-valuetext="minute === null ? 'whole forecast' : `${formatClock(minute)} after first mix`"
        @pointerdown="(root!.setPointerCapture($event.pointerId), scrub($event))"
        @pointermove="scrub"
        @keydown="onKey"
        @keydown.esc="minute = null"
      >
        <defs>
          <linearGradient id="fuse-body">
            <stop
              v-for="shade in stops"
              :key="shade.offset"
              :offset="shade.offset"
              :stop-color="shade.colour"
            />
          </linearGradient>
          <pattern
            id="fuse-hatch"
            width="6"
            height="6"
            patternUnits="userSpaceOnUse"
            patternTransform="rotate(45)"
          >
            <rect width="6" height="6" fill="#402114" />
            <line x1="0" y1="0" x2="0" y2="6" stroke="#b3261e" stroke-width="2" />
          </pattern>
        </defs>
        <text v-if="gel === null" :x="LEFT" y="48" class="empty">
          {{ forecast.message ?? 'Choose a resin to see how long it lasts.' }}
        </text>
        <template v-else>
          <rect :x="xOf(0)" :y="TOP" :width="xOf(gel) - xOf(0)" height="17" fill="url(#fuse-body)" />
          <rect :x="xOf(gel)" :y="TOP" :width="xOf(end) - xOf(gel)" height="17" fill="url(#fuse-hatch)" />
          <g v-if="headline" :class="tone">
            <path
              v-if="margin !== null && fill !== null"
              :d="`M${xOf(fill)} ${TOP - 2}V${TOP - 12}H${xOf(gel)}V${TOP - 2}`"
            />
            <text
              class="margin"
              :x="
                margin !== null && fill !== null
                  ? Math.min((xOf(fill) + xOf(gel)) / 2, width - 100)
                  : xOf(gel) - 4
              "
              :y="TOP - 17"
              :text-anchor="margin === null ? 'end' : 'middle'"
            >
              {{ headline }}
            </text>
          </g>
          <text v-if="!headline" :x="LEFT" :y="TOP - 12" class="empty">
            {{ forecast.message ?? 'working out the front …' }}
          </text>
          <g v-for="mark in marks" :key="mark.label" :class="['mark', mark.kind]">
            <line :x1="xOf(mark.time)" :x2="xOf(mark.time)" :y1="TOP - 5" :y2="TOP + 22" />
            <text :x="mark.x" :y="TOP + 33" :text-anchor="mark.anchor">{{ mark.label }}</text>
            <text :x="mark.x" :y="TOP + 46" :text-anchor="mark.anchor" class="clock">
              {{ formatClock(mark.time) }}
            </text>
          </g>
          <FuseBurnt v-if="!onPaper" :scale="scale" :top="TOP" />
          <g v-if="minute !== null" :transform="`translate(${xOf(minute)} 0)`" class="flame">
            <line y1="22" :y2="TOP + 22" />
            <path d="M0 4c4 6 7 8 7 13a7 7 0 0 1-14 0c0-5 3-7 7-13z" />
            <text x="11" y="14">{{ formatClock(minute) }}</text>
          </g>
        </template>
      </svg>
      <FuseControls
        v-if="!onPaper && forecast.flow && gel !== null"
        v-model:speed="speed"
        :playing="playing"
        :is-at="minute !== null"
        @toggle="toggle"
        @step="step"
        @whole="(stop(), (minute = null))"
      />
    </div>
  </footer>
</template>

<style scoped>
.fuse {
  position: relative;
  border-top: 1px solid var(--rule);
  background: var(--sheet);
}
.body {
  display: flex;
  flex-direction: column-reverse;
}
svg {
  width: 100%;
  height: 98px;
  cursor: ew-resize;
  touch-action: none;
}
.empty {
  font: 500 15px var(--display);
  fill: var(--quiet);
}
.mark line {
  stroke: var(--ink);
}
.mark text {
  font: 500 12px var(--display);
  fill: var(--ink);
}
.mark .clock {
  fill: var(--quiet);
  font-size: 11px;
}
.mark.gel line {
  stroke: var(--ember);
  stroke-width: 2;
}
.mark.gel text:first-of-type {
  fill: var(--ember);
}
.margin {
  font: 600 20px var(--display);
}
.moss {
  --tone: var(--moss);
}
.amber {
  --tone: var(--resin-ink);
}
.ember {
  --tone: var(--ember);
}
.margin {
  fill: var(--tone);
}
.moss path,
.amber path,
.ember path {
  fill: none;
  stroke: var(--tone);
  stroke-width: 2;
}
.flame path {
  fill: var(--resin);
  stroke: var(--sheet);
}
.flame line {
  stroke: var(--resin);
  stroke-width: 2;
}
.flame text {
  font: 600 13px var(--display);
}
</style>
