import { ModelError } from '../model-error.ts';
import { createArrivalTracker } from './arrival.ts';
import { createBranches } from './branches.ts';
import { firstStep, guessImpulse, shift, takeInflow } from './fill-step.ts';
import { createGateBoard, requireGates, type Gate } from './gates.ts';
import { createWeight, type Gravity } from './gravity.ts';
import { createCureField, type MovingResin } from './moving-resin.ts';
import type { FlowNetwork } from './network.ts';
import { canCompile, createKernelSolver } from './obstacle-kernel.ts';
import { createObstacleSolver, type ObstacleSolver } from './obstacle.ts';
import { createSequence, type Action } from './sequence.ts';
import { createSoftBed } from './soft-bed.ts';
import type { Softness } from './softness.ts';
import { createTrappedAir, type TrappedRegion } from './trapped-air.ts';

export interface FillRequest {
  readonly network: FlowNetwork;
  readonly gates: readonly Gate[];
  readonly actions?: readonly Action[];
  /** Absolute pressures, Pa: at open feeds unless they have their own, and under the bag ahead of the front. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  readonly gravity?: Gravity;
  readonly softness?: Softness;
  /** Resin of more than one viscosity; the run then counts seconds. */
  readonly resin?: MovingResin;
  /** Run time so many seconds on the clock after a run time: needed by delays only. */
  readonly later?: (time: number, seconds: number) => number;
  /** After the fill the run goes on to this time at the latest, while a soft laminate still settles. */
  readonly until?: number;
  /** Steps the fill is sampled with; arrival times lie between samples. 100 by default. */
  readonly steps?: number;
  /** Nodes that need not fill: the run ends without them. */
  readonly spare?: Int32Array;
  /** Share of the pore volume below which a cut-off region is not told; a thousandth by default. */
  readonly smallestRegion?: number;
  /** Pressure pictures to keep, spread evenly over the fill; none by default. */
  readonly frames?: number;
  /** The solver to use; the compiled one by default. */
  readonly createSolver?: (network: FlowNetwork) => ObstacleSolver;
  /** Called after each step with the filled share; return false to give up. */
  readonly onProgress?: (filledFraction: number) => boolean | void;
}

/**
 * All times are fluidity times: the integral of dt / viscosity, 1/Pa; multiply by a constant viscosity for seconds. With
 * a moving resin they are seconds.
 */
export interface FillResult {
  /** When the front passes each node; NaN where it does not. */
  readonly arrival: Float64Array;
  /** Every node is full, except for gas that was trapped. */
  readonly isFilled: boolean;
  /** When the last node that fills is full; the end of the run when isFilled is false. */
  readonly fillTime: number;
  readonly samples: readonly FillSample[];
  readonly events: readonly GateEvent[];
  readonly trapped: readonly TrappedRegion[];
  readonly frames: readonly Frame[];
  /** State at the end of the run: pressure above vacuum, Pa, fill fraction, and pores relative to full compaction. */
  readonly final: {
    readonly time: number;
    readonly pressure: Float64Array;
    readonly level: Float64Array;
    readonly pores: Float64Array;
  };
  /** State of cure when the front came, with a moving resin. */
  readonly cureAtArrival: Float64Array | null;
  /** Actions whose trigger never came. */
  readonly waiting: readonly Action[];
  /** Largest mass balance error of a step, as a share of what the step was to bring. */
  readonly massError: number;
  readonly solves: number;
  readonly iterations: number;
}

export interface FillSample {
  readonly time: number;
  /** Volumes since the start, m3: out of the pots, into pores (with what they have widened), into vents. */
  readonly entered: number;
  readonly stored: number;
  readonly vented: number;
}

export interface Frame {
  readonly time: number;
  /** Above vacuum, Pa, a node. */
  readonly pressure: Float32Array;
  /** State of cure a node, with a moving resin. */
  readonly cure: Float32Array | null;
}

export interface GateEvent {
  readonly time: number;
  readonly gate: number;
  readonly kind: 'opens' | 'throttles' | 'closes' | 'reached';
  /** The action that did it; null at the start, and where the front came. */
  readonly actionId: string | null;
  /** Share of the pore volume filled then. */
  readonly filled: number;
}

