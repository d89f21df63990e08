import { computed, shallowRef } from 'vue';

const STEPS = 100;

interface Step<T> {
  readonly label: string;
  readonly document: T;
}

/** Undo and redo over immutable documents: history shares what did not change. */
export function createHistory<T>() {
  const past = shallowRef<readonly Step<T>[]>([]);
  const future = shallowRef<readonly Step<T>[]>([]);

  /** Takes the last step of one side; what was there goes to the other. */
  function walk(from: typeof past, to: typeof past, now: T): T | null {
    const step = from.value[from.value.length - 1];
    if (!step) return null;
    from.value = from.value.slice(0, -1);
    to.value = [...to.value, { label: step.label, document: now }];
    return step.document;
  }

  return {
    /** Remembers what was there before a change; what had been undone is gone. */
    remember(before: T, label: string) {
      past.value = [...past.value.slice(-(STEPS - 1)), { label, document: before }];
      future.value = [];
    },
    /** What was there before the last change; null when there was none. */
    undo: (now: T) => walk(past, future, now),
    redo: (now: T) => walk(future, past, now),
    /** What the next undo takes back, and the next redo does again; null where there is none. */
    undoLabel: computed(() => past.value[past.value.length - 1]?.label ?? null),
    redoLabel: computed(() => future.value[future.value.length - 1]?.label ?? null),
  };
}
