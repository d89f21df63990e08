import { ModelError } from '../model-error.ts';
import { createArrivalTracker } from './arrival.ts';
import { cutOffGroups, type CutOffGroup } from './dry-regions.ts';
import { createGateBoard, requireGates, type Gate, type GateBoard } from './gates.ts';
import type { FlowNetwork } from './network.ts';
import { createObstacleSolver } from './obstacle.ts';

export interface FillRequest {
  readonly network: FlowNetwork;
  readonly gates: readonly Gate[];
  /** Absolute pressures, Pa: at open feeds, and under the bag ahead of the front. */
  readonly feedPressure: number;
  readonly vacuumPressure: number;
  /** Steps the fill is sampled with; arrival times lie between samples. 100 by default. */
  readonly steps?: number;
  /** Called after each step with the filled share; return false to give up. */
  readonly onProgress?: (filledFraction: number) => boolean | void;
}

/** All times are fluidity times: the integral of dt / viscosity, 1/Pa. Multiply by a constant viscosity for seconds. */
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
  /** Largest mass balance error of a step, as a share of what entered in that step. */
  readonly massError: number;
  readonly solves: number;
  readonly iterations: number;
}

export interface FillSample {
  readonly time: number;
  /** Volumes since the start, m3. */
  readonly entered: number;
  readonly stored: number;
  readonly vented: number;
}

export interface GateEvent {
  readonly time: number;
  readonly gate: number;
  readonly kind: 'opens' | 'reached' | 'closes';
}

export interface TrappedRegion {
  /** When it lost its last way to an open vent. */
  readonly time: number;
  /** Nodes with room left at that time, and that room, m3. */
  readonly nodes: Int32Array;
  readonly volume: number;
  /** Gas that stays once it is pressed to feed pressure (Boyle), m3, and the nodes it stays in. */
  readonly finalVolume: number;
  readonly voidNodes: Int32Array;
}

const DEFAULT_STEPS = 100;
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

/**
 * Fills a network from its feeds. Each step solves one obstacle problem for the pressure impulse U (the integral of the
 * pressure above vacuum over the step), which is exact whatever the length of the step.
 * @throws ModelError those of requireGates; PRESSURE_ORDER; CANCELLED when onProgress returns false
 * Valid: Darcy flow, incompressible resin, saturated front, constant pressures, one viscosity at a time for all the resin.
 * Source: Baiocchi 1972; Elliott & Janovsky 1981 (impulse form). Checked by fill.test.ts.
 */
