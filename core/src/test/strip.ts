import { createNetworkBuilder, type FlowNetwork } from '../flow/network.ts';

/** A strip as a chain of nodes at even distances, half volumes at both ends; T m3 (permeability x thickness), S m. */
export function stripNetwork(strip: {
  length: number;
  width: number;
  nodes: number;
  T: number;
  S: number;
}): FlowNetwork {
  const { length, width, nodes, T, S } = strip;
  const h = length / (nodes - 1);
  const builder = createNetworkBuilder();
  builder.addNodes(
    Float64Array.from({ length: nodes }, (_, i) => S * width * h * (i === 0 || i === nodes - 1 ? 0.5 : 1)),
  );
  for (let i = 0; i + 1 < nodes; i++) builder.join(i, i + 1, (T * width) / h);
  return builder.build();
}

export const endGates = (nodes: number) => [
  { name: 'Feed', kind: 'feed' as const, nodes: Int32Array.of(0), startsOpen: true },
  { name: 'Vent', kind: 'vent' as const, nodes: Int32Array.of(nodes - 1), startsOpen: true },
];
