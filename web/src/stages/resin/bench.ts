import { drawDown } from '@wick/core/mix/draw-down';
import { faultsOf } from '@wick/core/mix/schedule';
import { ModelError } from '@wick/core/model-error';
import { missingOf } from '@wick/plan/forecast/missing';
import { materialOf } from '@wick/plan/job/material-of';
import { batchesOf, preparationOf, type SetBatch } from '@wick/plan/resin/batches';
import { drawOf } from '@wick/plan/resin/draw';
import { ledgerOf } from '@wick/plan/resin/ledger';
import { potsOf } from '@wick/plan/resin/pots';
import { scheduleRequestOf, suggestFor } from '@wick/plan/resin/suggest';
import { weightsOf } from '@wick/plan/resin/weights';
import { computed, inject, provide, proxyRefs, shallowRef, type InjectionKey } from 'vue';
import { useForecast, useSession } from '../../compute/use-desk.ts';
import { atRest } from '../../compute/at-rest.ts';
import { useLibraryStore } from '../../data/library-store.ts';
import { useShopStore } from '../../data/shop-store.ts';

/** Numbers of a model, or null where it refuses: what is missing is said by the forecast. */
function orNull<T>(work: () => T): T | null {
  try {
    return work();
  } catch (error) {
    if (error instanceof ModelError) return null;
    throw error;
  }
}

function createBench() {
  const job = useSession();
  const shop = useShopStore();
  const library = useLibraryStore();
  const forecast = useForecast();

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
  const draw = computed(() => flow.value && orNull(() => drawOf(job.laid, shop.shop, flow.value!)));
  const request = computed(
    () =>
      draw.value &&
      forecast.run &&
      orNull(() => scheduleRequestOf(job.laid, shop.shop, draw.value!, forecast.run!)),
  );
  const totals = computed(() => draw.value && draw.value.pots.map(({ total }) => total));
  const set = computed(() => batchesOf(job.laid, shop.shop, totals.value));

  /** A batch that a hand holds, at the time to which it has been drawn. */
  const held = shallowRef<{ readonly index: number; readonly mixedAt: number } | null>(null);
  const batches = computed((): readonly SetBatch[] => {
    const { value: hand } = held;
    if (!hand) return set.value;
    const preparation = preparationOf(job.laid);
    return set.value.map((batch, n) =>
      n === hand.index ? { ...batch, mixedAt: hand.mixedAt, pouredAt: hand.mixedAt + preparation } : batch,
    );
  });
  const faults = computed(() => (request.value ? faultsOf(request.value, batches.value) : []));
  /** The pot over time, a side of the doubt each. */
  const stocks = computed(() =>
    (draw.value?.pots ?? []).map((pot, n) => {
      const pours = batches.value
        .filter((batch) => batch.pot === n)
        .map(({ pouredAt, mass }) => ({ time: pouredAt, mass }));
      return {
        pot,
        middle: drawDown(pot.middle, pours, pot.heel),
        fast: drawDown(pot.fast, pours, pot.heel),
        slow: drawDown(pot.slow, pours, pot.heel),
      };
    }),
  );
  const suggestion = atRest(
    () => job.isGesturing || held.value !== null,
    () => flow.value && orNull(() => suggestFor(job.laid, shop.shop, flow.value!, library.materials)),
    null,
  );

  return {
    ...{ system, flow, ledger, weights, pots, draw, request, batches, held, faults, stocks, suggestion },
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
