import type { Place } from '@wick/contract/run/run';
import type { BagReading } from '@wick/plan/infusion/live-clock';
import { absoluteOf, byFineness, isGauge } from '@wick/plan/run/gauges';
import { computed, type Ref } from 'vue';
import { useRun } from '../../compute/use-desk.ts';
import { useInstruments, useSamples } from '../../data/instruments.ts';

/** What the instruments at bag, mould and pot show now, and the bag's pressures since a time. @param ambient Pa */
export function useLiveReadings(ambient: Ref<number | null>, from: Ref<number | null>) {
  const run = useRun();
  const { list, last } = useInstruments();
  const at = (place: Place, isRight: (one: (typeof list.value)[number]) => boolean) =>
    computed(
      () =>
        [...run.state.attached]
          .filter(([, hung]) => hung.place === place)
          .flatMap(([id]) => list.value.find((one) => one.id === id && isRight(one)) ?? [])
          .sort(byFineness)[0] ?? null,
    );
  const gauge = at('bag', isGauge);
  const thermometer = at('mould', ({ measures }) => measures === 'temperature');
  const potScale = at('pot', ({ measures }) => measures === 'mass');
  const shown = (one: { readonly id: string } | null) => (one && last.value.get(one.id)?.value) ?? null;
  const pressureAt = (value: number) =>
    gauge.value && ambient.value !== null ? absoluteOf(gauge.value, value, ambient.value) : null;
  const samples = useSamples(
    computed(() => gauge.value?.id ?? null),
    from,
    computed(() => null),
  );
  return {
    pressure: computed(() => {
      const value = shown(gauge.value);
      return value === null ? null : pressureAt(value);
    }),
    temperature: computed(() => shown(thermometer.value)),
    pot: computed(() => shown(potScale.value)),
    readings: computed((): BagReading[] =>
      samples.value.ats.flatMap((time, n) => {
        const pressure = pressureAt(samples.value.values[n]!);
        return pressure === null ? [] : [{ at: time, pressure }];
      }),
    ),
  };
}
