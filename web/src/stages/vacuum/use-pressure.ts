import { toUnit } from '@wick/core/units/format';
import { unitOf } from '@wick/core/units/quantities';
import { computed, proxyRefs } from 'vue';
import { useShopStore } from '../../data/shop-store.ts';
import type { ChartLine } from '../../ui/curve/curve.ts';
import { useBench } from './bench.ts';

/** Absolute pressures as the shop reads them, for charts and the large number. */
export function usePressure() {
  const bench = useBench();
  const shop = useShopStore();
  const unit = computed(() => unitOf('absolutePressure', shop.unit('absolutePressure')));
  /** In the shop's unit, of Pa. */
  const shown = (pressure: number) => toUnit(pressure, 'absolutePressure', unit.value.symbol);
  return proxyRefs({
    unit: computed(() => unit.value.symbol),
    shown,
    /** With all its places, so that a number that moves does not jump. */
    digits: (pressure: number) => shown(pressure).toFixed(unit.value.decimals),
    best: computed((): ChartLine => ({
      ...{ label: 'best reachable here', tone: 'tide' },
      value: shown(bench.reach.best),
    })),
  });
}
