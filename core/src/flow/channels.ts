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

/**
 * Rectangular duct: G = (a b^3 / 12) (1 - (192 b / (pi^5 a)) sum over odd n of tanh(n pi a / 2b) / n^5), a the longer and b the
 * shorter of its sides. Source: White, Viscous Fluid Flow (from memory). Checked by races.test.ts.
 */
export function rectangularDuct(gap: number, height: number): { conductance: number; area: number } {
  const [a, b] = [Math.max(gap, height), Math.min(gap, height)];
  let sum = 0;
  for (let n = 1; n < 20; n += 2) sum += Math.tanh((n * Math.PI * a) / (2 * b)) / n ** 5;
  return {
    conductance: ((a * b ** 3) / 12) * (1 - ((192 * b) / (Math.PI ** 5 * a)) * sum),
    area: gap * height,
  };
}

/** Hose of a length: m3. */
export function hoseConductance({ length, bore }: { length: number; bore: number }): number {
  return roundBore(bore).conductance / Math.max(length, 1e-3);
}

export function lengthBetween({ positions }: Mesh, i: number, j: number): number {
  return Math.hypot(
    positions[3 * i] - positions[3 * j],
    positions[3 * i + 1] - positions[3 * j + 1],
    positions[3 * i + 2] - positions[3 * j + 2],
  );
}

/** Adds a duct of a length between two nodes, half of its bore stored in each. */
export function addDuct(
  builder: NetworkBuilder,
  [i, j]: readonly number[],
  length: number,
  { conductance, area }: { conductance: number; area: number },
): void {
  builder.join(i, j, conductance / length);
  builder.addStorage(i, (area * length) / 2);
  builder.addStorage(j, (area * length) / 2);
}

/** Adds a channel along mesh edges. */
export function addChannel(builder: NetworkBuilder, mesh: Mesh, { edges, ...duct }: Channel): void {
  for (let e = 0; e < edges.length; e += 2)
    addDuct(builder, [edges[e], edges[e + 1]], lengthBetween(mesh, edges[e], edges[e + 1]), duct);
}
