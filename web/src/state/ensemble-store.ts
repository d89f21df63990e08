import { boundsOf } from '@wick/core/geometry/polygon';
import { summariseEnsemble, type EnsembleSample } from '@wick/core/verdict/ensemble';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, toRaw, watch } from 'vue';
import { runSamples, type SampleRun } from '../workers/sample-pool.ts';
import { useJobStore } from './job-store.ts';
import { useShopStore } from './shop-store.ts';

export const ENSEMBLE_RUNS = 200;
/** Places nearer than this share of the part's size count as one. */
const REACH = 0.08;

/** Many runs of the open job with its unknowns drawn at random; the board shows what they come to. */
export const useEnsembleStore = defineStore('ensemble', () => {
  const job = useJobStore();
  const shop = useShopStore();
  const samples = shallowRef<readonly EnsembleSample[]>([]);
  const message = ref<string | null>(null);
  const run = shallowRef<SampleRun | null>(null);
  const of = shallowRef<object | null>(null);

  const isStale = computed(() => samples.value.length > 0 && of.value !== toRaw(job.document));
  const summary = computed(() => {
    if (samples.value.length === 0 || !job.document) return null;
    const { minX, minY, maxX, maxY } = boundsOf(job.document.part.outline);
    return summariseEnsemble(samples.value, REACH * Math.max(maxX - minX, maxY - minY));
  });

  async function start() {
    cancel();
    of.value = toRaw(job.document);
    samples.value = [];
    message.value = null;
    const task = {
      job: structuredClone(toRaw(job.document!)),
      shop: structuredClone(toRaw(shop.shop)),
      count: ENSEMBLE_RUNS,
    };
    const started = runSamples(task, (sample) => (samples.value = [...samples.value, sample]));
    run.value = started;
    try {
      await started.done;
    } catch (error) {
      message.value = (error as Error).message;
    }
    if (run.value === started) run.value = null;
  }

  function cancel() {
    run.value?.cancel();
    run.value = null;
  }

  watch(
    () => job.id,
    () => {
      cancel();
      samples.value = [];
    },
  );

  return { samples, summary, message, run, isStale, start, cancel };
});
