import type { Shop } from '@wick/contract/shop';
import { orNull } from '@wick/core/model-error';
import { hashOf, keyOf } from '@wick/plan/forecast/key';
import { problemOf } from '@wick/plan/forecast/problem';
import { shapeIdsOf, withoutCommon, type SolvedShape } from '@wick/plan/infusion/problem-shapes';
import type { LaidJob } from '@wick/plan/job/laid';
import { runConditionsOf } from '@wick/plan/resin/run';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import { Cancelled, type Scheduler } from './scheduler.ts';

/** Ways in which a part may be, solved in the background while somebody mixes. @param of null while nobody wants them */
export function createShapes(scheduler: Scheduler, of: () => { job: LaidJob; shop: Shop } | null) {
  const solved = shallowRef<readonly SolvedShape[]>([]);
  const message = ref<string | null>(null);
  const wanted = ref(0);
  let current = new AbortController();
  onScopeDispose(() => current.abort());
  const key = computed(() => {
    const about = of();
    return about && orNull(() => keyOf(problemOf(about.job, about.shop)));
  });

  async function solveAll(): Promise<void> {
    current.abort();
    const own = (current = new AbortController());
    const about = of();
    solved.value = [];
    if (!about || key.value === null || !runConditionsOf(about.job, about.shop)) return;
    const { job, shop } = about;
    const ids = shapeIdsOf(job, shop);
    const base = hashOf([key.value, job.resin, job.doubt, job.materials]);
    wanted.value = ids.length;
    message.value = null;
    const found = new Map<string, SolvedShape>();
    const one = async (id: string) => {
      const lane = id === 'plan' ? 'board' : 'doubt';
      const shape = await scheduler
        .want(
          `shape ${base} ${id}`,
          { kind: 'shape', asked: { job, shop, id } },
          { lane, signal: own.signal },
        )
        .catch((error: unknown) => {
          // One that cannot be is left out; without the plan's own there is no answer.
          if (!(error instanceof Cancelled) && id === 'plan') message.value = (error as Error).message;
          return null;
        });
      if (own !== current || !shape) return;
      found.set(id, shape);
      solved.value = withoutCommon(ids.flatMap((each) => found.get(each) ?? []));
    };
    await Promise.all(ids.map(one));
  }
  watch(key, () => void solveAll(), { immediate: true });

  return { solved, message, wanted, hasPlan: computed(() => solved.value[0]?.id === 'plan') };
}
