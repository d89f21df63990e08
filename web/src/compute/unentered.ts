import {
  effectOf,
  runsFor,
  unenteredOf,
  type Unentered,
  type UnenteredEffect,
} from '@wick/plan/forecast/unentered';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { LaidJob } from '@wick/plan/job/laid';
import { computed, onScopeDispose, shallowRef, watch } from 'vue';
import { atRest } from './at-rest.ts';
import type { Desk } from './desk.ts';
import type { Forecast } from './forecast.ts';
import { flowTask } from './forecast-runs.ts';
import { Cancelled } from './scheduler.ts';

interface Asked {
  readonly job: LaidJob;
  readonly flow: FlowForecast;
  readonly items: readonly Unentered[];
}

/** What no entry says, and once the fine forecast is there what each of it does to the answer. */
export function createUnentered({ session, shop, scheduler }: Desk, forecast: Forecast) {
  const items = atRest(
    () => session.isGesturing,
    () => unenteredOf(session.laid, shop.shop),
    [] as Unentered[],
  );
  const effects = shallowRef<ReadonlyMap<string, UnenteredEffect>>(new Map());
  const asked = computed((): Asked | null => {
    const { solved, isUpToDate, verdict } = forecast;
    const isReady = solved.value?.isFine && isUpToDate.value && verdict.value && !session.isGesturing;
    return isReady ? { job: session.laid, flow: solved.value!.flow, items: items.value } : null;
  });
  let current = new AbortController();

  async function work({ job, flow, items: open }: Asked, { signal }: AbortController) {
    const known = new Map<string, UnenteredEffect>();
    for (const item of open) {
      try {
        const runs = runsFor(item, job).map(({ job: own, how }) => {
          const { key, task } = flowTask(own, shop.shop, how);
          return scheduler.want(key, task, { lane: 'doubt', signal });
        });
        const effect = effectOf(item, { shop: shop.shop, flow }, await Promise.all(runs));
        if (signal.aborted) return;
        if (effect) effects.value = new Map(known.set(item.id, effect));
      } catch (error) {
        // An end that the resin's data or the laminate cannot answer has no effect to tell.
        if (signal.aborted || error instanceof Cancelled) return;
      }
    }
  }

  watch(
    asked,
    (now) => {
      current.abort();
      effects.value = new Map();
      current = new AbortController();
      if (now) void work(now, current);
    },
    { immediate: true },
  );
  onScopeDispose(() => current.abort());

  return { items, effects };
}
