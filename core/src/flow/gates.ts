import { ModelError } from '../model-error.ts';
import type { FlowNetwork } from './network.ts';

/** A line or point where resin enters or air leaves. */
export interface Gate {
  readonly name: string;
  readonly kind: 'feed' | 'vent';
  readonly nodes: Int32Array;
  /** Feed: opened at the start or when the front has passed its whole length. Ignored on vents. */
  readonly opens?: 'atStart' | 'whenReached';
  /** Vent: clamped when resin has reached its whole length. Ignored on feeds. */
  readonly closesWhenReached?: boolean;
}

/** Which gates are open, as flags on the nodes. */
export interface GateBoard {
  readonly isFeed: Uint8Array;
  readonly isVent: Uint8Array;
  /** Either of the two: the pressure is given there. */
  readonly isGiven: Uint8Array;
  open(gate: number): void;
  close(gate: number): void;
  /** Waiting feeds and open vents that are full along their whole length for the first time; call keepReached to remember. */
  newlyReached(fill: Float64Array): number[];
  keepReached(gates: readonly number[]): void;
}

export function createGateBoard(gates: readonly Gate[], nodeCount: number): GateBoard {
  const isFeed = new Uint8Array(nodeCount);
  const isVent = new Uint8Array(nodeCount);
  const isGiven = new Uint8Array(nodeCount);
  const isOpen = gates.map(() => false);
  const wasReached = gates.map(() => false);

  function set(gate: number, open: boolean) {
    isOpen[gate] = open;
    isFeed.fill(0);
    isVent.fill(0);
    gates.forEach(({ kind, nodes }, index) => {
      if (isOpen[index]) for (const i of nodes) (kind === 'feed' ? isFeed : isVent)[i] = 1;
    });
    for (let i = 0; i < nodeCount; i++) {
      if (isFeed[i]) isVent[i] = 0;
      isGiven[i] = isFeed[i] | isVent[i];
    }
  }

  return {
    isFeed,
    isVent,
    isGiven,
    open: (gate) => set(gate, true),
    close: (gate) => set(gate, false),
    newlyReached: (fill) =>
      gates.flatMap(({ kind, nodes }, index) =>
        !wasReached[index] && isOpen[index] === (kind === 'vent') && nodes.every((i) => fill[i] >= 1)
          ? [index]
          : [],
      ),
    keepReached: (reached) => reached.forEach((gate) => (wasReached[gate] = true)),
  };
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
  if (feeds.every((gate) => gate.opens === 'whenReached'))
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
