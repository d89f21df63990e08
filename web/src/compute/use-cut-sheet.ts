import { hashOf } from '@wick/plan/forecast/key';
import type { LaidJob } from '@wick/plan/job/laid';
import { whatItHangsOn, type CutSheet } from '@wick/plan/laminate/cut-sheet';
import { shallowRef, watch } from 'vue';
import { Cancelled } from './scheduler.ts';
import { useScheduler } from './use-desk.ts';

/** As text, for the hash of a record leaves names out. */
const keyOf = (job: LaidJob, overlap: number) => `cut ${hashOf(JSON.stringify(whatItHangsOn(job, overlap)))}`;

/** The cut sheet of a job, worked out aside; the one before stands until it is there. */
export function useCutSheet(job: () => LaidJob, overlap: () => number) {
  const scheduler = useScheduler();
  const sheet = shallowRef<CutSheet | null>(null);
  const message = shallowRef<string | null>(null);
  /** What stands is of the job as it was before. */
  const isBehind = shallowRef(true);
  watch(
    () => [job(), overlap()] as const,
    async ([laid, lap], _before, onCleanup) => {
      const unwanted = new AbortController();
      onCleanup(() => unwanted.abort());
      isBehind.value = true;
      try {
        sheet.value = await scheduler.want(
          keyOf(laid, lap),
          { kind: 'cut', job: laid, overlap: lap },
          { lane: 'board', signal: unwanted.signal },
        );
        message.value = null;
        isBehind.value = false;
      } catch (error) {
        if (!(error instanceof Cancelled)) message.value = (error as Error).message;
      }
    },
    { immediate: true },
  );
  return { sheet, message, isBehind };
}
