import { onScopeDispose, ref, type Ref } from 'vue';

const EVERY = 1000;

/** A clock that is looked at every second. @param now ms since 1970 */
export function useTicking(now: () => number): Ref<number> {
  const time = ref(now());
  const timer = setInterval(() => (time.value = now()), EVERY);
  onScopeDispose(() => clearInterval(timer));
  return time;
}
