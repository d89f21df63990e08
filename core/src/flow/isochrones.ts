import type { Mesh } from '../geometry/mesh.ts';

/** Rings of plan coordinates x0, y0, x1, y1 ...; draw with the even-odd rule. */
export type Rings = number[][];

/** Reads regions "passed by time t" off nodal arrival times. Reusable for one mesh and many times. */
export interface Isochrones {
  /** Outline of everything with arrival <= time. NaN arrival counts as never. */
  wetBy(time: number): Rings;
}

/**
 * Marching triangles with linear interpolation on edges; pieces of the front and of the part's edge are chained to rings,
 * and the front's zigzag from row to row of nodes is smoothed away. For drawing: areas stay, corners of a front are rounded.
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
    const onEdge = new Set<number>();
    const cutEdge = (i: number, j: number) => {
      const id = cut(i, j);
      onEdge.add(id);
      return id;
    };
    for (const [i, j] of boundary) {
      if (wet(i) && wet(j)) add(corner(i), corner(j));
      else if (wet(i)) add(corner(i), cutEdge(i, j));
      else if (wet(j)) add(cutEdge(i, j), corner(j));
    }
    return chain(next, twice).map((ids) => smooth(ids, place, (id) => id < nodeCount || onEdge.has(id)));
  }

  return { wetBy };
}

function chain(next: Map<number, number>, twice: [number, number][]): number[][] {
  const rings: number[][] = [];
  while (next.size > 0) {
    const ring: number[] = [];
    let at: number | undefined = next.keys().next().value;
    while (at !== undefined) {
      ring.push(at);
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

/** Passes inwards and outwards again, so that rings do not shrink, and pairs of them. Source: Taubin 1995 (SIGGRAPH), lambda-mu smoothing. */
const INWARDS = 0.5;
const OUTWARDS = -0.53;
const PAIRS = 8;

/** Points of the front drawn towards the middle of their neighbours; those on the part's edge stay. */
function smooth(
  ids: readonly number[],
  place: ReadonlyMap<number, readonly [number, number]>,
  isFixed: (id: number) => boolean,
): number[] {
  const count = ids.length;
  const ring = ids.flatMap((id) => place.get(id)!);
  const free = ids.flatMap((id, i) => (isFixed(id) ? [] : [i]));
  if (count < 4 || free.length === 0) return ring;
  const pull = new Float64Array(2 * count);
  for (let pass = 0; pass < 2 * PAIRS; pass++) {
    const share = pass % 2 === 0 ? INWARDS : OUTWARDS;
    for (const i of free) {
      const [before, after] = [(i + count - 1) % count, (i + 1) % count];
      for (const k of [0, 1])
        pull[2 * i + k] = share * ((ring[2 * before + k] + ring[2 * after + k]) / 2 - ring[2 * i + k]);
    }
    for (const i of free) {
      ring[2 * i] += pull[2 * i];
      ring[2 * i + 1] += pull[2 * i + 1];
    }
  }
  return ring;
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
