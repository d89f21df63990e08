import { type FlowNetwork } from '../flow/network.ts';
/** A strip as a chain of nodes at even distances, half volumes at both ends; T m3 (permeability x thickness), S m. */
export declare function stripNetwork(strip: {
  length: number;
  width: number;
  nodes: number;
  T: number;
  S: number;
}): FlowNetwork;
export declare const endGates: (nodes: number) => (
  | {
      name: string;
      kind: 'feed';
      nodes: Int32Array<ArrayBuffer>;
      startsOpen: boolean;
    }
  | {
      name: string;
      kind: 'vent';
      nodes: Int32Array<ArrayBuffer>;
      startsOpen: boolean;
    }
)[];
