import { computed, type ComputedRef } from 'vue';

/** A value that is worked out while the hand rests; while it drags, the one of before. */
export function atRest<T>(isGesturing: () => boolean, work: () => T, first: T): ComputedRef<T> {
  let last = first;
  return computed(() => (isGesturing() ? last : (last = work())));
}
