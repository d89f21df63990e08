import { storedJobSchema } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import { newId } from '@wick/plan/job/ids';
import { createScheduler } from '../../compute/scheduler.ts';
import type { WorkerLike } from '../../compute/slots.ts';
import { api, ApiProblem, isPassing, NotReached } from '../../data/api.ts';
import { createBrowserDrafts } from '../../session/drafts.ts';
import type { WriteOutcome } from '../../session/saver.ts';
import { createSessions } from '../../session/sessions.ts';
import { announceTab } from '../../session/tabs.ts';

/** A write as the saver takes it: nothing is thrown. */
async function write(jobId: string, revision: number, document: Job): Promise<WriteOutcome> {
  try {
    return { kind: 'written', written: await api.writeJob(jobId, revision, document) };
  } catch (error) {
    const { message } = error as Error;
    if (error instanceof NotReached) return { kind: 'notReached', message };
    if (error instanceof ApiProblem && error.problem.code === 'STALE') {
      const current = storedJobSchema.safeParse(error.problem.current);
      if (current.success) return { kind: 'stale', current: current.data };
    }
    return {
      kind: 'refused',
      message,
      isPassing: !(error instanceof ApiProblem) || isPassing(error),
    };
  }
}

const tab = newId();
const openTabs = announceTab(tab, navigator.locks);

/** Sessions against the server, unsaved work kept by the browser. */
export const sessions = createSessions({
  read: api.getJob,
  write,
  drafts: createBrowserDrafts(tab, openTabs),
});

/** Most workers, whatever the machine has. */
const MOST_WORKERS = 8;

/** One pool of workers for the whole application, no larger than the machine has cores. */
export const scheduler = createScheduler(
  () =>
    new Worker(new URL('../../compute/flow.worker.ts', import.meta.url), { type: 'module' }) as WorkerLike,
  Math.max(1, Math.min(MOST_WORKERS, navigator.hardwareConcurrency || 2)),
);
