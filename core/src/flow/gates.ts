import { ModelError } from '../model-error.ts';
import type { FlowNetwork } from './network.ts';

/** A line or point where resin enters or air leaves. */
export interface Gate {
  readonly name: string;
  readonly kind: 'feed' | 'vent';
  /** Nodes of the line on the part. */
  readonly nodes: Int32Array;
  readonly startsOpen: boolean;
  /** Absolute pressure while open, Pa; the run's feed or vacuum pressure when left out. */
  readonly pressure?: number;
  /** Which of the pots of resin a feed draws from; the first when left out. */
  readonly pot?: number;
  /** The pot that supplies it, and the two ends of the hose with its valve (from a tee, or from the pot itself). Without it its own nodes are at its pressure while it is open. */
  readonly supply?: { readonly pot: number; readonly from: number; readonly junction: number };
}

/** Which gates are open and how far, as flags and pressures on the nodes. */
export interface GateBoard {
  readonly isFeed: Uint8Array;
  readonly isVent: Uint8Array;
  /** Either of the two: the pressure is given there. */
  readonly isGiven: Uint8Array;
  /** Pot of resin behind each feed node; 0 elsewhere. */
  readonly potOf: Uint8Array;
  /** Pressure above the run's vacuum where it is given, Pa. */
  readonly pressure: Float64Array;
  /** Opening of each gate, 0 closed to 1 open. */
  readonly opening: Float64Array;
  set(gate: number, opening: number): void;
  /** The bag is less tight or the pump weaker: feeds drive with this share of their pressures above vacuum, > 0. */
  drive(share: number): void;
  /** Gates whose whole line the front has passed for the first time; call keepReached to remember. */
  newlyReached(level: Float64Array): number[];
  keepReached(gates: readonly number[]): void;
}

/** A line inside the part is passed when its own volumes are half full; a vent has resin when it is full. */
const PASSED = 0.5;

function isPassed({ kind, nodes }: Pick<Gate, 'kind' | 'nodes'>, level: Float64Array): boolean {
  const enough = kind === 'vent' ? 1 : PASSED;
  return nodes.every((i) => level[i] >= enough);
}

/**
 * @param drive feedPressure and vacuumPressure, absolute, Pa
 */
export function createGateBoard(
  gates: readonly Gate[],
  nodeCount: number,
  drive: { feedPressure: number; vacuumPressure: number },
): GateBoard {
  const isFeed = new Uint8Array(nodeCount);
  const isVent = new Uint8Array(nodeCount);
  const isGiven = new Uint8Array(nodeCount);
  const potOf = new Uint8Array(nodeCount);
  const pressure = new Float64Array(nodeCount);
  const opening = new Float64Array(gates.length);
  const wasReached = gates.map(() => false);
  let driven = 1;

  function mark() {
    isFeed.fill(0);
    isVent.fill(0);
    pressure.fill(0);
    gates.forEach((gate, index) => {
      if (gate.kind === 'vent') {
        if (opening[index] > 0) for (const i of gate.nodes) isVent[i] = 1;
        return;
      }
      const given = gate.supply ? [gate.supply.pot] : opening[index] > 0 ? gate.nodes : [];
      for (const i of given) {
        isFeed[i] = 1;
        potOf[i] = gate.pot ?? 0;
        pressure[i] = driven * ((gate.pressure ?? drive.feedPressure) - drive.vacuumPressure);
      }
    });
    for (let i = 0; i < nodeCount; i++) {
      if (isFeed[i]) isVent[i] = 0;
      isGiven[i] = isFeed[i] | isVent[i];
    }
  }
  mark();

  return {
    isFeed,
    isVent,
    isGiven,
    potOf,
    pressure,
    opening,
    set(gate, share) {
      opening[gate] = share;
      if (share > 0 && gates[gate].kind === 'feed') wasReached[gate] = true;
      mark();
    },
    drive(share) {
      driven = share;
      mark();
    },
    newlyReached: (level) =>
      gates.flatMap((gate, index) =>
        !wasReached[index] && (gate.kind === 'vent' || opening[index] === 0) && isPassed(gate, level)
          ? [index]
          : [],
      ),
    keepReached: (reached) => reached.forEach((gate) => (wasReached[gate] = true)),
  };
}

/** The two entries of a branch in the network's rows. @throws ModelError NO_BRANCH */
export function branchEntries(network: FlowNetwork, i: number, j: number): [number, number] {
  const entry = (row: number, column: number) => {
    for (let e = network.rowStart[row]; e < network.rowStart[row + 1]; e++)
      if (network.columns[e] === column) return e;
    throw new ModelError('NO_BRANCH', 'A feed line has no hose to its pot. Give it a hose.', { i, j });
  };
  return [entry(i, j), entry(j, i)];
}

/**
 * @throws ModelError NO_FEED, NO_FEED_AT_START, NO_VENT, GATE_EMPTY, GATES_OVERLAP
 */
export function requireGates(gates: readonly Gate[], { nodeCount }: FlowNetwork): void {
  const feeds = gates.filter((gate) => gate.kind === 'feed');
  if (feeds.length === 0)
    throw new ModelError(
      'NO_FEED',
      'There is no feed, so no resin comes in. Place a feed line or point on the part.',
    );
  if (!feeds.some((gate) => gate.startsOpen))
    throw new ModelError(
      'NO_FEED_AT_START',
      'Every feed waits for the front, so none starts it. Let one feed open at the start.',
    );
  if (!gates.some((gate) => gate.kind === 'vent'))
    throw new ModelError(
      'NO_VENT',
      'There is no vent, so the air cannot leave. Place a vent where the front should end.',
    );
  const owner = new Int32Array(nodeCount).fill(-1);
  gates.forEach((gate, index) => {
    if (gate.nodes.length === 0)
      throw new ModelError(
        'GATE_EMPTY',
        `${gate.name} touches no laminate. Drag it onto the part or delete it.`,
      );
    for (const node of gate.nodes) {
      const other = gates[owner[node]];
      if (other && other.kind !== gate.kind)
        throw new ModelError(
          'GATES_OVERLAP',
          `${other.name} and ${gate.name} touch each other: resin would run straight to the vent. Move them apart.`,
        );
      owner[node] = index;
    }
  });
}
