import type { Job } from '@wick/contract/job/job';
import type { Entry, EntryBody } from '@wick/contract/run/run';
import type { RunPlan } from '@wick/contract/run/plan';
import { demoJobs, demoShop } from '../../demo/jobs.ts';
import { demoMoulds } from '../../demo/moulds.ts';
import { runStateOf } from '../../run/state.ts';
import { cardOf } from '../card.ts';
import type { Card } from '../step.ts';
import { doneBodies, progressOf, type Progress } from '../progress.ts';
import { usualSteps } from '../usual-steps.ts';

export const START = Date.parse('2026-03-14T08:00:00.000Z');
export const ENERGY = usualSteps.activationEnergy;
export const REFERENCE = 293.15;

/** The plan of a demo job as a run would freeze it. */
export function planOf(
  name: string,
  change: (job: Job) => Job = (job) => job,
): Pick<RunPlan, 'job' | 'shop' | 'mould' | 'steps'> {
  const job = change(demoJobs.find((one) => one.name === name)!);
  return {
    job,
    shop: demoShop,
    mould: demoMoulds.find(({ id }) => id === job.mould?.id) ?? null,
    steps: usualSteps,
  };
}

/** A run whose log is written line by line, at minutes after its start. */
export function workedRun(card: Card, temperature = REFERENCE) {
  const entries: Entry[] = [];
  const say = (minute: number, body: EntryBody, by = 'Ada'): Entry => {
    const at = new Date(START + minute * 60_000).toISOString();
    const order = entries.length + 1;
    const entry: Entry = {
      id: `e${order}`,
      runId: 'r',
      by,
      device: 'tablet',
      order,
      at,
      writtenAt: at,
      body,
    };
    entries.push(entry);
    return entry;
  };
  return {
    entries,
    say,
    /** A step done, with the clocks that it starts. */
    do(minute: number, stepId: string): void {
      for (const body of doneBodies(
        card.steps.find(({ id }) => id === stepId)!,
        ENERGY,
      ))
        say(minute, body);
    },
    at: (minute: number): Progress =>
      progressOf(card, runStateOf(entries), {
        now: START + minute * 60_000,
        temperature,
        activationEnergy: ENERGY,
      }),
  };
}

export const minuteOf = (time: number): number => (time - START) / 60_000;
export const makeCard = (...of: Parameters<typeof planOf>): Card => cardOf(planOf(...of));
