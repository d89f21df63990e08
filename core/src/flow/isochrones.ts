import type { Mesh } from '../geometry/mesh.ts';

/** Rings of plan coordinates x0, y0, x1, y1 ...; draw with the even-odd rule. */
export type Rings = number[][];

/** Reads regions "passed by time t" off nodal arrival times. Reusable for one mesh and many times. */
export interface Isochrones {
  /** Outline of everything with arrival <= time. NaN arrival counts as never. */
  wetBy(time: number): Rings;
}

/**
 * Marching triangles with linear interpolation on edges; pieces of the front and of the part's edge are chained to rings.
 * @param arrival one value a node, s; NaN allowed; kept by reference
 * Checked by forecast.test.ts.
 */
export function createIsochrones(
  { nodeCount, triangles, positions }: Mesh,
  arrival: Float64Array,
): Isochrones {
  const boundary = boundaryEdges(triangles, nodeCount);

  function wetBy(time: number): Rings {
    const wet = (i: number) => arrival[i] <= time;
    const next = new Map<number, number>();
    const place = new Map<number, [number, number]>();
    const corner = (i: number) => {
      place.set(i, [positions[3 * i], positions[3 * i + 1]]);
      return i;
    };
    const cut = (i: number, j: number) => {
      const [a, b] = i < j ? [i, j] : [j, i];
      const id = nodeCount + a * nodeCount + b;
      if (!place.has(id)) {
        const share = (time - arrival[a]) / (arrival[b] - arrival[a]);
        const s = Number.isFinite(share) ? Math.max(0, Math.min(1, share)) : 0.5;
        place.set(id, [
          positions[3 * a] + s * (positions[3 * b] - positions[3 * a]),
          positions[3 * a + 1] + s * (positions[3 * b + 1] - positions[3 * a + 1]),
        ]);
      }
      return id;
    };
    // Every piece runs with the wet side on its left. A point may start two pieces where wet areas touch: keep both.
    const twice: [number, number][] = [];
    const add = (from: number, to: number) => (next.has(from) ? twice.push([from, to]) : next.set(from, to));
    for (let t = 0; t < triangles.length; t += 3) {
      for (let k = 0; k < 3; k++) {
        const i = triangles[t + k];
        const j = triangles[t + ((k + 1) % 3)];
        const l = triangles[t + ((k + 2) % 3)];
        if (wet(i) && !wet(j) && !wet(l)) add(cut(i, j), cut(i, l));
        if (!wet(i) && wet(j) && wet(l)) add(cut(l, i), cut(i, j));
      }
    }
    for (const [i, j] of boundary) {
      if (wet(i) && wet(j)) add(corner(i), corner(j));
      else if (wet(i)) add(corner(i), cut(i, j));
      else if (wet(j)) add(cut(i, j), corner(j));
    }
    return chain(next, twice, place);
  }

  return { wetBy };
}

function chain(
  next: Map<number, number>,
  twice: [number, number][],
  place: Map<number, [number, number]>,
): Rings {
  const rings: Rings = [];
  while (next.size > 0) {
    const ring: number[] = [];
    let at: number | undefined = next.keys().next().value;
    while (at !== undefined) {
      ring.push(...place.get(at)!);
      const to = next.get(at);
      next.delete(at);
      const again = twice.findIndex(([from]) => from === at);
      if (again >= 0) next.set(...twice.splice(again, 1)[0]);
      at = to !== undefined && next.has(to) ? to : undefined;
    }
    rings.push(ring);
  }
  return rings;
}

/** Half-edges that belong to one triangle only, in its direction. */
function boundaryEdges(triangles: Uint32Array, nodeCount: number): [number, number][] {
  const single = new Map<number, [number, number]>();
  for (let e = 0; e < triangles.length; e++) {
    const i = triangles[e];
    const j = triangles[e - (e % 3) + ((e + 1) % 3)];
    const reverse = j * nodeCount + i;
    if (!single.delete(reverse)) single.set(i * nodeCount + j, [i, j]);
  }
  return [...single.values()];
}
