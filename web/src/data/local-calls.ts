import { shallowRef } from 'vue';

/** A clock that has come to its time. */
export interface Call {
  readonly timerId: string;
  readonly what: 'opens' | 'closing' | 'closed';
  readonly word: string;
  readonly jobId: string;
  readonly jobName: string;
  readonly part: string;
  /** Heard where its job is open alone. */
  readonly isRehearsal: boolean;
}

/** What the open run finds due by itself: where the server is away nobody else calls it. */
export const localCalls = shallowRef<readonly Call[]>([]);
