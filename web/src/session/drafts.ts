import type { Job } from '@wick/contract/job/job';
import { readUnfinished } from '@wick/plan/files/job-file';

/** Unsaved work, and the revision it started from. */
export interface Draft {
  readonly revision: number;
  readonly document: Job;
}

/** Where unsaved work survives a reload or a stopped server. */
export interface Drafts {
  keep(jobId: string, draft: Draft): void;
  /** Null where there is none; one that cannot be read is dropped. */
  read(jobId: string): Draft | null;
  forget(jobId: string): void;
}

const key = (jobId: string) => `wick-draft-${jobId}`;

/** Drafts in the browser's own storage. */
export const browserDrafts: Drafts = {
  keep(jobId, draft) {
    try {
      localStorage.setItem(key(jobId), JSON.stringify(draft));
    } catch {
      // Storage may be full or switched off; the server still gets the change.
    }
  },
  read(jobId) {
    const text = localStorage.getItem(key(jobId));
    if (!text) return null;
    try {
      const { revision, document } = JSON.parse(text) as { revision: number; document: unknown };
      const read = readUnfinished(document);
      if (read.ok && Number.isInteger(revision)) return { revision, document: read.value };
    } catch {
      // An unreadable draft is of no use to anyone.
    }
    localStorage.removeItem(key(jobId));
    return null;
  },
  forget: (jobId) => localStorage.removeItem(key(jobId)),
};
