import { onBeforeUnmount, ref, type Ref } from 'vue';

/** Forecast seconds shown in a second, as they are offered. */
export const speeds = [
  { value: 60, label: '1 min a second' },
  { value: 180, label: '3 min a second' },
  { value: 300, label: '5 min a second' },
  { value: 600, label: '10 min a second' },
  { value: 1200, label: '20 min a second' },
];
const STEP = 60;

/** Moves the minute along by itself from where it stands to an end; at the end it starts over. */
export function usePlayback(minute: Ref<number | null>, bounds: () => { from: number; to: number } | null) {
  const playing = ref(false);
  const speed = ref(300);
  let frame = 0;
  let before = 0;

  function run(now: number) {
    const range = bounds();
    if (!playing.value || !range) return stop();
    const next = (minute.value ?? range.from) + ((now - before) / 1000) * speed.value;
    before = now;
    minute.value = Math.min(next, range.to);
    if (next >= range.to) return stop();
    frame = requestAnimationFrame(run);
  }

  function play() {
    const range = bounds();
    if (!range) return;
    if (minute.value === null || minute.value >= range.to - 1) minute.value = range.from;
    playing.value = true;
    before = performance.now();
    frame = requestAnimationFrame(run);
  }
  function stop() {
    playing.value = false;
    cancelAnimationFrame(frame);
  }
  function step(direction: 1 | -1) {
    stop();
    const range = bounds();
    if (!range) return;
    const at = (minute.value ?? range.from) + direction * STEP;
    minute.value = Math.max(0, Math.min(range.to, at));
  }
  onBeforeUnmount(stop);

  return { playing, speed, toggle: () => (playing.value ? stop() : play()), stop, step };
}
