import { hashOf } from '@wick/plan/forecast/key';
import type { LaidJob } from '@wick/plan/job/laid';
import type { CutSheet } from '@wick/plan/laminate/cut-sheet';
import { shallowRef, watch } from 'vue';
import { Cancelled } from './scheduler.ts';
import { useScheduler } from './use-desk.ts';

/** Everything that a cut sheet hangs on; names are told apart too, for they stand on it. */
const keyOf = ({ part, zones, laminate, materials }: LaidJob, overlap: number) =>
  `cut ${hashOf(JSON.stringify([part.outline, part.holes, zones, laminate, materials, overlap]))}`;

/** The cut sheet of a job, worked out aside; the one before stands until it is there. */
export function useCutSheet(job: () => LaidJob, overlap: () => number) {
  const scheduler = useScheduler();
  const sheet = shallowRef<CutSheet | null>(null);
  const message = shallowRef<string | null>(null);
  watch(
    () => [job(), overlap()] as const,
    async ([laid, lap], _before, onCleanup) => {
      const unwanted = new AbortController();
      onCleanup(() => unwanted.abort());
      try {
        sheet.value = await scheduler.want(
          keyOf(laid, lap),
          { kind: 'cut', job: laid, overlap: lap },
          { lane: 'board', signal: unwanted.signal },
        );
        message.value = null;
      } catch (error) {
        if (!(error instanceof Cancelled)) message.value = (error as Error).message;
      }
    },
    { immediate: true },
  );
  return { sheet, message };
}