export function fill(request: FillRequest): FillResult {
  const { network, gates, feedPressure, vacuumPressure, steps = DEFAULT_STEPS, onProgress } = request;
  const { nodeCount, storage } = network;
  requireGates(gates, network);
  const drop = feedPressure - vacuumPressure;
  if (!(vacuumPressure >= 0 && drop > 0 && drop < Infinity))
    throw new ModelError(
      'PRESSURE_ORDER',
      `The feed pressure (${feedPressure} Pa) must be above the vacuum (${vacuumPressure} Pa, absolute). Check the gauge and the altitude.`,
      { feedPressure, vacuumPressure },
    );
  const total = storage.reduce((sum, v) => sum + v, 0);
  const solver = createObstacleSolver(network);
  const tracker = createArrivalTracker(network);
  const board = createGateBoard(gates, nodeCount);
  const level = new Float64Array(nodeCount);
  const next = new Float64Array(nodeCount);
  const capacity = new Float64Array(nodeCount);
  const impulse = new Float64Array(nodeCount);
  const impulseSum = new Float64Array(nodeCount);
  const rate = new Float64Array(nodeCount);
  const rateBefore = new Float64Array(nodeCount);
  const filling = new Float64Array(nodeCount);
  const inflow = new Float64Array(nodeCount);
  const inRegion = new Int32Array(nodeCount).fill(-1);
  const samples: FillSample[] = [{ time: 0, entered: 0, stored: 0, vented: 0 }];
  const events: GateEvent[] = [];
  const trapped: OpenRegion[] = [];
  let [time, entered, stored, vented, massError, solves, iterations] = [0, 0, 0, 0, 0, 0, 0];
  let sealed = 0;

  const openFeed = (gate: number) => {
    board.open(gate);
    events.push({ time, gate, kind: 'opens' });
    for (const i of gates[gate].nodes) {
      entered += storage[i] * (1 - level[i]);
      stored += storage[i] * (1 - level[i]);
      level[i] = 1;
    }
    tracker.markReached(gates[gate].nodes, time);
  };
  gates.forEach((gate, index) => {
    if (gate.kind === 'vent') board.open(index);
    else if (gate.opens !== 'whenReached') openFeed(index);
  });

  /** Pressure expected in the next step: that of the last one carried on, and a trace where a node is about to be full. */
  const guess = (i: number) => {
    if (rate[i] > 0)
      return rateBefore[i] > 0 ? Math.max(0.5 * rate[i], 2 * rate[i] - rateBefore[i]) : rate[i];
    return filling[i] * step > 0.7 * (1 - level[i]) ? 1e-9 * drop : 0;
  };
  let step = firstStep(network, board, drop);
  let planned = step;
  /** Volume the planned step should bring, m3. */
  let expected = 1e-5 * total;
  while (total - stored - sealed > DONE * total) {
    for (let i = 0; i < nodeCount; i++) {
      capacity[i] = storage[i] * (1 - level[i]);
      impulse[i] = board.isFeed[i] ? drop * step : board.isVent[i] ? 0 : guess(i) * step;
    }
    const spent = solver.solve(
      {
        capacity,
        isGiven: board.isGiven,
        impulse,
        tolerance: BALANCE * Math.max(expected * (step / planned), 1e-9 * total),
      },
      inflow,
    );
    solves += spent.solves;
    iterations += spent.iterations;
    let [given, kept, lost] = [0, 0, 0];
    for (let i = 0; i < nodeCount; i++) {
      next[i] = level[i];
      if (board.isFeed[i]) given -= inflow[i];
      else {
        const room = Math.min(inflow[i], capacity[i]);
        kept += room;
        lost += inflow[i] - room;
        next[i] = inflow[i] >= capacity[i] ? 1 : level[i] + inflow[i] / storage[i];
      }
    }
    const regions = newRegions(network, board, next, inRegion, SMALLEST_REGION * total);
    const reached = board.newlyReached(next);
    if ((regions.length > 0 || reached.length > 0) && step > EVENT_RESOLUTION * planned) {
      step /= 2;
      continue;
    }

    time += step;
    entered += given;
    stored += kept;
    vented += lost;
    massError = Math.max(massError, Math.abs(given - kept - lost) / Math.max(given, 1e-9 * total));
    for (let i = 0; i < nodeCount; i++) {
      filling[i] = next[i] < 1 ? (next[i] - level[i]) / step : 0;
      level[i] = next[i];
      impulseSum[i] += impulse[i];
      rateBefore[i] = rate[i];
      rate[i] = impulse[i] / step;
    }
    tracker.record(time, level, impulseSum);
    samples.push({ time, entered, stored, vented });
    for (const region of regions) {
      for (const i of region.nodes) inRegion[i] = trapped.length;
      trapped.push({
        ...region,
        time,
        finalVolume: (region.volume * vacuumPressure) / feedPressure,
        voidNodes: null,
      });
    }
    board.keepReached(reached);
    for (const gate of reached) {
      if (gates[gate].kind === 'feed') openFeed(gate);
      else events.push({ time, gate, kind: 'reached' });
      if (gates[gate].kind === 'vent' && gates[gate].closesWhenReached) {
        board.close(gate);
        events.push({ time, gate, kind: 'closes' });
      }
    }
    sealed = sealedVolume(trapped, network, level);
    if (onProgress?.(stored / total) === false)
      throw new ModelError('CANCELLED', 'The forecast was stopped.');

    const stepRate = kept / step;
    if (!(stepRate * STALL > stored / time)) break;
    const left = total - stored - sealed;
    const wanted = Math.min(
      total / steps,
      Math.max(EARLY_GROWTH * stored, 1e-6 * total),
      Math.max(0.5 * left, 2e-4 * total),
    );
    planned = step = Math.min(wanted / stepRate, reached.length > 0 ? step : 3 * step);
    expected = step * stepRate;
  }
  const rest = (total - stored - sealed) / total;
  if (rest <= DONE) tracker.record(time, level.fill(1), impulseSum);
  const arrival = tracker.finish();
  for (const region of trapped)
    for (const i of region.voidNodes ?? region.nodes) if (region.voidNodes || level[i] < 1) arrival[i] = NaN;
  return {
    arrival,
    isFilled: rest <= SPECK,
    fillTime: arrival.reduce((last, t) => (t > last ? t : last), 0),
    samples,
    events,
    trapped: trapped.map((region) => ({ ...region, voidNodes: region.voidNodes ?? roomIn(region, level) })),
    massError,
    solves,
    iterations,
  };
}

/** A trapped region whose gas may still be shrinking; voidNodes is set once it no longer can. */
type OpenRegion = Omit<TrappedRegion, 'voidNodes'> & { voidNodes: Int32Array | null };

/** Notes the regions whose gas has reached feed pressure; returns the room left in them. */
function sealedVolume(regions: OpenRegion[], network: FlowNetwork, level: Float64Array): number {
  let sum = 0;
  for (const region of regions) {
    const left = region.nodes.reduce((room, i) => room + network.storage[i] * (1 - level[i]), 0);
    if (left <= region.finalVolume) region.voidNodes ??= roomIn(region, level);
    if (region.voidNodes) sum += left;
  }
  return sum;
}

const roomIn = (region: { nodes: Int32Array }, level: Float64Array) =>
  region.nodes.filter((i) => level[i] < 1);

/** Groups cut off for the first time: no part of them lies in a region already known. */
function newRegions(
  network: FlowNetwork,
  board: GateBoard,
  level: Float64Array,
  inRegion: Int32Array,
  minVolume: number,
): CutOffGroup[] {
  return cutOffGroups(network, { fill: level, isVent: board.isVent, minVolume }).filter((group) =>
    group.nodes.every((i) => inRegion[i] < 0),
  );
}

/** Half the time in which the open feeds would fill the volumes next to them. */
function firstStep(network: FlowNetwork, board: GateBoard, drop: number): number {
  let flow = 0;
  let volume = 0;
  const seen = new Uint8Array(network.nodeCount);
  for (let i = 0; i < network.nodeCount; i++) {
    if (!board.isFeed[i]) continue;
    for (let e = network.rowStart[i]; e < network.rowStart[i + 1]; e++) {
      const j = network.columns[e];
      if (board.isFeed[j]) continue;
      flow += network.conductance[e] * drop;
      if (!seen[j]) volume += network.storage[j];
      seen[j] = 1;
    }
  }
  return (0.5 * volume) / flow;
}
