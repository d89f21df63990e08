import { boundsOf } from '@wick/core/geometry/polygon';
import { summariseEnsemble, type EnsembleSample } from '@wick/core/verdict/ensemble';
import { hashOf, outcomeKeyOf } from '@wick/plan/forecast/key';
import { scatterOf } from '@wick/plan/forecast/doubt';
import type { LaidJob } from '@wick/plan/job/laid';
import { ModelError } from '@wick/core/model-error';
import { computed, onScopeDispose, ref, shallowRef } from 'vue';
import type { Desk } from './desk.ts';
import { Cancelled } from './scheduler.ts';

export const SAMPLE_RUNS = 200;
/** Places nearer than this share of the part's size count as one. */
const REACH = 0.08;

/** Many runs of the open job with its unknowns drawn at random; the board shows what they come to. */
export function createDoubt({ session, shop, scheduler }: Desk) {
  const samples = shallowRef<readonly EnsembleSample[]>([]);
  const message = ref<string | null>(null);
  const isRunning = ref(false);
  const madeFor = ref('');
  let current = new AbortController();

  const keyFor = (job: LaidJob): string => {
    try {
      return hashOf([outcomeKeyOf(job, shop.shop), scatterOf(job)]);
    } catch (error) {
      if (error instanceof ModelError) return '';
      throw error;
    }
  };
  const isStale = computed(() => samples.value.length > 0 && madeFor.value !== keyFor(session.laid));
  const summary = computed(() => {
    if (samples.value.length === 0) return null;
    const { minX, minY, maxX, maxY } = boundsOf(session.document.part.outline);
    return summariseEnsemble(samples.value, REACH * Math.max(maxX - minX, maxY - minY));
  });

  /** What all runs came to, while it is of the job as it stands. */
  const settled = computed(() =>
    samples.value.length === SAMPLE_RUNS && !isStale.value ? summary.value : null,
  );

  async function start() {
    cancel();
    const own = (current = new AbortController());
    const job = session.laid;
    const key = keyFor(job);
    madeFor.value = key;
    samples.value = [];
    message.value = null;
    isRunning.value = true;
    const one = async (index: number) => {
      const task = { kind: 'sample', job, shop: shop.shop, index } as const;
      const sample = await scheduler.want(`sample ${key} ${index}`, task, {
        lane: 'doubt',
        signal: own.signal,
      });
      if (own === current) samples.value = [...samples.value, sample];
    };
    try {
      await Promise.all(Array.from({ length: SAMPLE_RUNS }, (_, index) => one(index)));
    } catch (error) {
      if (!(error instanceof Cancelled) && own === current) message.value = (error as Error).message;
      own.abort();
    } finally {
      if (own === current) isRunning.value = false;
    }
  }

  function cancel() {
    current.abort();
    isRunning.value = false;
  }
  onScopeDispose(cancel);

  return { samples, summary, settled, message, isRunning, isStale, start, cancel };
}
