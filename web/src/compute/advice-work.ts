import { whyNoAdvice } from '@wick/plan/advice/score';
import { COARSE, type Resolution } from '@wick/plan/forecast/assess';
import { hashOf } from '@wick/plan/forecast/key';
import type { LaidJob } from '@wick/plan/job/laid';
import { settle } from '@wick/plan/settle';
import { computed, onScopeDispose, ref } from 'vue';
import type { Desk } from './desk.ts';
import { flowTask } from './forecast-runs.ts';
import { Cancelled } from './scheduler.ts';

type What = 'suggest' | 'mend';
export type AdviceWork = ReturnType<typeof createAdviceWork>;

/** One piece of advice at a time on the workers: what is at work, how far it is, and how it is given up. */
export function createAdviceWork({ session, shop, scheduler }: Desk) {
  /** What is running, how far it is, 0-1, and how many runs it has made. */
  const working = ref<What | null>(null);
  const progress = ref(0);
  const simulated = ref(0);
  const message = ref<string | null>(null);
  /** Mark of the job that the answers are of. */
  const madeFor = ref('');
  let current = new AbortController();

  /** Everything a suggestion depends on: the job without what is laid on it. */
  const mark = computed(() => {
    const { part, laminate, zones, resin, vacuum, doubt, materials } = session.laid;
    const own = zones.filter(({ purpose }) => purpose === 'part');
    // Where layers end is laid anew with every suggestion; what they are is not.
    const over = session.laid.layers.map(({ kind, materialId, except, side }) => [
      kind,
      materialId,
      except,
      side,
    ]);
    const settled = settle(session.laid, shop.shop);
    return hashOf([part, laminate, over, own, resin, vacuum, doubt, materials, settled]);
  });
  const isStale = computed(() => madeFor.value !== '' && madeFor.value !== mark.value);

  function cancel() {
    current.abort();
    working.value = null;
  }
  onScopeDispose(cancel);

  /** Runs one piece of advice to its end, its failure to a sentence. */
  async function work(what: What, todo: (signal: AbortSignal) => Promise<void>) {
    cancel();
    message.value = whyNoAdvice(session.laid);
    if (message.value) return;
    working.value = what;
    progress.value = simulated.value = 0;
    madeFor.value = mark.value;
    current = new AbortController();
    const { signal } = current;
    try {
      await todo(signal);
    } catch (error) {
      if (!(error instanceof Cancelled) && !signal.aborted) message.value = (error as Error).message;
    }
    if (!signal.aborted) cancel();
  }

  function score(job: LaidJob, how: 'quick' | 'thorough', signal: AbortSignal) {
    const task = { kind: 'score', job, shop: shop.shop, how } as const;
    return scheduler.want(`score ${hashOf(task)}`, task, { lane: 'advice', signal });
  }

  function picture(job: LaidJob, signal: AbortSignal, how: Resolution = COARSE) {
    const { key, task } = flowTask(job, shop.shop, how);
    return scheduler.want(key, task, { lane: 'advice', signal });
  }

  return { working, progress, simulated, message, isStale, cancel, work, score, picture };
}
