import type { StoredJob } from '@wick/contract/api';
import type { Job } from '@wick/contract/job';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { api, ApiProblem, NotReached } from '../api/client.ts';
import { forgetDraft, keepDraft, readDraft } from './drafts.ts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'refused' | 'conflict';

const STEPS = 100;
const SAVE_AFTER = 400;
const RETRY_AFTER = 3000;

/** The open job: its document, undo history and autosave. Documents are never mutated, so history shares what did not change. */
export const useJobStore = defineStore('job', () => {
  const id = ref<string | null>(null);
  const document = shallowRef<Job | null>(null);
  const revision = ref(0);
  const savedAt = ref<Date | null>(null);
  const saveState = ref<SaveState>('saved');
  const saveMessage = ref('');
  const conflict = shallowRef<StoredJob | null>(null);
  const past = shallowRef<readonly Job[]>([]);
  const future = shallowRef<readonly Job[]>([]);
  /** Document before the running gesture; a gesture is one undo step. */
  let gestureBase: Job | null = null;
  const isGesturing = ref(false);
  let stored: Job | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let writing = false;

  async function open(jobId: string) {
    close();
    const job = await api.getJob(jobId);
    id.value = jobId;
    adopt(job);
    document.value = job.document;
    const draft = readDraft(jobId);
    if (!draft) return;
    document.value = draft.document;
    if (draft.revision === job.revision) schedule(0);
    else showConflict(job);
  }

  function close() {
    clearTimeout(timer);
    if (id.value && document.value !== stored) void save();
    id.value = null;
    document.value = null;
    conflict.value = null;
    past.value = [];
    future.value = [];
    saveState.value = 'saved';
    gestureBase = null;
    isGesturing.value = false;
  }

  function adopt(job: StoredJob) {
    revision.value = job.revision;
    savedAt.value = new Date(job.changedAt);
    stored = job.document;
  }

  function remember(before: Job) {
    past.value = [...past.value.slice(-(STEPS - 1)), before];
    future.value = [];
  }

  /** One change, one undo step. */
  function apply(change: (job: Job) => Job) {
    if (!document.value) return;
    const before = document.value;
    const after = change(before);
    if (after === before) return;
    remember(before);
    document.value = after;
    schedule();
  }

  /** What the program itself notes in the job: saved, but no step to undo. */
  function note(change: (job: Job) => Job) {
    if (!document.value || gestureBase) return;
    const after = change(document.value);
    if (after === document.value) return;
    document.value = after;
    schedule();
  }

  /** A change while a gesture runs; many make one undo step at endGesture. */
  function preview(change: (job: Job) => Job) {
    if (!document.value) return;
    gestureBase ??= document.value;
    isGesturing.value = true;
    document.value = change(gestureBase);
  }

  function endGesture(keep = true) {
    const before = gestureBase;
    gestureBase = null;
    isGesturing.value = false;
    if (!before || document.value === before) return;
    if (!keep) document.value = before;
    else {
      remember(before);
      schedule();
    }
  }

  function step(from: typeof past, to: typeof past) {
    const target = from.value[from.value.length - 1];
    if (!target || !document.value || isGesturing.value) return;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, document.value];
    document.value = target;
    schedule();
  }

  function schedule(after = SAVE_AFTER) {
    if (!id.value || !document.value) return;
    keepDraft(id.value, revision.value, document.value);
    if (saveState.value === 'conflict') return;
    saveState.value = 'waiting';
    clearTimeout(timer);
    timer = setTimeout(() => void save(), after);
  }

  async function save() {
    const [jobId, sent] = [id.value, document.value];
    if (!jobId || !sent || writing) return;
    writing = true;
    saveState.value = 'saving';
    try {
      const answer = await api.writeJob(jobId, revision.value, sent);
      if (id.value !== jobId) return forgetDraft(jobId);
      adopt(answer);
      stored = sent;
      if (document.value === sent || isGesturing.value) forgetDraft(jobId);
      saveState.value = 'saved';
    } catch (error) {
      if (id.value === jobId) onSaveFailed(error);
    } finally {
      writing = false;
      if (saveState.value === 'saved' && id.value === jobId && document.value !== sent && !isGesturing.value)
        schedule(0);
    }
  }

  function onSaveFailed(error: unknown) {
    saveMessage.value = (error as Error).message;
    if (error instanceof ApiProblem && error.problem.code === 'STALE')
      showConflict(error.problem.current as StoredJob);
    else if (error instanceof NotReached) {
      saveState.value = 'offline';
      timer = setTimeout(() => void save(), RETRY_AFTER);
    } else saveState.value = 'refused';
  }

  function showConflict(theirs: StoredJob) {
    conflict.value = theirs;
    saveState.value = 'conflict';
  }

  /** Settles a stale write: keep this screen's version, or take the stored one (this screen's stays one undo away). */
  function resolveConflict(keep: 'mine' | 'theirs') {
    const theirs = conflict.value;
    if (!theirs || !document.value) return;
    conflict.value = null;
    saveState.value = 'saved';
    adopt(theirs);
    if (keep === 'mine') return schedule(0);
    remember(document.value);
    document.value = theirs.document;
    if (id.value) forgetDraft(id.value);
  }

  return {
    id,
    document,
    revision,
    savedAt,
    saveState,
    saveMessage,
    conflict,
    isGesturing,
    canUndo: computed(() => past.value.length > 0),
    canRedo: computed(() => future.value.length > 0),
    open,
    close,
    apply,
    note,
    preview,
    endGesture,
    undo: () => step(past, future),
    redo: () => step(future, past),
    resolveConflict,
  };
});
