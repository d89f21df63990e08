import type { Mesh } from '../geometry/mesh.ts';
import type { NetworkBuilder } from './network.ts';

/** An open way along mesh edges: conductance per metre^-1, m4 (flow = G / (mu L) dp), and bore area, m2. */
export interface Channel {
  readonly edges: Int32Array;
  readonly conductance: number;
  readonly area: number;
}

/** Round bore, hydraulic diameter d: G = pi d^4 / 128. Source: Hagen-Poiseuille. */
export function roundBore(diameter: number): { conductance: number; area: number } {
  return { conductance: (Math.PI * diameter ** 4) / 128, area: (Math.PI * diameter ** 2) / 4 };
}

/** Gap between laminate edge and whatever it stands against: K = gap^2 / 12 over its section. Source: plane Poiseuille flow. */
export function edgeGap(gap: number, height: number): { conductance: number; area: number } {
  return { conductance: (gap ** 3 * height) / 12, area: gap * height };
}

/** Hose of a length: m3. */
export function hoseConductance({ length, bore }: { length: number; bore: number }): number {
  return roundBore(bore).conductance / Math.max(length, 1e-3);
}

/** Adds a channel along its edges, on nodes that start at an offset. */
export function addChannel(
  builder: NetworkBuilder,
  { positions }: Mesh,
  { edges, conductance, area }: Channel,
  offset = 0,
): void {
  for (let e = 0; e < edges.length; e += 2) {
    const [i, j] = [edges[e], edges[e + 1]];
    const length = Math.hypot(
      positions[3 * i] - positions[3 * j],
      positions[3 * i + 1] - positions[3 * j + 1],
      positions[3 * i + 2] - positions[3 * j + 2],
    );
    builder.join(offset + i, offset + j, conductance / length);
    builder.addStorage(offset + i, (area * length) / 2);
    builder.addStorage(offset + j, (area * length) / 2);
  }
}
