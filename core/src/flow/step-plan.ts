import { ModelError } from '../model-error.ts';
import type { FillRun } from './fill-run.ts';
import type { GateBoard } from './gates.ts';
import type { FlowNetwork } from './network.ts';

const DEFAULT_STEPS = 100;
const MOST_STEPS = 20_000;
/** Early on a step adds at most this share of what has been stored. */
const EARLY_GROWTH = 0.15;
/** A step is at most so many times as long as the one before; where weight has to come to rest in it, so many. */
const GROWTH = 3;
const EASY_GROWTH = 1.5;
/** Volume of the first step, and least of an early one, of the pore volume. */
const EARLY_VOLUME = 1e-5;
/** A run that stood and flows again begins with a step of this share of the time it has lasted. */
const RESTART = 1e-3;
/** Towards the end a step takes at most this share of the room left, and at least this share of the pore volume. */
const LATE_SHARE = 0.5;
const LATE_VOLUME = 2e-4;
/**
 * A run stands next to still when it fills so many times more slowly than on average, and what is left would take so many
 * times as long as it has lasted. The first alone says nothing: a line fills at once and the laminate behind it thousands of
 * times more slowly.
 */
const STALL = 1000;
const STALL_WAIT = 1e4;
/**
 * It has stalled when it has stood so until it has lasted so many times as long as before, or for so many steps, which a resin
 * that gels keeps short; at once when what is left would take so many times as long as the run.
 */
const LULL = 1e6;
const LULL_STEPS = 40;
const NIL = 1e12;
/** A resin of its own gels meanwhile: past that it creeps, and is not waited for. */
const STALL_WAIT_CURING = 10;
/** Share of the pore volume that may stay unfilled beside an open vent once the run has stalled; finer than any mesh here shows. */
export const SPECK = 1e-3;
/** Share of the pore volume that may be missing when the part counts as full. */
export const FULL = 1e-7;
/** A full laminate settles in about the share of the fill time that its pores have widened; steps grow from this part of it. */
const SETTLE_START = 0.01;
const SETTLE_GROWTH = 1.15;
/** Volume a settling step is balanced to, of the pore volume. */
export const SETTLE_VOLUME = 1e-5;
/** It has settled when no pressure moves by more than this share of the highest. */
const SETTLED = 1e-4;

const horizonOf = ({ request }: FillRun) => request.until ?? Infinity;

/** Room in nodes that need not fill, m3. */
export const spareRoom = ({ request, network, level }: FillRun) =>
  request.spare?.reduce((room, i) => room + network.storage[i] * Math.max(0, 1 - level[i]), 0) ?? 0;

/** Room that is still to be filled, m3: what shut-in gas keeps at the highest pressure is not. */
export const roomOf = (run: FillRun) => run.total - run.stored - run.air.smallest(run.level) - spareRoom(run);

export const isFull = (run: FillRun) => roomOf(run) <= FULL * run.total;

export function isOver(run: FillRun): boolean {
  if (run.time >= (run.request.stopAt ?? Infinity) * (1 - 1e-12)) return true;
  return run.isStalled || (run.isSettling ? run.time >= horizonOf(run) : isFull(run));
}

/** The first step of a run, or of the rest of one that starts half-way. */
export function planFirst(run: FillRun) {
  const step = firstStep(run.network, run.board);
  // With every feed shut nothing flows until one opens.
  if (!(step > 0)) return planStalled(run, { kept: 0, moved: 0, hasActed: false, hasTurned: false });
  run.planned = run.step = step;
  run.expected = EARLY_VOLUME * run.total;
}

/** Shortens the step to what the sequence, the end of the run and the resin allow. @throws ModelError TOO_MANY_STEPS */
export function limitStep(run: FillRun) {
  const { sequence, cure, time, samples, stored, total } = run;
  if (samples.length > MOST_STEPS)
    throw new ModelError(
      'TOO_MANY_STEPS',
      'The run needs too many steps: something in it changes far faster than the part fills. Look for a very thin hose, a very short throttle or an extreme slope.',
      { time, filled: stored / total },
    );
  run.step = Math.min(run.step, Math.max(sequence.nextTime() - time, 0) || Infinity);
  if (run.isSettling) run.step = Math.min(run.step, horizonOf(run) - time);
  if (cure) run.step = Math.min(run.step, cure.stepLimit(time));
  run.step = Math.min(run.step, Math.max((run.request.stopAt ?? Infinity) - time, 0));
}

/** What a step brought: volume kept in the part, m3, largest change of a pressure, Pa, whether a gate acted or was reached, and whether one was turned. */
export interface StepOutcome {
  readonly kept: number;
  readonly moved: number;
  readonly hasActed: boolean;
  readonly hasTurned: boolean;
}

