import type { Job } from '@wick/contract/job/job';
import type { Edit } from '@wick/plan/job/edits';
import { computed, ref, shallowRef } from 'vue';
import { createHistory } from './history.ts';

/**
 * A document that is edited, with undo. Documents are never mutated; an edit that changes nothing is no step.
 * @param onChange is told what should be stored from now on: not every moment of a gesture, but its end
 */
export function createEditing(start: Job, onChange: (document: Job) => void) {
  const document = shallowRef(start);
  const isGesturing = ref(false);
  const history = createHistory<Job>();
  /** Document before the running gesture; a gesture is one undo step. */
  let gestureBase: Job | null = null;

  /** One change, one undo step. */
  function apply(edit: Edit, label = 'change') {
    if (gestureBase) endGesture();
    const before = document.value;
    const after = edit(before);
    if (after === before) return;
    history.remember(before, label);
    document.value = after;
    onChange(after);
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
      onChange(document.value);
    }
  }

  function step(walk: (now: Job) => Job | null) {
    if (gestureBase) return;
    const target = walk(document.value);
    if (!target) return;
    document.value = target;
    onChange(target);
  }

  /** Another document in its place that is stored already; the present one stays one undo away. */
  function takeOver(other: Job, label: string) {
    history.remember(document.value, label);
    document.value = other;
  }

  return {
    document,
    isGesturing,
    canUndo: computed(() => history.undoLabel.value !== null),
    canRedo: computed(() => history.redoLabel.value !== null),
    undoLabel: history.undoLabel,
    redoLabel: history.redoLabel,
    apply,
    preview,
    endGesture,
    takeOver,
    undo: () => step(history.undo),
    redo: () => step(history.redo),
  };
}
