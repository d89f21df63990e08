import { ModelError } from '../model-error.ts';
import { createArrivalTracker } from './arrival.ts';
import { createBranches } from './branches.ts';
import type { CutOffGroup } from './dry-regions.ts';
import type { FillRequest, FillSample, FillStart, Frame, GateEvent } from './fill-types.ts';
import { createAreas } from './footprint.ts';
import { createGateBoard, requireGates, type Gate, type GateBoard } from './gates.ts';
import { createWeight, type Weight } from './gravity.ts';
import { createCureField } from './moving-resin.ts';
import type { FlowNetwork } from './network.ts';
import { canCompile, createKernelSolver } from './obstacle-kernel.ts';
import { createObstacleSolver, type ObstacleSolver } from './obstacle.ts';
import { createSequence, type Sequence } from './sequence.ts';
import { createSoftBed } from './soft-bed.ts';
import { createTrappedAir } from './trapped-air.ts';

/** A fill under way. The steps of fill-step.ts and step-plan.ts change it in place. */
export interface FillRun {
  readonly request: FillRequest;
  /** Its conductances are those of the step. */
  readonly network: FlowNetwork;
  readonly board: GateBoard;
  readonly sequence: Sequence;
  readonly branches: ReturnType<typeof createBranches>;
  readonly solver: ObstacleSolver;
  readonly tracker: ReturnType<typeof createArrivalTracker>;
  readonly areaOf: ReturnType<typeof createAreas>;
  readonly air: ReturnType<typeof createTrappedAir>;
  readonly bed: ReturnType<typeof createSoftBed>;
  readonly cure: ReturnType<typeof createCureField> | null;
  readonly weight: Weight | undefined;
  /** Pore volume, m3, and highest pressure above vacuum, Pa. */
  readonly total: number;
  readonly highest: number;
  /** Fill fraction of each node, and after the step that is tried. */
  readonly level: Float64Array;
  readonly next: Float64Array;
  /** Of the step that is tried, as in ObstacleStep. */
  readonly capacity: Float64Array;
  readonly floor: Float64Array;
  readonly impulse: Float64Array;
  readonly inflow: Float64Array;
  /** Pressure above vacuum of the last step and of that before it, Pa, and growth of the level. */
  readonly rate: Float64Array;
  readonly rateBefore: Float64Array;
  readonly filling: Float64Array;
  readonly fluidity: Float64Array;
  readonly cureAtArrival: Float64Array | null;
  readonly samples: FillSample[];
  readonly frames: Frame[];
  readonly events: GateEvent[];
  time: number;
  /** Volumes since the fill began, m3: out of the pots, into pores, what those have widened by, into vents. */
  entered: number;
  /** Out of each pot, and in the step that is tried. */
  readonly enteredBy: Float64Array;
  readonly givenBy: Float64Array;
  stored: number;
  widened: number;
  vented: number;
  massError: number;
  solves: number;
  iterations: number;
  /** Length of the next step and the planned one that it may be half of; volume, m3, that the planned one should bring. */
  step: number;
  planned: number;
  expected: number;
  /** The part is full and settles; the run has stalled for good. */
  isSettling: boolean;
  isStalled: boolean;
  /** Since when, and for how many steps, it has been next to standing; Infinity and 0 while it is not. */
  slowSince: number;
  slowSteps: number;
}

/** Regions below this share of the pore volume are the mesh's, not the part's. */
const SMALLEST_REGION = 1e-3;

/** The run before its first step, its gates open as they start. Errors as fill. */
export function startRun(request: FillRequest): FillRun {
  const { gates, feedPressure, vacuumPressure, start } = request;
  const network = { ...request.network, conductance: request.network.conductance.slice() };
  const { nodeCount, storage } = network;
  requireGates(gates, network);
  if (start) requireStart(start, gates, nodeCount);
  const board = createGateBoard(gates, nodeCount, { feedPressure, vacuumPressure });
  const highest = highestDrop(gates, feedPressure, vacuumPressure);
  const sequence = createSequence(request.actions ?? [], gates.length, request.later);
  const total = sum(storage);
  const { smallestArea } = request;
  const isTold = ({ nodes, volume }: CutOffGroup, level: Float64Array) =>
    smallestArea === undefined ? volume > SMALLEST_REGION * total : areaOf(nodes, level) > smallestArea;
  const cure = request.resin ? createCureField(network, request.resin) : null;
  const areaOf = createAreas(request.footprint);
  const buffer = () => new Float64Array(nodeCount);
  const perPot = () => new Float64Array(1 + Math.max(...gates.map(({ pot = 0 }) => pot)));
  const run: FillRun = {
    request,
    network,
    board,
    sequence,
    branches: createBranches(request, network, board),
    solver: (request.createSolver ?? createSolver)(network),
    tracker: createArrivalTracker(network, start?.time),
    areaOf,
    air: createTrappedAir(network, { vacuumPressure, highest }, areaOf, isTold),
    bed: createSoftBed(network, request.softness, start?.pores),
    cure,
    weight: request.gravity && createWeight(network, request.gravity),
    total,
    highest,
    level: buffer(),
    next: buffer(),
    capacity: buffer(),
    floor: buffer(),
    impulse: buffer(),
    inflow: buffer(),
    rate: buffer(),
    rateBefore: buffer(),
    filling: buffer(),
    fluidity: buffer().fill(1),
    cureAtArrival: cure && buffer().fill(NaN),
    samples: [],
    frames: [],
    events: [],
    ...{ time: start?.time ?? 0, entered: start?.drawn ?? 0, vented: start?.vented ?? 0 },
    ...{ enteredBy: perPot(), givenBy: perPot() },
    ...{ stored: 0, widened: 0, massError: 0, solves: 0, iterations: 0 },
    ...{
      step: 0,
      planned: 0,
      expected: 0,
      isSettling: false,
      isStalled: false,
      slowSince: Infinity,
      slowSteps: 0,
    },
  };
  if (start) goOnFrom(run, start);
  sample(run);
  if (!start) openAtStart(run);
  act(run);
  return run;
}

