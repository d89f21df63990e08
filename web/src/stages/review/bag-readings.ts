import type { BagReading } from '@wick/plan/infusion/live-clock';
import { absoluteOf, byFineness, hungAt, isGauge } from '@wick/plan/run/gauges';
import { computed, type Ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useInstruments, useSamples } from '../../data/instruments.ts';

/** What the finest gauge that hung on the bag read in a span of the run. @param ambient Pa */
export function useBagReadings(
  ambient: Ref<number | null>,
  span: Ref<{ readonly from: number; readonly to: number } | null>,
) {
  const run = useRun();
  const { list } = useInstruments();
  const gauge = computed(() => {
    const hung = hungAt(run.state.entries, 'bag');
    return list.value.filter((one) => hung.has(one.id) && isGauge(one)).sort(byFineness)[0] ?? null;
  });
  const samples = useSamples(
    computed(() => gauge.value?.id ?? null),
    computed(() => span.value?.from ?? null),
    computed(() => span.value?.to ?? null),
  );
  return computed((): BagReading[] => {
    const [own, air] = [gauge.value, ambient.value];
    if (!own || air === null) return [];
    const { ats, values } = samples.value;
    return ats.map((at, n) => ({ at, pressure: absoluteOf(own, values[n]!, air) }));
  });
}
