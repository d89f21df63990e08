import { COARSE, verdictOf } from '@wick/contract/assess';
import { runConditionsOf } from '@wick/contract/forecast-input';
import type { Job, JobVariant, Outcome } from '@wick/contract/job';
import { adoptLayout, copyLayout, fingerprintOf, outcomeOf, withLayout } from '@wick/contract/outcome';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { defineStore } from 'pinia';
import { computed, markRaw, ref, shallowRef, toRaw, watch } from 'vue';
import { createPool, type WorkerPool } from '../workers/worker-pool.ts';
import { useForecastStore } from './forecast-store.ts';
import { useJobStore } from './job-store.ts';
import { useShopStore } from './shop-store.ts';

/** One layout of the job, ready to be shown beside the others. */
export interface LayoutEntry {
  readonly letter: string;
  readonly name: string;
  readonly isCurrent: boolean;
  /** The job with this layout laid on. */
  readonly job: Job;
  /** What it came to; out of date when the job has changed under it since. */
  readonly outcome: Outcome | null;
  readonly isStale: boolean;
  readonly flow: FlowForecast | null;
}

/** The layouts of the open job: pictures of all of them from coarse runs, results kept with each. */
export const useLayoutsStore = defineStore('layouts', () => {
  const job = useJobStore();
  const shop = useShopStore();
  const forecast = useForecastStore();
  /** Coarse runs by what they depend on. */
  const flows = shallowRef<ReadonlyMap<string, FlowForecast>>(new Map());
  const message = ref<string | null>(null);
  const running = ref(0);
  let pool: WorkerPool | null = null;

  /** Of the layout worked on, once its fine forecast is there. */
  const currentOutcome = computed<Outcome | null>(() => {
    const { solved, verdict } = forecast;
    const document = job.document;
    if (
      !document ||
      !forecast.isUpToDate ||
      !solved?.isFine ||
      !verdict ||
      !runConditionsOf(document, shop.shop)
    )
      return null;
    return outcomeOf(document, shop.shop, solved.flow, verdict);
  });

  const entries = computed<LayoutEntry[]>(() => {
    const document = job.document;
    if (!document) return [];
    const entryOf = (own: Job, isCurrent: boolean, outcome: Outcome | null): LayoutEntry => {
      const mark = fingerprintOf(own, shop.shop);
      return {
        ...own.layout,
        isCurrent,
        job: own,
        outcome,
        isStale: outcome !== null && outcome.fingerprint !== mark,
        flow: flows.value.get(mark) ?? (isCurrent ? forecast.flow : null),
      };
    };
    const others = document.variants.map((variant) =>
      entryOf(withLayout(document, variant), false, variant.outcome),
    );
    return [entryOf(document, true, currentOutcome.value), ...others].sort((a, b) =>
      a.letter < b.letter ? -1 : 1,
    );
  });

  /** Runs every layout that has no picture or no result yet, and keeps what it comes to with it. */
  async function refresh() {
    stop();
    message.value = null;
    const wanted = entries.value.filter(
      ({ isCurrent, flow, outcome, isStale }) => !isCurrent && (!flow || !outcome || isStale),
    );
    if (wanted.length === 0) return;
    const own = (pool = createPool());
    running.value = wanted.length;
    const workshop = structuredClone(toRaw(shop.shop));
    await Promise.all(
      wanted.map(async ({ letter, job: laid }) => {
        try {
          const flow = await own.submit((worker) => worker.run(toRaw(laid), workshop, COARSE));
          flows.value = new Map([...flows.value, [fingerprintOf(laid, shop.shop), markRaw(flow)]]);
          const verdict = verdictOf(laid, shop.shop, flow);
          if (verdict) keep(letter, outcomeOf(laid, shop.shop, flow, verdict));
        } catch (error) {
          message.value = `Layout ${letter}: ${(error as Error).message}`;
        } finally {
          running.value = Math.max(0, running.value - 1);
        }
      }),
    );
    if (pool === own) stop();
  }

  function keep(letter: string, outcome: Outcome) {
    job.note((document) => {
      const variants = document.variants.map((variant): JobVariant =>
        variant.letter === letter ? { ...variant, outcome } : variant,
      );
      return { ...document, variants };
    });
  }

  watch(
    () => job.id,
    () => {
      stop();
      flows.value = new Map();
    },
  );

  function stop() {
    pool?.close();
    pool = null;
    running.value = 0;
  }

  const copy = (name = '') => job.apply((document) => copyLayout(document, currentOutcome.value, name));
  const adopt = (letter: string) =>
    job.apply((document) => adoptLayout(document, letter, currentOutcome.value));
  const remove = (letter: string) =>
    job.apply((document) => ({
      ...document,
      variants: document.variants.filter((v) => v.letter !== letter),
    }));
  const rename = (letter: string, name: string) =>
    job.apply((document) => ({
      ...document,
      layout: document.layout.letter === letter ? { letter, name } : document.layout,
      variants: document.variants.map((v) => (v.letter === letter ? { ...v, name } : v)),
    }));

  return { entries, currentOutcome, message, running, refresh, stop, copy, adopt, remove, rename };
});
