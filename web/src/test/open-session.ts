import type { StoredJob, WrittenJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import { proxyRefs } from 'vue';
import type { Draft, Drafts } from '../session/drafts.ts';
import { createJobSession } from '../session/job-session.ts';
import type { WriteOutcome } from '../session/saver.ts';

export const storedAs = (document: Job, revision = 1, id = 'j'): StoredJob => ({
  id,
  revision,
  changedAt: '2026-01-01T10:00:00Z',
  document,
});

/** Drafts that outlive a session, as a browser's do. */
export function memoryDrafts(): Drafts & { readonly items: Map<string, Draft> } {
  const items = new Map<string, Draft>();
  return {
    items,
    adopt: async () => undefined,
    keep: (jobId, draft) => void items.set(jobId, draft),
    read: (jobId) => items.get(jobId) ?? null,
    forget: (jobId) => void items.delete(jobId),
  };
}

/** A session of a job whose writes always go well. */
export function openSession(document: Job) {
  let revision = 1;
  const write = async (): Promise<WriteOutcome> => {
    const written: WrittenJob = { revision: ++revision, changedAt: '2026-01-01T10:00:00Z' };
    return { kind: 'written', written };
  };
  return proxyRefs(createJobSession(storedAs(document), { drafts: memoryDrafts(), write }));
}
