import type { EntryBody } from '@wick/contract/run/run';
import { clocksEndedBy, doneBodies, openTicks } from '@wick/plan/card/progress';
import { stepTitle, type CardStep, type Tick } from '@wick/plan/card/step';
import { stepIdOf, valveOf } from '@wick/plan/infusion/card-valves';
import { computed } from 'vue';
import { useCard, useRun } from '../../compute/use-desk.ts';

/** Work by the card: what is written down when somebody taps. */
export function useWork() {
  const run = useRun();
  const work = useCard();

  const isBegun = computed(() => run.run !== null);
  const bodyOf = (step: CardStep): EntryBody[] => doneBodies(step, work.basis?.steps.activationEnergy ?? 0);

  async function finish(step: CardStep): Promise<void> {
    const ended = work.card && work.progress ? clocksEndedBy(work.card, work.progress, step) : [];
    for (const body of bodyOf(step)) await run.say(body);
    const valve = work.laid && valveOf(work.laid, step.id);
    if (valve) await run.say(valve);
    for (const timerId of ended) await run.say({ kind: 'timerEnds', timerId });
  }
  /** A valve was turned at the fill: its step on the card is done with it. */
  async function turned(valve: Extract<EntryBody, { kind: 'valve' }>): Promise<void> {
    const step = work.card?.steps.find(({ id }) => id === stepIdOf(valve));
    if (step && !isSettled(step.id)) for (const body of bodyOf(step)) await run.say(body);
  }
  /** A step that was done before, done once more: its clocks begin anew. */
  async function finishAgain(id: string): Promise<void> {
    const step = work.card?.steps.find((one) => one.id === id);
    if (step) await finish(step);
  }
  async function tick(step: CardStep, { id, what }: Tick): Promise<void> {
    const title = stepTitle({ title: `${what}: pressed in,`, what: step.what });
    await run.say({ kind: 'done', stepId: id, phase: step.phase, title });
  }
  const leaveOut = (step: CardStep, why: string) =>
    run.say({
      kind: 'skipped',
      stepId: step.id,
      phase: step.phase,
      title: stepTitle(step),
      why,
    });
  async function leaveOutAll(steps: readonly CardStep[], why: string): Promise<void> {
    for (const step of steps) await leaveOut(step, why);
  }
  /** What was tapped by mistake counts no more. */
  async function takeBack(id: string): Promise<void> {
    const state = work.progress?.steps.get(id);
    const entryId = state?.done?.entryId ?? state?.skipped?.entryId;
    if (entryId) await run.say({ kind: 'struck', entryId, why: 'taken back on the card' });
  }
  const openOf = (step: CardStep): readonly Tick[] =>
    work.progress ? openTicks(step, work.progress.settled) : step.ticks;
  const isSettled = (id: string): boolean => work.progress?.settled.has(id) ?? false;

  return { isBegun, turned, finish, finishAgain, tick, leaveOut, leaveOutAll, takeBack, openOf, isSettled };
}
