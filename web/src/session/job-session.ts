import type { StoredJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import { laidOut } from '@wick/plan/job/laid';
import { computed, ref, shallowRef } from 'vue';
import type { Draft, Drafts } from './drafts.ts';
import { createEditing } from './editing.ts';
import { createSaver, type SaveState, type WriteOutcome } from './saver.ts';

export interface SessionParts {
  readonly drafts: Drafts;
  readonly write: (jobId: string, revision: number, document: Job) => Promise<WriteOutcome>;
}

export type JobSession = ReturnType<typeof createJobSession>;

/** One open job: its document being edited, and what is on its way to the server. */
export function createJobSession(stored: StoredJob, { drafts, write }: SessionParts) {
  const { id } = stored;
  const revision = ref(stored.revision);
  const savedAt = ref(new Date(stored.changedAt));
  const saveState = ref<SaveState>('saved');
  const saveMessage = ref('');
  const conflict = shallowRef<StoredJob | null>(null);

  const saver = createSaver(
    {
      jobId: id,
      drafts,
      write: (from, sent) => write(id, from, sent),
      onState(state, message) {
        saveState.value = state;
        saveMessage.value = message;
      },
      onWritten(written) {
        revision.value = written.revision;
        savedAt.value = new Date(written.changedAt);
      },
      onStale: (current) => (conflict.value = current),
    },
    stored,
  );
  const draft = drafts.read(id);
  const editing = createEditing(draft?.document ?? stored.document, saver.want);
  const { document } = editing;
  if (draft) takeUp(draft);

  function takeUp(draft: Draft) {
    if (draft.revision === stored.revision) return saver.want(draft.document, 0);
    saver.hold();
    conflict.value = stored;
    saveState.value = 'conflict';
  }

  /** Settles a stale write: keep this screen's version, or take the stored one (this screen's stays one undo away). */
  function resolveConflict(keep: 'mine' | 'theirs') {
    const theirs = conflict.value;
    if (!theirs) return;
    editing.endGesture();
    conflict.value = null;
    revision.value = theirs.revision;
    savedAt.value = new Date(theirs.changedAt);
    if (keep === 'mine') return saver.goOn(theirs, document.value);
    editing.takeOver(theirs.document, 'taking the other version');
    saver.goOn(theirs, null);
  }

  return {
    id,
    ...editing,
    /** The job with the layout worked on laid on. */
    laid: computed(() => laidOut(document.value)),
    revision,
    savedAt,
    saveState,
    saveMessage,
    conflict,
    resolveConflict,
    /** Ends the session: a gesture is given up, what is not written yet is. */
    leave(): Promise<void> {
      editing.endGesture(false);
      return saver.leave();
    },
    abandon: saver.abandon,
  };
}
