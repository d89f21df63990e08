import type { StoredJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job/job';
import type { Edit } from '@wick/plan/job/edits';
import { laidOut } from '@wick/plan/job/laid';
import { computed, ref, shallowRef } from 'vue';
import type { Drafts } from './drafts.ts';
import { createHistory } from './history.ts';
import { createSaver, type SaveState, type WriteOutcome } from './saver.ts';

export interface SessionParts {
  readonly drafts: Drafts;
  readonly write: (jobId: string, revision: number, document: Job) => Promise<WriteOutcome>;
}

export type JobSession = ReturnType<typeof createJobSession>;

/**
 * One open job: its document, undo history, and what is on its way to the server. Documents are never mutated; an edit that
 * changes nothing is no step.
 */
export function createJobSession(stored: StoredJob, { drafts, write }: SessionParts) {
  const { id } = stored;
  const document = shallowRef<Job>(stored.document);
  const revision = ref(stored.revision);
  const savedAt = ref(new Date(stored.changedAt));
  const saveState = ref<SaveState>('saved');
  const saveMessage = ref('');
  const conflict = shallowRef<StoredJob | null>(null);
  const isGesturing = ref(false);
  const history = createHistory<Job>();
  /** Document before the running gesture; a gesture is one undo step. */
  let gestureBase: Job | null = null;

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
  takeUpDraft();

  function takeUpDraft() {
    const draft = drafts.read(id);
    if (!draft) return;
    document.value = draft.document;
    if (draft.revision === stored.revision) return saver.want(draft.document, 0);
    saver.hold();
    conflict.value = stored;
    saveState.value = 'conflict';
  }

  /** One change, one undo step. */
  function apply(edit: Edit, label = 'change') {
    if (gestureBase) endGesture();
    const before = document.value;
    const after = edit(before);
    if (after === before) return;
    history.remember(before, label);
    document.value = after;
    saver.want(after);
  }

  /** A change while a gesture runs, always from where it began; many make one undo step at endGesture. */
  function preview(edit: Edit) {
    gestureBase ??= document.value;
    isGesturing.value = true;
    document.value = edit(gestureBase);
  }

  function endGesture(keep = true, label = 'drag') {
    const before = gestureBase;
    gestureBase = null;
    isGesturing.value = false;
    if (!before || document.value === before) return;
    if (!keep) document.value = before;
    else {
      history.remember(before, label);
      saver.want(document.value);
    }
  }

  function step(walk: (now: Job) => Job | null) {
    if (gestureBase) return;
    const target = walk(document.value);
    if (!target) return;
    document.value = target;
    saver.want(target);
  }

  /** Settles a stale write: keep this screen's version, or take the stored one (this screen's stays one undo away). */
  function resolveConflict(keep: 'mine' | 'theirs') {
    const theirs = conflict.value;
    if (!theirs) return;
    endGesture();
    conflict.value = null;
    revision.value = theirs.revision;
    savedAt.value = new Date(theirs.changedAt);
    if (keep === 'mine') return saver.goOn(theirs, document.value);
    history.remember(document.value, 'taking the other version');
    document.value = theirs.document;
    saver.goOn(theirs, null);
  }

  return {
    id,
    document,
    /** The job with the layout worked on laid on. */
    laid: computed(() => laidOut(document.value)),
    revision,
    savedAt,
    saveState,
    saveMessage,
    conflict,
    isGesturing,
    canUndo: computed(() => history.undoLabel.value !== null),
    canRedo: computed(() => history.redoLabel.value !== null),
    undoLabel: history.undoLabel,
    redoLabel: history.redoLabel,
    apply,
    preview,
    endGesture,
    undo: () => step(history.undo),
    redo: () => step(history.redo),
    resolveConflict,
    /** Ends the session: a gesture is given up, what is not written yet is. */
    leave(): Promise<void> {
      endGesture(false);
      return saver.leave();
    },
    abandon: saver.abandon,
  };
}
