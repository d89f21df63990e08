import type { Failure, Task } from './tasks.ts';

/** What the scheduler sends to a worker, and what comes back. */
export interface Question {
  readonly number: number;
  readonly task: Task;
  /** Holds the number of a question to be given up; null where memory cannot be shared. */
  readonly stop: Int32Array | null;
}

export type Reply =
  | { readonly kind: 'progress'; readonly number: number; readonly share: number }
  | { readonly kind: 'done'; readonly number: number; readonly result: unknown }
  | { readonly kind: 'failed'; readonly number: number; readonly failure: Failure };
