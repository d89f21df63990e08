import type { RunPlan } from '@wick/contract/run/plan';
import { cardOf } from '@wick/plan/card/card';
import { heldBy, progressOf } from '@wick/plan/card/progress';
import type { Minutes } from '@wick/plan/infusion/reforecast';
import { differencesOf } from '@wick/plan/job/differences';
import { laidOut } from '@wick/plan/job/laid';
import { isOf } from '@wick/plan/run/state';
import type { Mould } from '@wick/contract/mould';
import type { Phase, StepLibrary } from '@wick/contract/steps';
import { computed, onScopeDispose, ref, shallowRef, watch } from 'vue';
import type { RunSession } from '../session/run-session.ts';
import type { Desk } from './desk.ts';

export interface CardParts {
  readonly read: (runId: string) => Promise<RunPlan>;
  readonly take: (runId: string, jobRevision: number) => Promise<RunPlan>;
  /** As the workshop works now; null until it is known. */
  readonly steps: () => StepLibrary | null;
  readonly mould: (id: string) => Mould | null;
}

/** How the fill that runs ends by the marks so far; s since first contact. */
export interface LiveEnd {
  readonly last: Minutes;
  readonly gelTime: number;
}

type Basis = Pick<RunPlan, 'job' | 'shop' | 'mould' | 'steps'>;

const EVERY = 1000;
const AGAIN_AFTER = 4000;

/** The plan that the run follows, its card, and where the work stands by it. */
export function createCard({ session, shop }: Desk, run: RunSession, plans: CardParts) {
  const plan = shallowRef<RunPlan | null>(null);
  /** Told by the screen that follows the fill, for the fuse under every screen; null while nothing runs. */
  const liveEnd = shallowRef<LiveEnd | null>(null);
  const message = ref<string | null>(null);
  const now = ref(run.now());
  const ticking = setInterval(() => (now.value = run.now()), EVERY);
  let again: ReturnType<typeof setTimeout> | undefined;
  onScopeDispose(() => {
    clearInterval(ticking);
    clearTimeout(again);
  });

  const runId = computed(() => run.run.value?.id ?? null);
  /** Another screen may have taken a newer plan. */
  const lastTaken = computed(
    () => run.state.value.entries.filter(isOf('planTaken')).at(-1)?.body.number ?? 1,
  );

  async function load(): Promise<void> {
    clearTimeout(again);
    const id = runId.value;
    if (id === null) return;
    try {
      const read = await plans.read(id);
      if (id !== runId.value) return;
      plan.value = read;
      message.value = null;
    } catch (error) {
      message.value = (error as Error).message;
      again = setTimeout(() => void load(), AGAIN_AFTER);
    }
  }
  watch(runId, () => (plan.value = null));
  watch([runId, lastTaken], () => void load(), { immediate: true });

  /** What the card is made of: the plan of the run, or the job as it is now where none has begun. */
  const basis = computed((): Basis | null => {
    if (runId.value !== null) return plan.value;
    const steps = plans.steps();
    const { document: job } = session;
    return steps && { job, steps, shop: shop.shop, mould: job.mould && plans.mould(job.mould.id) };
  });
  const card = computed(() => basis.value && cardOf(basis.value));
  const progress = computed(() =>
    basis.value && card.value
      ? progressOf(card.value, run.state.value, {
          now: now.value,
          // As the server has it that calls the clocks: the workshop of today, not of the plan.
          temperature: shop.shop.temperature,
          activationEnergy: basis.value.steps.activationEnergy,
        })
      : null,
  );
  /** The job was changed since the plan was taken, and in what. */
  const differences = computed(() =>
    plan.value && plan.value.jobRevision !== session.revision
      ? differencesOf(plan.value.job, session.document)
      : [],
  );

  async function take(): Promise<void> {
    const id = runId.value;
    if (id === null) return;
    try {
      plan.value = await plans.take(id, session.revision);
      message.value = null;
    } catch (error) {
      message.value = (error as Error).message;
    }
  }

  return {
    ...{ plan, basis, card, progress, differences, message, now, take, liveEnd },
    laid: computed(() => basis.value && laidOut(basis.value.job)),
    /** What keeps a phase shut; null where it is open, or nothing is known yet. */
    heldBy: (phase: Phase) => progress.value && heldBy(progress.value, phase),
  };
}