const DEFAULT_STEPS = 100;
const MOST_STEPS = 20_000;
/** Early on a step adds at most this share of what has been stored. */
const EARLY_GROWTH = 0.15;
/** A step in which a gate acts or a region is cut off is halved until it is this share of the planned one. */
const EVENT_RESOLUTION = 1 / 16;
/** Regions below this share of the pore volume are the mesh's, not the part's. */
const SMALLEST_REGION = 1e-3;
/** The run has stalled when it fills this many times more slowly than it has on average. */
const STALL = 1000;
const BALANCE = 3e-7;
/** Share of the pore volume that may be missing when the part counts as full. */
const DONE = 1e-7;
/** Share that may stay unfilled beside an open vent once the run has stalled; finer than any mesh here shows. */
const SPECK = 1e-3;
/** A full laminate settles in about the share of the fill time that its pores have widened; steps grow from this part of it. */
const SETTLE_START = 0.01;
/** Volume a settling step is balanced to, of the pore volume. */
const SETTLE_VOLUME = 1e-5;
const SETTLE_GROWTH = 1.15;
/** It has settled when no pressure moves by more than this share of the highest. */
const SETTLED = 1e-4;

/**
 * Fills a network from its feeds. Each step solves one obstacle problem for the pressure impulse U (the integral of the
 * pressure above vacuum over the step), which is exact whatever the length of the step while nothing else changes in it;
 * widening pores, weight ahead of full nodes and curing are taken from the step's start.
 * @throws ModelError those of requireGates and createSequence; PRESSURE_ORDER; CANCELLED when onProgress returns false
 * Valid: Darcy flow, incompressible resin, saturated front.
 * Source: Baiocchi 1972; Elliott & Janovsky 1981 (impulse form). Checked by fill.test.ts.
 */
