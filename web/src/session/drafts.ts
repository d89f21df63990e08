import type { Job } from '@wick/contract/job/job';
import { readUnfinished } from '@wick/plan/files/job-file';

/** Unsaved work, and the revision it started from. */
export interface Draft {
  readonly revision: number;
  readonly document: Job;
}

/** Where unsaved work survives a reload or a stopped server. */
export interface Drafts {
  /** Takes over what a tab that is gone has left of a job, where this one has nothing of its own. */
  adopt(jobId: string): Promise<void>;
  keep(jobId: string, draft: Draft): void;
  /** Null where there is none; one that cannot be read is dropped. */
  read(jobId: string): Draft | null;
  forget(jobId: string): void;
}

/** Names of the tabs that are open. */
export type OpenTabs = () => Promise<ReadonlySet<string>>;

/** Drafts in the browser's own storage, each tab's beside the others'. */
export function createBrowserDrafts(tab: string, openTabs: OpenTabs): Drafts {
  const prefix = (jobId: string) => `wick-draft-${jobId}`;
  const own = (jobId: string) => `${prefix(jobId)} ${tab}`;
  return {
    async adopt(jobId) {
      if (localStorage.getItem(own(jobId)) !== null) return;
      const open = await openTabs();
      const left = Object.keys(localStorage).find((key) => {
        const [name, of] = key.split(' ');
        // Earlier versions named no tab.
        return name === prefix(jobId) && (of === undefined || !open.has(of));
      });
      const text = left === undefined ? null : localStorage.getItem(left);
      if (left === undefined || text === null) return;
      // Written before it is taken away: a tab that ends in between leaves two, and never none.
      localStorage.setItem(own(jobId), text);
      localStorage.removeItem(left);
    },
    keep(jobId, draft) {
      try {
        localStorage.setItem(own(jobId), JSON.stringify(draft));
      } catch {
        // Storage may be full or switched off; the server still gets the change.
      }
    },
    read(jobId) {
      const text = localStorage.getItem(own(jobId));
      if (!text) return null;
      try {
        const { revision, document } = JSON.parse(text) as { revision: number; document: unknown };
        const read = readUnfinished(document);
        if (read.ok && Number.isInteger(revision)) return { revision, document: read.value };
      } catch {
        // An unreadable draft is of no use to anyone.
      }
      localStorage.removeItem(own(jobId));
      return null;
    },
    forget: (jobId) => localStorage.removeItem(own(jobId)),
  };
}
