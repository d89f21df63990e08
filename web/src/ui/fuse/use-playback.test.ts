import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { effectScope, ref, type EffectScope } from 'vue';
import { speeds, usePlayback } from './use-playback.ts';

/** A screen in a few lines: frames come when the test says so. */
let now = 0;
let waiting: ((time: number) => void) | null = null;
let scope: EffectScope;
const frame = (ms: number) => {
  now += ms;
  const due = waiting;
  waiting = null;
  due?.(now);
};
const minute = ref<number | null>(null);
let bounds: { from: number; to: number } | null;
let playback: ReturnType<typeof usePlayback>;

beforeEach(() => {
  now = 1000;
  waiting = null;
  bounds = { from: 540, to: 2400 };
  minute.value = null;
  jest.spyOn(performance, 'now').mockImplementation(() => now);
  Object.assign(globalThis, {
    requestAnimationFrame: (run: (time: number) => void) => {
      waiting = run;
      return 1;
    },
    cancelAnimationFrame: () => (waiting = null),
  });
  scope = effectScope();
  playback = scope.run(() => usePlayback(minute, () => bounds))!;
});
afterEach(() => {
  scope.stop();
  jest.restoreAllMocks();
});

test('plays from the first opening at the chosen speed, whatever the time between frames, and ends at the last corner', () => {
  playback.speed.value = 300;
  playback.toggle();
  frame(100);
  expect(minute.value).toBeCloseTo(540 + 30, 9);
  frame(20);
  frame(380);
  expect(minute.value).toBeCloseTo(540 + 150, 9);
  frame(60_000);
  expect(minute.value).toBe(2400);
  expect(playback.playing.value).toBe(false);
  expect(waiting).toBeNull();
});

test('stopped it stays where it is and goes on from there; at the end it starts over', () => {
  playback.toggle();
  frame(1000);
  playback.toggle();
  const held = minute.value;
  frame(1000);
  expect(minute.value).toBe(held);
  playback.toggle();
  frame(100);
  expect(minute.value).toBeGreaterThan(held!);
  playback.stop();
  minute.value = 2400;
  playback.toggle();
  expect(minute.value).toBe(540);
});

test('steps go a minute either way, stop the playing, and stay within the run', () => {
  playback.toggle();
  playback.step(1);
  expect([playback.playing.value, minute.value]).toEqual([false, 600]);
  minute.value = 30;
  playback.step(-1);
  expect(minute.value).toBe(0);
  minute.value = 2390;
  playback.step(1);
  expect(minute.value).toBe(2400);
});

test('without a forecast nothing moves', () => {
  bounds = null;
  playback.toggle();
  playback.step(1);
  expect([playback.playing.value, minute.value]).toEqual([false, null]);
  expect(speeds.every(({ value }) => value > 0)).toBe(true);
});
