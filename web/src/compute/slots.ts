import type { Question, Reply } from './wire.ts';

/** The part of a worker that is used. */
export interface WorkerLike {
  postMessage(question: Question): void;
  terminate(): void;
  onmessage: ((event: MessageEvent<Reply>) => void) | null;
  onerror: ((event: ErrorEvent) => void) | null;
  onmessageerror?: ((event: MessageEvent) => void) | null;
}

/** A worker and what it is at. */
export interface Slot<Job> {
  readonly worker: WorkerLike;
  /** Where the worker reads the number of a question that nobody wants any more; null where memory cannot be shared. */
  readonly stop: Int32Array | null;
  job: Job | null;
  number: number;
}

interface Listener<Job> {
  readonly hear: (slot: Slot<Job>, reply: Reply) => void;
  readonly onCrash: (slot: Slot<Job>, why: string) => void;
}

/** Workers, created when they are needed. @param size the most of them */
export function createSlots<Job>(
  createWorker: () => WorkerLike,
  size: number,
  { hear, onCrash }: Listener<Job>,
) {
  const slots: Slot<Job>[] = [];

  function create(): Slot<Job> {
    const worker = createWorker();
    const stop = typeof SharedArrayBuffer === 'undefined' ? null : new Int32Array(new SharedArrayBuffer(4));
    const slot: Slot<Job> = { worker, stop, job: null, number: 0 };
    worker.onmessage = ({ data }) => hear(slot, data);
    worker.onerror = (event) => onCrash(slot, event?.message ?? '');
    worker.onmessageerror = () => onCrash(slot, 'its answer could not be read');
    slots.push(slot);
    return slot;
  }

  function drop(slot: Slot<Job>) {
    slot.worker.onmessage = slot.worker.onerror = null;
    slot.worker.terminate();
    slots.splice(slots.indexOf(slot), 1);
  }

  return {
    /** One that has nothing to do; null when all are at work. */
    idle: () => slots.find(({ job }) => job === null) ?? (slots.length < size ? create() : null),
    busy: (): Job[] => slots.flatMap(({ job }) => (job === null ? [] : [job])),
    drop,
    close: () => [...slots].forEach(drop),
  };
}