export function fill(request: FillRequest): FillResult {
  const { gates, feedPressure, vacuumPressure, steps = DEFAULT_STEPS, onProgress } = request;
  const network = { ...request.network, conductance: request.network.conductance.slice() };
  const { nodeCount, storage } = network;
  requireGates(gates, network);
  const board = createGateBoard(gates, nodeCount, { feedPressure, vacuumPressure });
  // A run that is sampled coarsely is sampled coarsely from its start.
  const earlyGrowth = EARLY_GROWTH * Math.max(1, DEFAULT_STEPS / steps);
  const highest = highestDrop(gates, feedPressure, vacuumPressure);
  const sequence = createSequence(request.actions ?? [], gates.length, request.later);
  const branches = createBranches(request, network, board);
  const solver = (request.createSolver ?? createSolver)(network);
  const tracker = createArrivalTracker(network);
  const total = sum(storage);
  const air = createTrappedAir(network, {
    vacuumPressure,
    highest,
    minVolume: (request.smallestRegion ?? SMALLEST_REGION) * total,
  });
  const bed = createSoftBed(network, request.softness);
  const cure = request.resin ? createCureField(network, request.resin) : null;
  const pull = request.gravity && createWeight(network, request.gravity);
  const fluidity = new Float64Array(nodeCount).fill(1);
  const buffers = () => new Float64Array(nodeCount);
  const [level, next, capacity, impulse] = [buffers(), buffers(), buffers(), buffers()];
  const [rate, rateBefore, filling, inflow, floor, weight] = [
    buffers(),
    buffers(),
    buffers(),
    buffers(),
    buffers(),
    buffers(),
  ];
  const cureAtArrival = cure ? buffers().fill(NaN) : null;
  const samples: FillSample[] = [{ time: 0, entered: 0, stored: 0, vented: 0 }];
  const frames: Frame[] = [];
  const events: GateEvent[] = [];
  let [time, entered, stored, widened, vented, massError, solves, iterations] = [0, 0, 0, 0, 0, 0, 0, 0];

  const operate = (gate: number, opening: number, actionId: string | null = null) => {
    const was = board.opening[gate];
    if (opening === was) return;
    board.set(gate, opening);
    const kind = opening === 0 ? 'closes' : was === 0 ? 'opens' : 'throttles';
    // That a vent is open before anything happens is no event.
    if (time > 0 || gates[gate].kind === 'feed')
      events.push({ time, gate, kind, actionId, filled: stored / total });
    if (kind !== 'opens' || gates[gate].kind !== 'feed' || gates[gate].supply) return;
    for (const i of gates[gate].nodes) {
      const room = storage[i] * Math.max(0, 1 - level[i]);
      entered += room;
      stored += room;
      level[i] = 1;
    }
    tracker.markReached(gates[gate].nodes, time);
  };
  gates.forEach(({ startsOpen, supply }, index) => {
    if (supply) for (const i of [supply.pot, supply.from]) fillAtStart(i);
    if (startsOpen) operate(index, 1);
  });
  function fillAtStart(i: number) {
    if (level[i] === 1) return;
    entered += storage[i];
    stored += storage[i];
    level[i] = 1;
    tracker.markReached([i], 0);
  }

  const act = () => {
    for (let due = stateDue(level); due.length > 0; due = stateDue(level))
      for (const { gate, opening, id } of sequence.take(due, time)) operate(gate, opening, id);
  };
  const stateDue = (at: Float64Array) =>
    sequence.due({ time, level: at, drawn: entered, opening: board.opening });
  act();

  const prepare = (ahead: number) => {
    cure?.fluidity({ time, step: ahead, level, drawn: entered, out: fluidity });
    branches.set(fluidity, bed.flow);
    pull?.(level, ahead, weight);
  };
  const horizon = request.until ?? Infinity;
  const spareRoom = () =>
    request.spare?.reduce((room, i) => room + storage[i] * Math.max(0, 1 - level[i]), 0) ?? 0;
  const room = () => total - stored - air.smallest(level) - spareRoom();
  const keepFrame = () =>
    frames.push({ time, pressure: Float32Array.from(rate), cure: cure && Float32Array.from(cure.state) });
  prepare(0);
  let step = firstStep(network, board);
  let planned = step;
  /** Volume the planned step should bring, m3. */
  let expected = 1e-5 * total;
  let settling = false;
  while (settling ? time < horizon : room() > DONE * total) {
    if (samples.length > MOST_STEPS)
      throw new ModelError(
        'TOO_MANY_STEPS',
        'The run needs too many steps: something in it changes far faster than the part fills. Look for a very thin hose, a very short throttle or an extreme slope.',
        { time, filled: stored / total },
      );
    step = Math.min(step, Math.max(sequence.nextTime() - time, 0) || Infinity);
    if (settling) step = Math.min(step, horizon - time);
    if (cure) step = Math.min(step, cure.stepLimit(time));
    prepare(step);
    let [given, kept, lost] = [0, 0, 0];
    air.startStep();
    for (let tries = 1; ; tries++) {
      bed.setStep(step);
      for (let i = 0; i < nodeCount; i++) {
        capacity[i] = (level[i] < 1 ? storage[i] * (1 - level[i]) : bed.demand[i]) - step * weight[i];
        bed.compliance[i] = level[i] < 1 || board.isGiven[i] ? 0 : bed.compliance[i];
      }
      air.setFloor(floor, step);
      guessImpulse({ board, rate, rateBefore, filling, level, step, impulse, highest });
      const tolerance = BALANCE * Math.max(expected * (step / planned), 1e-9 * total);
      const problem = {
        capacity,
        isGiven: board.isGiven,
        floor,
        compliance: bed.compliance,
        impulse,
        tolerance,
      };
      const spent = solver.solve(problem, inflow);
      solves += spent.solves;
      iterations += spent.iterations;
      [given, kept, lost] = takeInflow({ board, level, next, storage, capacity, inflow, weight, step });
      if (air.isBalanced(next, tries)) break;
    }
    const groups = air.newGroups(next, board.isVent);
    const reached = board.newlyReached(next);
    const due = sequence.due({
      time: time + step,
      level: next,
      drawn: entered + given,
      opening: board.opening,
    });
    const isTimed = time + step >= sequence.nextTime() * (1 - 1e-12);
    const isEvent = groups.length > 0 || reached.length > 0 || (due.length > 0 && !isTimed);
    if (isEvent && step > EVENT_RESOLUTION * planned) {
      step /= 2;
      continue;
    }

    time += step;
    entered += given;
    vented += lost;
    const grown = bed.advance(level, next, inflow, weight, step, board.isGiven);
    widened += grown;
    stored += kept - grown;
    const brought = Math.max(expected * (step / planned), SETTLE_VOLUME * total);
    massError = Math.max(massError, Math.abs(given - kept - lost) / Math.max(given, lost, brought));
    cure?.advance({ time, step, drawn: entered, impulse, before: level, isFeed: board.isFeed });
    tracker.record(time, level, next, impulse);
    const moved = shift({ level, next, filling, impulse, rate, rateBefore, step });
    if (cureAtArrival && cure)
      for (let i = 0; i < nodeCount; i++)
        if (Number.isNaN(cureAtArrival[i]) && level[i] >= 0.5) cureAtArrival[i] = cure.state[i];
    samples.push({ time, entered, stored: stored + widened, vented });
    if (request.frames && (stored / total) * request.frames >= frames.length) keepFrame();
    air.endStep(level, time, board.isVent);
    air.add(groups, time);
    board.keepReached(reached);
    for (const gate of reached)
      events.push({ time, gate, kind: 'reached', actionId: null, filled: stored / total });
    act();
    if (onProgress?.(stored / total) === false)
      throw new ModelError('CANCELLED', 'The forecast was stopped.');

    const acted = reached.length > 0 || due.length > 0;
    const full = room() <= DONE * total;
    if (full || settling) {
      const restless = acted || moved > SETTLED * highest || sequence.nextTime() < horizon;
      const wasSettling = settling;
      settling = bed.isSoft && time < horizon && request.until !== undefined && restless;
      planned = step =
        acted || !wasSettling
          ? (SETTLE_START * time * (widened + DONE * total)) / stored
          : SETTLE_GROWTH * step;
      expected = SETTLE_VOLUME * total;
      if (settling || full) continue;
    }
    const stepRate = (kept - grown) / step;
    if (!(stepRate * STALL > stored / time)) {
      if (!(sequence.nextTime() < horizon)) {
        settling = bed.isSoft && request.until !== undefined && time < horizon && moved > SETTLED * highest;
        if (settling) continue;
        break;
      }
      planned = step = sequence.nextTime() - time;
      expected = 1e-5 * total;
      continue;
    }
    const wanted = Math.min(
      total / steps,
      Math.max(earlyGrowth * stored, 1e-5 * total),
      Math.max(0.5 * room(), 2e-4 * total),
    );
    planned = step = Math.min(wanted / stepRate, acted ? step : 3 * step);
    expected = step * stepRate;
  }
  const rest = (total - stored - air.volume(level) - spareRoom()) / total;
  if (request.frames) keepFrame();

  const trapped = air.finish(level);
  if (rest <= DONE && trapped.every((region) => region.finalVolume === 0))
    tracker.markReached(
      Array.from(level, (_, i) => i),
      time,
    );

  const arrival = tracker.finish();
  for (const region of trapped) for (const i of region.voidNodes) arrival[i] = NaN;
  return {
    arrival,
    isFilled: rest <= SPECK,
    fillTime: arrival.reduce((last, t) => (t > last ? t : last), 0),
    samples,
    events,
    trapped,
    frames,
    final: { time, pressure: rate, level, pores: bed.pores },
    cureAtArrival,
    waiting: sequence.waiting(),
    massError,
    solves,
    iterations,
  };
}

/** The compiled solver; where a host forbids WebAssembly, the same in TypeScript, slower. */
function createSolver(network: FlowNetwork): ObstacleSolver {
  return canCompile() ? createKernelSolver(network) : createObstacleSolver(network);
}

/** Highest pressure above vacuum that any feed gives. @throws ModelError PRESSURE_ORDER */
function highestDrop(gates: readonly Gate[], feedPressure: number, vacuumPressure: number): number {
  const feeds = gates.filter((gate) => gate.kind === 'feed').map((gate) => gate.pressure ?? feedPressure);
  for (const pressure of [feedPressure, ...feeds])
    if (!(vacuumPressure >= 0 && pressure > vacuumPressure && pressure < Infinity))
      throw new ModelError(
        'PRESSURE_ORDER',
        `The feed pressure (${pressure} Pa) must be above the vacuum (${vacuumPressure} Pa, absolute). Check the gauge and the altitude.`,
        { feedPressure: pressure, vacuumPressure },
      );
  return Math.max(...feeds) - vacuumPressure;
}

const sum = (values: Float64Array) => values.reduce((a, b) => a + b, 0);
