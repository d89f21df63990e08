import type { NewEntry } from '@wick/contract/run/run';
import made from './runs.json' with { type: 'json' };

/** A part of a demo job with all that was said of it. */
export interface DemoRun {
  readonly id: string;
  readonly jobName: string;
  readonly startedAt: string;
  readonly entries: readonly NewEntry[];
}

/** Parts of the demo workshop, oldest first, made on the engine by plan/bench/demo-runs.ts: invented, and marked so by their job. */
export const demoRuns = made as unknown as readonly DemoRun[];