function openAtStart(run: FillRun) {
  const { storage } = run.network;
  run.request.gates.forEach(({ startsOpen, supply }, index) => {
    for (const i of supply ? [supply.pot, supply.from] : [])
      if (run.level[i] < 1) {
        give(run, index, storage[i]);
        run.level[i] = 1;
        run.tracker.markReached([i], 0);
      }
    if (startsOpen) operate(run, index, 1);
  });
}

/** A volume that wets the nodes of a feed at once. */
function give(run: FillRun, gate: number, volume: number) {
  run.entered += volume;
  run.enteredBy[run.request.gates[gate].pot ?? 0] += volume;
  run.stored += volume;
}

/** Takes over what is wet, which gates are open and which the front has passed. */
function goOnFrom(run: FillRun, start: FillStart) {
  const { level, network, board, air, tracker, bed, cure, cureAtArrival } = run;
  level.set(start.level);
  run.enteredBy.set(start.drawnBy ? Array.from(start.drawnBy) : [start.drawn]);
  Array.from(start.opening).forEach((opening, gate) => board.set(gate, opening));
  if (start.cure) cure?.state.set(start.cure);
  const wet = Array.from(level.keys()).filter((i) => level[i] >= 0.5);
  tracker.markReached(
    wet.filter((i) => level[i] >= 1),
    start.time,
  );
  for (const i of wet) if (cure && cureAtArrival) cureAtArrival[i] = cure.state[i];
  level.forEach((share, i) => {
    run.stored += share * network.storage[i];
    run.widened += share >= 1 ? (bed.pores[i] - 1) * network.storage[i] : 0;
  });
  board.keepReached(board.newlyReached(level));
  air.add(air.newGroups(level, board.isVent), level, start.time);
}

/** Opens, closes or throttles a gate; a feed that opens on the part wets its own nodes at once. */
export function operate(run: FillRun, gate: number, opening: number, actionId: string | null = null) {
  const { board, time, level, network, request, tracker, total } = run;
  const { kind, nodes, supply } = request.gates[gate];
  const was = board.opening[gate];
  if (opening === was) return;
  board.set(gate, opening);
  const what = opening === 0 ? 'closes' : was === 0 ? 'opens' : 'throttles';
  // That a vent is open before anything happens is no event.
  if (time > 0 || kind === 'feed')
    run.events.push({ time, gate, kind: what, actionId, filled: run.stored / total });
  if (what !== 'opens' || kind !== 'feed' || supply) return;
  for (const i of nodes) {
    const room = network.storage[i] * Math.max(0, 1 - level[i]);
    give(run, gate, room);
    level[i] = 1;
  }
  tracker.markReached(nodes, time);
}

/** Does all that is due in the state the run is in. @returns whether anything was */
export function act(run: FillRun): boolean {
  const { sequence, time, level, board } = run;
  const due = () => sequence.due({ time, level, drawn: run.entered, opening: board.opening });
  let hasActed = false;
  for (let now = due(); now.length > 0; now = due()) {
    hasActed = true;
    for (const { gate, opening, id } of sequence.take(now, time)) operate(run, gate, opening, id);
  }
  return hasActed;
}

/** Keeps the volumes and the dry area as they are now. */
export function sample(run: FillRun) {
  const { samples, time, entered, enteredBy, stored, widened, vented, areaOf, level } = run;
  samples.push({
    time,
    entered,
    enteredBy: enteredBy.slice(),
    stored: stored + widened,
    vented,
    dryArea: areaOf(level.keys(), level),
  });
}

/** Keeps the pressures, and the ages where resin ages from place to place, as they are now. */
export function keepFrame({ frames, time, rate, cure }: FillRun) {
  frames.push({ time, pressure: Float32Array.from(rate), cure: cure && Float32Array.from(cure.state) });
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

/** @throws ModelError BAD_START */
function requireStart(start: FillStart, gates: readonly Gate[], nodeCount: number) {
  const shares = [...start.level, ...Array.from(start.opening)];
  const isWhole =
    start.level.length === nodeCount &&
    start.opening.length === gates.length &&
    shares.every((share) => share >= 0 && share <= 1) &&
    [start.time, start.drawn, start.vented].every((value) => value >= 0 && value < Infinity);
  if (!isWhole)
    throw new ModelError(
      'BAD_START',
      'The front that the run is to start from does not belong to this plan. Start it from the beginning.',
    );
}

const sum = (values: Float64Array) => values.reduce((a, b) => a + b, 0);
