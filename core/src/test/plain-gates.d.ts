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
export declare function plainGates(lines: readonly PlainLine[]): {
  gates: Gate[];
  actions: Action[];
};
export {};
