import { readJob } from '@wick/contract/job-file';
import type { Job } from '@wick/contract/job';

/** Unsaved work survives a reload or a stopped server in the browser's own storage. */
interface Draft {
  readonly revision: number;
  readonly document: Job;
}

const key = (id: string) => `wick-draft-${id}`;

export function keepDraft(id: string, revision: number, document: Job) {
  try {
    localStorage.setItem(key(id), JSON.stringify({ revision, document }));
  } catch {
    // Storage may be full or switched off; the server still gets the change.
  }
}

export function forgetDraft(id: string) {
  localStorage.removeItem(key(id));
}

export function readDraft(id: string): Draft | null {
  const text = localStorage.getItem(key(id));
  if (!text) return null;
  try {
    const { revision, document } = JSON.parse(text) as { revision: number; document: unknown };
    const read = readJob(document);
    if (read.ok && Number.isInteger(revision)) return { revision, document: read.value };
  } catch {
    // An unreadable draft is of no use to anyone.
  }
  forgetDraft(id);
  return null;
}
