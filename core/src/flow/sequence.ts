import { ModelError } from '../model-error.ts';

/** What sets off an action. Times are the run's own: fluidity time, or seconds where viscosity varies over the part. */
export type Trigger =
  | { readonly kind: 'time'; readonly time: number }
  /** All these nodes hold resin: the front has passed a mark or line, has gone a distance beyond it, or a region is full. */
  | {
      readonly kind: 'wet';
      readonly nodes: Int32Array;
      /** Or all of one of these. */
      readonly orElse?: readonly Int32Array[];
      /** Fill fraction that counts: 1/2 where the front stands at a node inside the part (default), 1 for full. */
      readonly level?: number;
      /** Seconds on the clock after that. */
      readonly delay?: number;
    }
  /** So much resin has left the pots, m3. */
  | { readonly kind: 'drawn'; readonly volume: number; readonly delay?: number }
  /** Another gate has opened. */
  | { readonly kind: 'opened'; readonly gate: number; readonly delay?: number };

/** Opening 0 closes a gate, 1 opens it, in between throttles its hose. */
export interface Action {
  /** Of the layout's own action, told with what it sets off. */
  readonly id?: string;
  readonly gate: number;
  readonly opening: number;
  readonly when: Trigger;
}

export interface SequenceState {
  readonly time: number;
  readonly level: Float64Array;
  readonly drawn: number;
  /** Opening of each gate. */
  readonly opening: Float64Array;
}

export interface Sequence {
  /** Waiting actions whose trigger holds in this state. */
  due(state: SequenceState): number[];
  /** Takes actions off the list; those with a delay go back on it with a time. @returns the ones to do now */
  take(due: readonly number[], time: number): Action[];
  /** Next given time at which something happens; Infinity when none. */
  nextTime(): number;
  /** Actions still waiting. */
  waiting(): Action[];
}

/**
 * @param later run time so many seconds on the clock after a run time; needed only for delays
 * @throws ModelError BAD_ACTION on a gate that is not there or an opening outside 0-1
 */
export function createSequence(
  actions: readonly Action[],
  gateCount: number,
  later: ((time: number, seconds: number) => number) | undefined,
): Sequence {
  for (const { gate, opening } of actions)
    if (!(gate >= 0 && gate < gateCount && opening >= 0 && opening <= 1))
      throw new ModelError(
        'BAD_ACTION',
        'An action of the sequence names a line that is not there, or an opening outside 0 to 100 %. Delete it.',
        { gate, opening },
      );
  let waiting = actions.slice();

  const holds = ({ when }: Action, { time, level, drawn, opening }: SequenceState): boolean => {
    switch (when.kind) {
      case 'time':
        return time >= when.time * (1 - 1e-12);
      case 'wet':
        return [when.nodes, ...(when.orElse ?? [])].some(
          (nodes) => nodes.length > 0 && nodes.every((i) => level[i] >= (when.level ?? 0.5)),
        );
      case 'drawn':
        return drawn >= when.volume;
      case 'opened':
        return opening[when.gate] > 0;
    }
  };

  return {
    due: (state) => waiting.flatMap((action, n) => (holds(action, state) ? [n] : [])),
    take(due, time) {
      const taken = due.map((n) => waiting[n]);
      waiting = waiting.filter((_, n) => !due.includes(n));
      return taken.filter((action) => {
        const { when } = action;
        if (when.kind === 'time' || !when.delay) return true;
        if (!later)
          throw new ModelError('NO_CLOCK', 'A delay needs a resin, whose clock it runs on. Choose a resin.');
        waiting.push({ ...action, when: { kind: 'time', time: later(time, when.delay) } });
        return false;
      });
    },
    nextTime: () =>
      waiting.reduce((next, { when }) => (when.kind === 'time' ? Math.min(next, when.time) : next), Infinity),
    waiting: () => waiting.slice(),
  };
}