/** How long the next step is to be; or that there is none. */
export function planNext(run: FillRun, outcome: StepOutcome) {
  const isNowFull = isFull(run);
  if (isNowFull || run.isSettling) {
    planSettling(run, outcome);
    if (run.isSettling || isNowFull) return;
  }
  const stepRate = outcome.kept / run.step;
  noteLull(run, stepRate);
  if (hasDied(run, stepRate)) planStalled(run, outcome);
  else planFilling(run, stepRate, outcome);
}

/** Whether at this rate, which may be none, what is left would take so many times as long as the run has lasted. */
const wouldTake = (run: FillRun, rate: number, times: number) =>
  times * rate * run.time <= Math.max(roomOf(run), SPECK * run.total);

/** Since when, and for how many steps, the run has stood next to still. */
function noteLull(run: FillRun, rate: number) {
  const wait = run.cure ? STALL_WAIT_CURING : STALL_WAIT;
  const isSlow = rate * STALL <= run.stored / run.time && wouldTake(run, rate, wait);
  run.slowSince = isSlow ? Math.min(run.slowSince, run.time) : Infinity;
  run.slowSteps = isSlow ? run.slowSteps + 1 : 0;
}

const hasDied = (run: FillRun, rate: number): boolean =>
  run.slowSteps > 0 &&
  (wouldTake(run, rate, NIL) || run.time >= LULL * run.slowSince || run.slowSteps >= LULL_STEPS);

function planSettling(run: FillRun, { moved, hasActed }: StepOutcome) {
  const { bed, time, request, sequence, highest, widened, total, stored } = run;
  const horizon = horizonOf(run);
  const isRestless = hasActed || moved > SETTLED * highest || sequence.nextTime() < horizon;
  const wasSettling = run.isSettling;
  run.isSettling = bed.isSoft && time < horizon && request.until !== undefined && isRestless;
  run.planned = run.step =
    hasActed || !wasSettling
      ? (SETTLE_START * time * (widened + FULL * total)) / stored
      : SETTLE_GROWTH * run.step;
  run.expected = SETTLE_VOLUME * total;
}

/** A run that has stalled waits for the next action on the clock, settles, or is over. */
function planStalled(run: FillRun, { moved, hasTurned }: StepOutcome): void {
  const { sequence, bed, request, time, highest, total } = run;
  const isFed = request.gates.some(({ kind }, gate) => kind === 'feed' && run.board.opening[gate] > 0);
  if (hasTurned && isFed && time > 0) {
    // What opens again flows again: the next step shows whether it does.
    run.planned = run.step = RESTART * time;
    run.expected = EARLY_VOLUME * total;
    return;
  }
  const horizon = horizonOf(run);
  if (sequence.nextTime() < horizon) {
    run.planned = run.step = sequence.nextTime() - time;
    run.expected = EARLY_VOLUME * total;
    return;
  }
  run.isSettling = bed.isSoft && request.until !== undefined && time < horizon && moved > SETTLED * highest;
  run.isStalled = !run.isSettling;
}

function planFilling(run: FillRun, stepRate: number, { hasActed }: StepOutcome) {
  const { total, stored, request } = run;
  const { steps = DEFAULT_STEPS } = request;
  // A run that is sampled coarsely is sampled coarsely from its start.
  const earlyGrowth = EARLY_GROWTH * Math.max(1, DEFAULT_STEPS / steps);
  const wanted = Math.min(
    total / steps,
    Math.max(earlyGrowth * stored, EARLY_VOLUME * total),
    Math.max(LATE_SHARE * roomOf(run), LATE_VOLUME * total),
  );
  // A step that was cut short to time what happens in it makes the next no shorter, or it would never come to it.
  const growth = run.weight ? EASY_GROWTH : GROWTH;
  const most = hasActed ? run.step : Math.max(growth * run.step, run.planned);
  run.planned = run.step = Math.min(wanted / stepRate, most);
  run.expected = run.step * stepRate;
}

/** About the time in which the open feeds fill half of their neighbours. */
export function firstStep(network: FlowNetwork, board: GateBoard): number {
  let flow = 0;
  let volume = 0;
  const seen = new Uint8Array(network.nodeCount);
  for (let i = 0; i < network.nodeCount; i++) {
    if (!board.isFeed[i]) continue;
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++) {
      const j = network.columns[e];
      if (board.isFeed[j] || !(network.conductance[e] > 0)) continue;
      flow += network.conductance[e] * board.pressure[i];
      if (!seen[j]) volume += network.storage[j];
      seen[j] = 1;
    }
  }
  return (0.5 * volume) / flow;
}
