import { layDrafts, layoutWords, reasonWords, scoreOf, whyNoAdvice } from '@wick/contract/advice';
import { COARSE, verdictOf } from '@wick/contract/assess';
import { partShapeOf } from '@wick/contract/fit-layout';
import { MOST_VARIANTS, type Job } from '@wick/contract/job';
import { findRepairs, remediesFor, type Repair } from '@wick/contract/mend';
import { copyLayout, currentVariant, fingerprintOf, outcomeOf, withLayout } from '@wick/contract/outcome';
import type { LayoutScore } from '@wick/core/advice/score';
import { searchLayouts, type Proposal } from '@wick/core/advice/search';
import type { FlowForecast } from '@wick/core/flow/forecast';
import { defineStore } from 'pinia';
import { markRaw, ref, shallowRef, toRaw, watch } from 'vue';
import { createPool, type WorkerPool } from '../workers/worker-pool.ts';
import { useForecastStore } from './forecast-store.ts';
import { useJobStore } from './job-store.ts';
import { useLayoutsStore } from './layouts-store.ts';
import { useLibraryStore } from './library-store.ts';
import { useShopStore } from './shop-store.ts';

/** A proposed layout with its picture. */
export interface Suggestion {
  readonly key: string;
  readonly words: string;
  readonly reason: string;
  readonly score: LayoutScore;
  readonly job: Job;
  readonly flow: FlowForecast | null;
}

/** Suggested layouts, and what would mend the one there is: simulated in a pool of workers, with progress and cancel. */
export const useAdviceStore = defineStore('advice', () => {
  const job = useJobStore();
  const shop = useShopStore();
  const library = useLibraryStore();
  const forecast = useForecastStore();
  const layouts = useLayoutsStore();
  const suggestions = shallowRef<readonly Suggestion[]>([]);
  const repairs = shallowRef<readonly Repair[] | null>(null);
  /** What is running, how far it is, 0-1, and how many runs it has made. */
  const working = ref<'suggest' | 'mend' | null>(null);
  const progress = ref(0);
  const simulated = ref(0);
  const message = ref<string | null>(null);
  /** Mark of the job that the answers are of. */
  const madeFor = ref('');
  let pool: WorkerPool | null = null;

  const markOf = (document: Job) => {
    const bare = { ...document, lines: [], tees: [], stations: [], meshAreas: [], zones: [] };
    return `${document.name} ${fingerprintOf(bare, shop.shop)}`;
  };
  const isStale = () => job.document !== null && madeFor.value !== markOf(job.document);

  function start(what: 'suggest' | 'mend') {
    cancel();
    message.value = whyNoAdvice(job.document!);
    if (message.value) return null;
    working.value = what;
    progress.value = simulated.value = 0;
    madeFor.value = markOf(job.document!);
    return (pool = createPool());
  }

  function cancel() {
    pool?.close();
    pool = null;
    working.value = null;
  }

  // Advice is of one job: on another its lines would be nonsense.
  watch(
    () => job.id,
    () => {
      cancel();
      suggestions.value = [];
      repairs.value = null;
      message.value = null;
    },
  );

  async function suggest() {
    const own = start('suggest');
    if (!own) return;
    suggestions.value = [];
    const document = toRaw(job.document!);
    const workshop = structuredClone(toRaw(shop.shop));
    const show = (best: readonly Proposal[]) => {
      const scores = best.map(({ score }) => score);
      suggestions.value = best.map(({ request, drafts, score }) => {
        const key = JSON.stringify(drafts);
        const old = suggestions.value.find((item) => item.key === key);
        return {
          key,
          words: layoutWords(request),
          reason: reasonWords(score, scores),
          score,
          job: old?.job ?? layDrafts(document, drafts),
          flow: old?.flow ?? null,
        };
      });
    };
    try {
      const found = await searchLayouts({
        part: partShapeOf(document),
        simulate: (drafts, how) =>
          own.submit((worker) => worker.score(layDrafts(document, drafts), workshop, how)),
        onProgress: ({ done, simulated: count, best }) => {
          if (pool !== own) return;
          progress.value = 0.95 * done;
          simulated.value = count;
          show(best);
        },
      });
      if (pool !== own) return;
      show(found);
      await Promise.all(
        suggestions.value.map(async ({ job: laid }) => {
          const flow = await own.submit((worker) => worker.run(laid, workshop, COARSE));
          suggestions.value = suggestions.value.map((item) =>
            item.job === laid ? { ...item, flow: markRaw(flow) } : item,
          );
        }),
      );
    } catch (error) {
      message.value = (error as Error).message;
    }
    if (pool === own) cancel();
  }

  async function mend() {
    const own = start('mend');
    if (!own) return;
    repairs.value = null;
    const document = toRaw(job.document!);
    const workshop = structuredClone(toRaw(shop.shop));
    const { flow } = forecast;
    try {
      const remedies = remediesFor(document, {
        shop: shop.shop,
        materials: library.materials,
        lastPlace: flow?.dryRegions[0]?.place ?? flow?.lastPlace ?? { x: 0, y: 0 },
        show: shop.show,
        thinHoses: (flow?.findings ?? []).flatMap((f) => (f.kind === 'hoseTakes' ? [f.name] : [])),
      });
      const found = await findRepairs(
        document,
        remedies,
        (changed) => own.submit((worker) => worker.score(changed, workshop, 'quick')),
        (done) => (progress.value = 0.8 * done),
      );
      if (pool !== own) return;
      // What is shown is simulated as finely as the board's own quick forecast.
      const confirmed = await Promise.all(
        found.slice(0, 7).map(async (repair): Promise<Repair | null> => {
          const changed = repair.apply(document);
          const run = await own.submit((worker) => worker.run(changed, workshop, COARSE));
          const verdict = verdictOf(changed, shop.shop, run);
          if (!verdict) return null;
          const score = scoreOf(changed, shop.shop, outcomeOf(changed, shop.shop, run, verdict));
          return { ...repair, score, isEnough: verdict.band === 'comfortable' || verdict.band === 'tight' };
        }),
      );
      if (pool !== own) return;
      const known = confirmed.filter((repair) => repair !== null);
      repairs.value = [...known.filter((r) => r.isEnough), ...known.filter((r) => !r.isEnough)];
    } catch (error) {
      message.value = (error as Error).message;
    }
    if (pool === own) cancel();
  }

  /** Keeps the present layout under its letter and goes on with the suggested one under the next; false when there is no room. */
  function takeUp({ job: laid, words }: Suggestion) {
    if (job.document!.variants.length >= MOST_VARIANTS) {
      message.value = 'There is no room for a further layout. Delete one under Layouts first.';
      return false;
    }
    const outcome = layouts.currentOutcome;
    job.apply((document) => {
      const kept = copyLayout(document, outcome);
      return withLayout(kept, {
        ...currentVariant(laid, null),
        letter: kept.layout.letter,
        name: words.slice(0, 40),
      });
    });
    return true;
  }

  /** Does it, once: the other changes were simulated on the job as it was. */
  function apply(repair: Repair) {
    job.apply((document) => repair.apply(document));
    repairs.value = null;
  }

  return {
    suggestions,
    repairs,
    working,
    progress,
    simulated,
    message,
    isStale,
    suggest,
    mend,
    cancel,
    takeUp,
    apply,
  };
});
