import type { Mesh } from '../geometry/mesh.ts';
import { addDuct, lengthBetween, rectangularDuct } from './channels.ts';
import { cornersInPlane } from './edge-flips.ts';
import type { ZoneLaminate } from './layout.ts';
import type { NetworkBuilder } from './network.ts';

/** What races run along: the mesh, the zone of each triangle, and the laminates. */
interface Around {
  readonly mesh: Mesh;
  readonly zoneOf: ArrayLike<number>;
  readonly zones: readonly ZoneLaminate[];
  /** Mesh nodes of feeds and vents; a race that touches one opens into it. */
  readonly opensInto: ReadonlySet<number>;
}

/**
 * Adds races, gaps beside the laminate, as channels with nodes of their own: what runs in a gap does not wait for the laminate
 * beside it. Each node is joined to the laminate of every layer by the resistance with which the half cell there would fill
 * in the time that a front takes to cross it.
 * @returns adds a race along mesh edges, with its gap in m. Crossing races share their nodes.
 * Source: duct of White, half cell by Darcy's law. Checked by races.test.ts.
 */
export function createRaces(builder: NetworkBuilder, { mesh, zoneOf, zones, opensInto }: Around) {
  const own = new Map<number, number>();
  const corners = new Float64Array(6);
  const added: { node: number; at: number }[] = [];
  const nodeOf = (at: number): number => {
    if (opensInto.has(at)) return at;
    const known = own.get(at);
    if (known !== undefined) return known;
    const node = builder.addNodes([0]);
    own.set(at, node);
    added.push({ node, at });
    return node;
  };

  return {
    /** Nodes of races and the mesh nodes that they stand at. */
    added,
    add(edges: Int32Array, gap: number): void {
      const beside = trianglesBeside(mesh, edges);
      for (let e = 0; e < edges.length; e += 2) {
        const ends = [edges[e], edges[e + 1]];
        const triangles = beside.get(edgeKey(ends[0], ends[1])) ?? [];
        const heights = triangles.map((t) => zones[zoneOf[t]].thickness);
        const duct = rectangularDuct(gap, heights.reduce((sum, h) => sum + h, 0) / heights.length);
        addDuct(builder, ends.map(nodeOf), lengthBetween(mesh, ends[0], ends[1]), duct);
        for (const t of triangles) joinLaminate(t, ends);
      }
    },
  };

  function joinLaminate(t: number, ends: readonly number[]): void {
    const area = cornersInPlane(mesh.positions, mesh.triangles, t, corners);
    const [i, j] = ends.map((end) => [0, 1, 2].find((k) => mesh.triangles[3 * t + k] === end)!);
    const [alongX, alongY] = [corners[2 * j] - corners[2 * i], corners[2 * j + 1] - corners[2 * i + 1]];
    const square = alongX ** 2 + alongY ** 2;
    zones[zoneOf[t]].layers.forEach(({ transmissibility: { xx, yy, xy } }, l) => {
      const across = (xx * alongY ** 2 - 2 * xy * alongX * alongY + yy * alongX ** 2) / square;
      // Half the edge long, h its triangle's height: the half cell is a third of h wide, and a front crosses it against half of that.
      // Filled evenly in two thirds of the time it has taken up as much on the mean as that front, which moves as the root of time.
      const conductance = (2.25 * across * square) / area;
      for (const end of ends)
        if (nodeOf(end) !== end) builder.join(nodeOf(end), l * mesh.nodeCount + end, conductance);
    });
  }
}

const edgeKey = (i: number, j: number): string => (i < j ? `${i} ${j}` : `${j} ${i}`);

function trianglesBeside({ triangles }: Mesh, edges: Int32Array): Map<string, number[]> {
  const beside = new Map<string, number[]>();
  for (let e = 0; e < edges.length; e += 2) beside.set(edgeKey(edges[e], edges[e + 1]), []);
  for (let n = 0; n < triangles.length; n++)
    beside.get(edgeKey(triangles[n], triangles[n - (n % 3) + ((n + 1) % 3)]))?.push(Math.floor(n / 3));
  return beside;
}
