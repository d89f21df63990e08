import type { RunPlan } from '@wick/contract/run/plan';
import { phases, type Phase, type Step } from '@wick/contract/steps';
import type { Shop } from '@wick/contract/shop';
import { laidOut, type LaidJob } from '../job/laid.ts';
import { booksOf, underCore } from '../laminate/books.ts';
import { coatsOf, recipeOf } from './release.ts';
import { fillIn, type Filled } from './fill-in.ts';
import { phaseNames, type Card, type CardStep, type Wait } from './step.ts';

/** Phases that a job leaves out unless it says otherwise. */
const isWanted = ({ prep }: LaidJob, phase: Phase): boolean =>
  phase === 'gelCoat' ? prep.gelCoat !== null : phase !== 'barrier' || prep.barrier !== null;

type Bare = Omit<CardStep, 'waits'> & { readonly step: Step; readonly own: Filled };

/** The card of a run: the workshop's steps in their order, each as often as the job has something for it. */
export function cardOf(plan: Pick<RunPlan, 'job' | 'shop' | 'mould' | 'steps'>): Card {
  const job = laidOut(plan.job);
  const recipe = recipeOf(plan.steps, job.prep.releaseId);
  const coats = coatsOf(recipe, plan.mould);
  const bare: Bare[] = phases
    .filter((phase) => isWanted(job, phase))
    .flatMap((phase) => plan.steps.steps.filter((step) => step.phase === phase))
    .filter(({ isUsed, processes }) => isUsed && (processes.length === 0 || processes.includes(job.process)))
    .flatMap((step) =>
      fillIn(step.each, { job, shop: plan.shop, coats }).map((own) => ({
        ...{ id: own.key === '' ? step.id : `${step.id}:${own.key}`, phase: step.phase, title: step.title },
        ...{ what: own.what, detail: own.detail, why: step.why, caution: step.caution, takes: step.takes },
        ...{ who: step.who, lasts: step.lasts, photo: step.photo, each: step.each },
        ...{ ticks: own.ticks, aboutId: own.aboutId, places: own.places, step, own },
      })),
    );
  placeCore(bare, job, plan.shop);
  const steps = bare.map(({ step, own, ...rest }, n): CardStep => ({
    ...rest,
    waits: waitsOf(bare, n, step, own),
  }));
  return {
    steps,
    recipe,
    phases: phases.flatMap((phase) => {
      const own = steps.filter((step) => step.phase === phase);
      return own.length === 0 ? [] : [{ phase, name: phaseNames[phase], steps: own }];
    }),
  };
}

/** The core is laid where it lies in the laminate. */
function placeCore(bare: Bare[], job: LaidJob, shop: Shop): void {
  const from = bare.findIndex(({ each }) => each === 'core');
  if (from < 0) return;
  const under = job.laminate.plies[underCore(job, booksOf(job)[0]!, shop) - 1];
  const [core] = bare.splice(from, 1);
  const below = under ? bare.findIndex(({ aboutId, each }) => each === 'ply' && aboutId === under.id) : -1;
  const first = bare.findIndex(({ each }) => each === 'ply');
  bare.splice(below >= 0 ? below + 1 : first >= 0 ? first : from, 0, core!);
}

/**
 * A clock runs until the next of its kind is done, or the first of what comes after its phase. What the workshop waits for after a step
 * it waits for after the last of its kind.
 */
function waitsOf(bare: readonly Bare[], n: number, step: Step, own: Filled): Wait[] {
  const after = bare.slice(n + 1);
  const sibling = after.find((other) => other.step.id === step.id);
  const endsWith = (sibling ?? after.find(({ phase }) => phase !== step.phase))?.id ?? null;
  return [...(step.wait && !sibling ? [step.wait] : []), ...own.waits].map((wait) => ({ ...wait, endsWith }));
}
