import type { Gate } from '../flow/gates.ts';
import type { Action } from '../flow/sequence.ts';

interface PlainLine {
  readonly name: string;
  readonly kind: 'feed' | 'vent';
  readonly nodes: Int32Array;
  readonly opens?: 'atStart' | 'whenReached';
  readonly closesWhenReached?: boolean;
}

/** Lines without hoses: feeds at the start or when the front has passed them, vents clamped when resin has come. */
export function plainGates(lines: readonly PlainLine[]): { gates: Gate[]; actions: Action[] } {
  const gates = lines.map(({ name, kind, nodes, opens }) => ({
    name,
    kind,
    nodes,
    startsOpen: kind === 'vent' || opens !== 'whenReached',
  }));
  const actions = lines.flatMap(({ kind, nodes, opens, closesWhenReached }, gate): Action[] => {
    if (kind === 'feed')
      return opens === 'whenReached' ? [{ gate, opening: 1, when: { kind: 'wet', nodes } }] : [];
    return closesWhenReached ? [{ gate, opening: 0, when: { kind: 'wet', nodes, level: 1 } }] : [];
  });
  return { gates, actions };
}
