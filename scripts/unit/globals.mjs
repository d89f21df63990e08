import { ModernFakeTimers } from '@jest/fake-timers';
import { ModuleMocker } from 'jest-mock';

/**
 * Jest's own words for one test file: each file gets an instance of this module. Files of one process share modules, so what a file lays on
 * globalThis while its tests run is taken away after it; and a test that hangs fails by its limit.
 */
const { expect, describe } = globalThis;
/** @public */
export { expect, describe };

/** ms; limits of tests follow the machine, as busy as it was when the run began. */
const USUAL_LIMIT = 60_000;
const pace = Number(process.env.WICK_PACE ?? 1);

const within = (fn, limit = USUAL_LIMIT) =>
  async function limited(...given) {
    let timer;
    const late = new Promise((_, reject) => {
      const most = Math.round(limit * pace);
      timer = setRealTimeout(() => reject(new Error(`it took longer than ${most} ms`)), most);
    });
    try {
      return await Promise.race([fn(...given), late]);
    } finally {
      clearRealTimeout(timer);
    }
  };
// A test that holds the clock still is limited by the real one.
const [setRealTimeout, clearRealTimeout] = [globalThis.setTimeout, globalThis.clearTimeout];
const own = globalThis.test;
/** @public */
export const test = (name, fn, limit) => own(name, within(fn, limit));
test.each = (rows) => (name, fn, limit) => own.each(rows)(name, within(fn, limit));
test.skip = own.skip;
const limitedHook = (hook) => (fn, limit) => hook(within(fn, limit));
/** @public */
export const [beforeAll, afterAll, beforeEach, afterEach] = [
  globalThis.beforeAll,
  globalThis.afterAll,
  globalThis.beforeEach,
  globalThis.afterEach,
].map(limitedHook);

const mocks = new ModuleMocker(globalThis);
const timers = new ModernFakeTimers({ config: { fakeTimers: {} }, global: globalThis });
/** @public */
export const jest = {
  fn: mocks.fn.bind(mocks),
  spyOn: mocks.spyOn.bind(mocks),
  restoreAllMocks: mocks.restoreAllMocks.bind(mocks),
  useFakeTimers: (config) => timers.useFakeTimers(config),
  useRealTimers: () => timers.useRealTimers(),
  setSystemTime: (now) => timers.setSystemTime(now),
  advanceTimersByTimeAsync: (ms) => timers.advanceTimersByTimeAsync(ms),
};

const before = new Map();
beforeAll(() => {
  for (const name of Object.getOwnPropertyNames(globalThis))
    before.set(name, Object.getOwnPropertyDescriptor(globalThis, name));
});
afterAll(() => {
  timers.useRealTimers();
  mocks.restoreAllMocks();
  for (const name of Object.getOwnPropertyNames(globalThis)) {
    const was = before.get(name);
    const is = Object.getOwnPropertyDescriptor(globalThis, name);
    if (!is.configurable) continue;
    if (!was) delete globalThis[name];
    else if (was.value !== is.value || was.get !== is.get) Object.defineProperty(globalThis, name, was);
  }
});
