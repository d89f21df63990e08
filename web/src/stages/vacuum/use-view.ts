import { computed, proxyRefs, ref, type Ref } from 'vue';

/** A chart begins with so much, ms, however short the test is yet. */
const LEAST = 120_000;

/** The stretch of a chart: all of it as it grows, until a hand looks elsewhere. */
export function useView(begin: Ref<number | null>, end: Ref<number>) {
  const own = ref<{ from: number; to: number } | null>(null);
  const whole = computed(() => {
    const from = begin.value ?? end.value - LEAST;
    const span = Math.max(LEAST, end.value - from);
    return { from: from - 0.02 * span, to: from + 1.03 * span };
  });
  return proxyRefs({
    from: computed(() => own.value?.from ?? whole.value.from),
    to: computed(() => own.value?.to ?? whole.value.to),
    isFollowing: computed(() => own.value === null),
    look: (from: number, to: number) => void (own.value = { from, to }),
    follow: () => void (own.value = null),
  });
}
