import { keepFrame, sample, type FillRun } from './fill-run.ts';
import { limitStep, SETTLE_VOLUME } from './step-plan.ts';

/** A step in which a gate acts or a region is cut off is halved until it is this share of the planned one; at a glance. */
const EVENT_RESOLUTION = 1 / 16;
const GLANCE_RESOLUTION = 1 / 4;
/** Share of what a step should bring that its volumes may miss; at a glance. */
const BALANCE = 3e-7;
const GLANCE_BALANCE = 1e-4;
/** Tries after which the gas of a step has to balance, and the length, of the planned one, below which it is let go. */
const MAX_TRIES = 20;
const SHORTEST = 1e-3;

/** A step that has been solved and not yet taken: volumes, m3, and what happens at its end. */
export interface Trial {
  /** Out of the pots, into pores, into vents. */
  readonly given: number;
  readonly kept: number;
  readonly lost: number;
  readonly groups: ReturnType<FillRun['air']['newGroups']>;
  /** Gates that the front has passed for the first time. */
  readonly reached: readonly number[];
}

/** Solves the next step; again at half its length while something happens in it that is to be timed more finely. */
export function tryStep(run: FillRun): Trial {
  const { air, board, sequence, next, request } = run;
  const resolution = request.isGlance ? GLANCE_RESOLUTION : EVENT_RESOLUTION;
  const shortest = SHORTEST * run.planned;
  for (;;) {
    limitStep(run);
    prepareStep(run, run.step);
    const volumes = solveStep(run, shortest);
    if (!volumes) {
      run.planned = run.step /= 2;
      continue;
    }
    const [given, kept, lost] = volumes;
    const groups = air.newGroups(next, board.isVent);
    const reached = board.newlyReached(next);
    const end = run.time + run.step;
    const due = sequence.due({
      time: end,
      level: next,
      drawn: run.entered + given,
      opening: board.opening,
    });
    const isTimed = end >= sequence.nextTime() * (1 - 1e-12);
    const isEvent = groups.length > 0 || reached.length > 0 || (due.length > 0 && !isTimed);
    if (!isEvent || !(run.step > resolution * run.planned)) return { given, kept, lost, groups, reached };
    run.step /= 2;
  }
}

/** Conductances and weight as they are over the next step. */
export function prepareStep({ cure, branches, weight, bed, ...run }: FillRun, ahead: number) {
  const { time, level, enteredBy, fluidity } = run;
  cure?.fluidity({ time, step: ahead, level, drawn: enteredBy, out: fluidity });
  branches.set(fluidity, bed.flow);
  weight?.start(level);
}

/**
 * Impulse and inflow of the step, with gas that is shut in at the pressure that fits its room.
 * @returns given, kept, lost, m3; null when weight or gas asks for a shorter step
 */
function solveStep(run: FillRun, shortest: number): [number, number, number] | null {
  const { air, bed, board, solver, network, level, next, capacity, floor, weight, step, total } = run;
  const { storage, nodeCount } = network;
  const balance = run.request.isGlance ? GLANCE_BALANCE : BALANCE;
  air.startStep(level);
  for (let tries = 1; ; tries++) {
    bed.setStep(step);
    for (let i = 0; i < nodeCount; i++) {
      capacity[i] =
        (level[i] < 1 ? storage[i] * (1 - level[i]) : bed.demand[i]) - step * (weight?.flow[i] ?? 0);
      bed.compliance[i] = !bed.isSoft || level[i] < 1 || board.isGiven[i] ? 0 : bed.compliance[i];
    }
    air.ask({ capacity, compliance: bed.compliance, floor, step });
    guessImpulse(run);
    const tolerance = balance * Math.max(run.expected * (step / run.planned), 1e-9 * total);
    const { impulse, inflow } = run;
    const problem = {
      capacity,
      isGiven: board.isGiven,
      floor,
      compliance: bed.compliance,
      impulse,
      tolerance,
    };
    const spent = solver.solve(problem, inflow);
    run.solves += spent.solves;
    run.iterations += spent.iterations;
    const volumes = takeInflow(run);
    if (!air.isBalanced(level, { level: next, impulse, step }, tries)) {
      if (tries < MAX_TRIES) continue;
      if (step > shortest) return null;
    }
    const rest = weight?.settle({ level, next, impulse: run.impulse, inflow: run.inflow, step }) ?? 'settled';
    if (rest !== 'again') return rest === 'settled' ? volumes : null;
  }
}

