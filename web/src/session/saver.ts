import type { StoredJob, WrittenJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import equal from 'fast-deep-equal';
import type { Drafts } from './drafts.ts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'refused' | 'conflict';

/** How a write came out. */
export type WriteOutcome =
  | { readonly kind: 'written'; readonly written: WrittenJob }
  | { readonly kind: 'stale'; readonly current: StoredJob }
  | { readonly kind: 'notReached'; readonly message: string }
  /** `isPassing` where it may be taken later as it is: the disk was full, the server in trouble. */
  | { readonly kind: 'refused'; readonly message: string; readonly isPassing: boolean };

interface SaverParts {
  readonly jobId: string;
  readonly drafts: Drafts;
  readonly write: (revision: number, document: Job) => Promise<WriteOutcome>;
  readonly onState: (state: SaveState, message: string) => void;
  readonly onWritten: (written: WrittenJob) => void;
  readonly onStale: (current: StoredJob) => void;
}

const SAVE_AFTER = 400;
const RETRY_AFTER = 3000;
const RETRY_REFUSED_AFTER = 10_000;

const STATES = { stale: 'conflict', notReached: 'offline', refused: 'refused' } as const;

const isOwn = (current: StoredJob, revision: number, sent: Job): boolean =>
  current.revision > revision && equal(current.document, sent);

/**
 * Writes the documents of one job, one at a time, the newest always last. A newer one that comes while a write is under way
 * is written after it, also when the job has been left meanwhile; until then it is kept as a draft.
 */
export function createSaver(parts: SaverParts, { revision }: { revision: number }) {
  const { jobId, drafts } = parts;
  let wanted: Job | null = null;
  let isWriting = false;
  let isHeld = false;
  let isLeft = false;
  let isAbandoned = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let atRest: (() => void)[] = [];

  function settle() {
    atRest.forEach((resolve) => resolve());
    atRest = [];
  }

  function schedule(after: number) {
    clearTimeout(timer);
    timer = setTimeout(() => void write(), after);
  }

  /** The document as it should be stored from now on. */
  function want(document: Job, after = SAVE_AFTER) {
    wanted = document;
    drafts.keep(jobId, { revision, document });
    if (isHeld) return;
    if (!isWriting) parts.onState('waiting', '');
    schedule(after);
  }

  async function write(): Promise<void> {
    clearTimeout(timer);
    if (isWriting || isHeld || wanted === null) return;
    const sent = wanted;
    isWriting = true;
    parts.onState('saving', '');
    const outcome = await parts.write(revision, sent);
    isWriting = false;
    if (!isAbandoned) take(outcome, sent);
  }

  function take(outcome: WriteOutcome, sent: Job) {
    if (outcome.kind === 'written') return takeWritten(outcome.written, sent);
    // The server had taken it and died before it could say so: that is no other hand.
    if (outcome.kind === 'stale' && isOwn(outcome.current, revision, sent))
      return takeWritten(outcome.current, sent);
    parts.onState(STATES[outcome.kind], 'message' in outcome ? outcome.message : '');
    if (outcome.kind === 'stale') {
      isHeld = true;
      parts.onStale(outcome.current);
    }
    if (outcome.kind === 'notReached' && !isLeft) return schedule(RETRY_AFTER);
    if (outcome.kind === 'refused' && outcome.isPassing && !isLeft) return schedule(RETRY_REFUSED_AFTER);
    // Left: the draft is there for whoever opens the job next.
    settle();
  }

  function takeWritten(written: WrittenJob, sent: Job) {
    ({ revision } = written);
    parts.onWritten(written);
    // A newer one has come meanwhile: its draft now starts from what was just written.
    if (wanted !== sent) return want(wanted!, 0);
    wanted = null;
    drafts.forget(jobId);
    parts.onState('saved', '');
    settle();
  }

  return {
    want,
    /** Nothing is written until someone has chosen between two versions. */
    hold: () => (isHeld = true),
    /** Goes on from what is stored now: with a document to write over it, or with that itself. */
    goOn(from: { revision: number }, document: Job | null) {
      ({ revision } = from);
      isHeld = false;
      wanted = document;
      if (document) return schedule(0);
      drafts.forget(jobId);
      parts.onState('saved', '');
    },
    /** Leaves the job: what is still to be written is, at once. Resolves when nothing more will come of it by itself. */
    async leave(): Promise<void> {
      isLeft = true;
      if (wanted === null || isHeld) return;
      const rest = new Promise<void>((resolve) => atRest.push(resolve));
      if (!isWriting) void write();
      return rest;
    },
    /** Lets go for good: someone else writes this job from now on. */
    abandon() {
      clearTimeout(timer);
      isAbandoned = isHeld = true;
      settle();
    },
  };
}
