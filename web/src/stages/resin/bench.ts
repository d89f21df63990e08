import { drawDown } from '@wick/core/mix/draw-down';
import { orNull } from '@wick/core/model-error';
import { faultsOf } from '@wick/core/mix/schedule';
import { missingOf } from '@wick/plan/forecast/missing';
import { materialOf } from '@wick/plan/job/material-of';
import { preparationOf, type SetBatch } from '@wick/plan/resin/batches';
import { ledgerOf } from '@wick/plan/resin/ledger';
import { potsOf } from '@wick/plan/resin/pots';
import { weightsOf } from '@wick/plan/resin/weights';
import { computed, inject, provide, proxyRefs, shallowRef, type InjectionKey } from 'vue';
import { useDraw, useForecast, useSession } from '../../compute/use-desk.ts';
import { useShopStore } from '../../data/shop-store.ts';
import { useSuggestion } from './use-suggestion.ts';

function createBench() {
  const job = useSession();
  const shop = useShopStore();
  const forecast = useForecast();
  const plan = useDraw();

  const system = computed(() => materialOf(job.laid, job.laid.resin.materialId, 'resin'));
  /** The forecast that is shown; while a better one is worked out the last one stands. */
  const flow = computed(() => forecast.flow);
  const ledger = computed(() =>
    missingOf(job.laid).some(({ stage }) => stage === 'laminate' || stage === 'resin')
      ? null
      : orNull(() => ledgerOf(job.laid, shop.shop, forecast.isUpToDate ? flow.value : null)),
  );
  const weights = computed(() =>
    orNull(() => weightsOf(job.laid, shop.shop, forecast.isUpToDate ? flow.value : null)),
  );
  const pots = computed(() => potsOf(job.laid));
  /** A batch that a hand holds, at the time to which it has been drawn. */
  const held = shallowRef<{ readonly index: number; readonly mixedAt: number } | null>(null);
  const batches = computed((): readonly SetBatch[] => {
    const { value: hand } = held;
    if (!hand) return plan.batches;
    const preparation = preparationOf(job.laid);
    return plan.batches.map((batch, n) =>
      n === hand.index ? { ...batch, mixedAt: hand.mixedAt, pouredAt: hand.mixedAt + preparation } : batch,
    );
  });
  const faults = computed(() =>
    held.value && plan.request ? faultsOf(plan.request, batches.value) : plan.faults,
  );
  /** The pot over time, a side of the doubt each. */
  const stocks = computed(() =>
    (plan.draw?.pots ?? []).map((pot, n) => {
      const pours = batches.value
        .filter((batch) => batch.pot === n)
        .map(({ pouredAt, mass }) => ({ time: pouredAt, mass }));
      return {
        pot,
        middle: drawDown(pot.middle, pours, pot.floor),
        fast: drawDown(pot.fast, pours, pot.floor),
        slow: drawDown(pot.slow, pours, pot.floor),
      };
    }),
  );
  const suggestion = useSuggestion(() => job.isGesturing || held.value !== null);

  return {
    ...{ system, flow, ledger, weights, pots, batches, held, faults, stocks, suggestion },
    draw: computed(() => plan.draw),
  };
}

const make = () => proxyRefs(createBench());
export type ResinBench = ReturnType<typeof make>;
const benchKey: InjectionKey<ResinBench> = Symbol('resin bench');

/** Made once by the stage, for its panes. */
export function provideBench(): ResinBench {
  const bench = make();
  provide(benchKey, bench);
  return bench;
}
export const useBench = (): ResinBench => inject(benchKey)!;