/** Moves the run on by the step that was tried. @returns volume kept in fixed pores, m3, and largest change of a pressure, Pa */
export function takeStep(run: FillRun, { given, kept, lost, groups, reached }: Trial) {
  const { bed, cure, tracker, air, board, level, next, impulse, weight, step, total, request } = run;
  run.time += step;
  run.entered += given;
  for (let pot = 0; pot < run.enteredBy.length; pot++) run.enteredBy[pot] += run.givenBy[pot];
  run.vented += lost;
  const grown = bed.advance(level, next, run.inflow, weight?.flow, step, board.isGiven);
  run.widened += grown;
  run.stored += kept - grown;
  const { time } = run;
  const brought = Math.max(run.expected * (step / run.planned), SETTLE_VOLUME * total);
  run.massError = Math.max(run.massError, Math.abs(given - kept - lost) / Math.max(given, lost, brought));
  cure?.advance({ time, step, drawn: run.enteredBy, impulse, before: level, board });
  tracker.record(time, level, next, impulse);
  const moved = shift(run);
  noteCure(run);
  sample(run);
  if (request.frames && (run.stored / total) * request.frames >= run.frames.length) keepFrame(run);
  air.endStep(level, time, board.isVent);
  air.add(groups, level, time);
  board.keepReached(reached);
  for (const gate of reached)
    run.events.push({ time, gate, kind: 'reached', actionId: null, filled: run.stored / total });
  return { kept: kept - grown, moved };
}

function noteCure({ cure, cureAtArrival, level }: FillRun) {
  if (!cure || !cureAtArrival) return;
  for (let i = 0; i < level.length; i++)
    if (Number.isNaN(cureAtArrival[i]) && level[i] >= 0.5) cureAtArrival[i] = cure.state[i];
}

/** Pressure expected in the next step: that of the last one carried on, and a trace where a node is about to be full. */
function guessImpulse({ board, rate, rateBefore, filling, level, step, impulse, highest }: FillRun) {
  for (let i = 0; i < rate.length; i++) {
    let expected = 0;
    if (board.isGiven[i]) expected = board.pressure[i];
    else if (rate[i] > 0)
      expected = rateBefore[i] > 0 ? Math.max(0.5 * rate[i], 2 * rate[i] - rateBefore[i]) : rate[i];
    else if (filling[i] * step > 0.7 * (1 - level[i])) expected = 1e-9 * highest;
    impulse[i] = expected * step;
  }
}

/** Adds the inflow of a step to the levels. @returns volume given by pots, kept, and lost into vents, m3 */
function takeInflow(run: FillRun): [number, number, number] {
  const { air, board, level, next, capacity, inflow, weight, step } = run;
  const { storage } = run.network;
  let [given, kept, lost] = [0, 0, 0];
  run.givenBy.fill(0);
  for (let i = 0; i < level.length; i++) {
    next[i] = level[i];
    const volume = inflow[i] + step * (weight?.flow[i] ?? 0);
    if (board.isFeed[i]) {
      given -= volume;
      run.givenBy[board.potOf[i]] -= volume;
    } else if (board.isVent[i]) {
      const room = Math.min(volume, storage[i] * Math.max(0, 1 - level[i]));
      kept += room;
      lost += volume - room;
      next[i] = room < volume ? 1 : level[i] + volume / storage[i];
    } else {
      kept += volume;
      if (air.isHeld[i]) next[i] = level[i] + volume / storage[i];
      else if (level[i] < 1) next[i] = inflow[i] >= capacity[i] ? 1 : level[i] + volume / storage[i];
      else if (inflow[i] < capacity[i] - 1e-12 * storage[i]) next[i] = drained(level[i], volume / storage[i]);
    }
  }
  return [given, kept, lost];
}

/** A full node whose pressure has gone down to the gas's own, and that gives out more than it takes, empties. */
const drained = (level: number, change: number) => (change < -1e-9 ? level + change : level);

/** Moves the state on by one step. @returns largest change of a pressure, Pa */
function shift({ level, next, filling, impulse, rate, rateBefore, step }: FillRun): number {
  let moved = 0;
  for (let i = 0; i < level.length; i++) {
    filling[i] = next[i] < 1 ? (next[i] - level[i]) / step : 0;
    level[i] = next[i];
    rateBefore[i] = rate[i];
    rate[i] = impulse[i] / step;
    moved = Math.max(moved, Math.abs(rate[i] - rateBefore[i]));
  }
  return moved;
}
