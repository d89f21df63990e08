import type { EntryBody } from '@wick/contract/run/run';
import type { Phase } from '@wick/contract/steps';
import { windowAt } from '@wick/core/cure/age';
import type { RunState } from '../run/state.ts';
import { stepTitle, type Card, type CardStep } from './step.ts';
import { holdsOf, type Hold } from './holds.ts';
import { timersOf, type RunTimer } from './timers.ts';

/** Who did something when; ms since 1970 by the clock of the run. */
export interface Did {
  readonly entryId: string;
  readonly at: number;
  readonly by: string;
}

export interface StepState {
  readonly done: Did | null;
  /** With the reason. */
  readonly skipped: (Did & { readonly why: string }) | null;
}

/** Where the work stands by the card. */
export interface Progress {
  readonly steps: ReadonlyMap<string, StepState>;
  /** Steps and ticks that are done or left out. */
  readonly settled: ReadonlySet<string>;
  /** The first step that is neither. */
  readonly next: CardStep | null;
  readonly timers: readonly RunTimer[];
  readonly holds: readonly Hold[];
  /** When each open step is to be expected, ms since 1970. */
  readonly expected: ReadonlyMap<string, number>;
}

export interface ProgressRequest {
  readonly now: number;
  /** Where nobody has said how warm it is, K. */
  readonly temperature: number;
  /** J/mol */
  readonly activationEnergy: number;
}

/** @param state of the run, every entry that counts in the order of its time */
export function progressOf(card: Card, state: RunState, request: ProgressRequest): Progress {
  const steps = new Map<string, StepState>();
  for (const entry of state.entries) {
    const { body } = entry;
    if (body.kind !== 'done' && body.kind !== 'skipped') continue;
    const did = { entryId: entry.id, at: Date.parse(entry.at), by: entry.by };
    steps.set(
      body.stepId,
      body.kind === 'done'
        ? { done: did, skipped: null }
        : { done: null, skipped: { ...did, why: body.why } },
    );
  }
  const settled = new Set(steps.keys());
  const doneAt = new Map([...steps].flatMap(([id, { done }]) => (done ? [[id, done.at] as const] : [])));
  const timers = timersOf(state.entries, request.now, request.temperature);
  const next = card.steps.find(({ id }) => !settled.has(id)) ?? null;
  return {
    ...{ steps, settled, next, timers },
    holds: holdsOf(card, state, { settled, doneAt, timers }),
    expected: expectedTimes(card, { settled, timers }, request),
  };
}

/** One after the other from now on, each clock waited for at the temperature there is. */
function expectedTimes(
  card: Card,
  { settled, timers }: Pick<Progress, 'settled' | 'timers'>,
  { now, temperature, activationEnergy }: ProgressRequest,
): Map<string, number> {
  const earliest = new Map<string, number>();
  const hold = (stepId: string | null, at: number) => {
    if (stepId !== null) earliest.set(stepId, Math.max(earliest.get(stepId) ?? 0, at));
  };
  for (const { endsWith, opensAt } of timers) hold(endsWith, opensAt);
  const times = new Map<string, number>();
  let at = now;
  for (const { id, lasts, waits } of card.steps) {
    if (settled.has(id)) continue;
    at = Math.max(at, earliest.get(id) ?? 0);
    times.set(id, at);
    at += 1000 * (lasts ?? 0);
    for (const { opens, closes, temperature: stated, endsWith } of waits) {
      const slid =
        stated === null
          ? opens
          : windowAt({ opens, closes }, temperature, { reference: stated, activationEnergy }).opens;
      hold(endsWith, at + 1000 * slid);
    }
  }
  return times;
}

/** The first hold that keeps a phase shut; null where it is open. */
export const heldBy = ({ holds }: Pick<Progress, 'holds'>, phase: Phase): Hold | null =>
  holds.find(({ isOpen, before, overruled }) => !isOpen && overruled === null && before.includes(phase)) ??
  null;

/** A tick that waits for another one. */
export const waitsFor = (step: CardStep, settled: ReadonlySet<string>, tickId: string): string | null => {
  const after = step.ticks.find(({ id }) => id === tickId)?.after ?? null;
  return after !== null && !settled.has(after)
    ? (step.ticks.find(({ id }) => id === after)?.what ?? null)
    : null;
};

/** Ticks of a step that nobody has made yet. */
export const openTicks = ({ ticks }: CardStep, settled: ReadonlySet<string>) =>
  ticks.filter(({ id }) => !settled.has(id));

/** Clocks that were to end with a step which was left out: the next that is done after it, in its phase or a later one, ends them. */
export function clocksEndedBy(card: Card, { timers, settled }: Progress, step: CardStep): readonly string[] {
  const placeOf = (id: string | null) => card.steps.findIndex((own) => own.id === id);
  const at = placeOf(step.id);
  return timers
    .filter(({ stepId, endsWith }) => {
      const end = placeOf(endsWith);
      return (
        end >= 0 && end < at && settled.has(endsWith!) && card.steps[placeOf(stepId)]?.phase !== step.phase
      );
    })
    .map(({ id }) => id);
}

/** What is written down when a step is done: that, and the clocks that it starts. */
export function doneBodies(step: CardStep, activationEnergy: number): EntryBody[] {
  return [
    { kind: 'done', stepId: step.id, phase: step.phase, title: stepTitle(step) },
    ...step.waits.map(({ word, opens, closes, temperature, endsWith }): EntryBody => ({
      ...{ kind: 'timer', word, stepId: step.id, endsWith, opens, closes },
      slides: temperature === null ? null : { temperature, activationEnergy },
    })),
  ];
}
