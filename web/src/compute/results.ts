import type { JobResult } from '@wick/contract/job/result';
import { shallowRef } from 'vue';

export interface ResultsParts {
  readonly read: () => Promise<JobResult[]>;
  readonly keep: (results: JobResult[]) => Promise<void>;
}

export type ResultsShelf = ReturnType<typeof createResults>;

/** What the layouts of a job came to, by key, beside the job: read once, kept when something new was worked out. */
export function createResults({ read, keep }: ResultsParts) {
  const byLayout = shallowRef<ReadonlyMap<string, JobResult>>(new Map());

  const put = (results: readonly JobResult[]) =>
    (byLayout.value = new Map([...byLayout.value, ...results.map((item) => [item.layoutId, item] as const)]));

  return {
    byLayout,
    /** Results of an earlier sitting; without them everything is worked out again. */
    async load() {
      const earlier = await read().catch((): JobResult[] => []);
      put(earlier.filter(({ layoutId }) => !byLayout.value.has(layoutId)));
    },
    /** Notes a result in place of any other of its layout, were that of the same problem run more roughly; the same one is not written again. */
    async note(result: JobResult) {
      if (isSame(byLayout.value.get(result.layoutId), result)) return;
      put([result]);
      // A result can be worked out again: that it was not kept is no harm.
      await keep([result]).catch(() => undefined);
    },
  };
}

const isSame = (known: JobResult | undefined, result: JobResult) =>
  JSON.stringify(known && [known.key, known.outcome]) === JSON.stringify([result.key, result.outcome]);
