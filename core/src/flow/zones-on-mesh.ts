import type { Mesh } from '../geometry/mesh.ts';
import { contains, segmentsCross, type Point } from '../geometry/polygon.ts';
import { isInside, type PartShape } from '../layouts/frame.ts';
import type { ForecastRequest, ZoneLaminate } from './layout.ts';

/** Each laminate once for every way in which coverings may lie on it or not: with all of them first. */
export function withUncovered(request: ForecastRequest): ForecastRequest {
  const { zones, coverings = [] } = request;
  const ways = 2 ** coverings.length;
  const all = Array.from({ length: ways }, (_, way) =>
    way === 0 ? zones : zones.map((zone) => ({ ...zone, ...zone.uncovered![way - 1] })),
  );
  return { ...request, zones: all.flat() };
}

/** Edges that the mesh has to follow: of zones and coverings, where they reach the part. */
export function zonePaths({ zones, coverings = [], outline }: ForecastRequest) {
  const ofAreas = coverings
    .flat()
    .flatMap(({ outline: edge, holes }, n) =>
      [edge, ...holes].map((ring) => ({ name: `Covered area ${n + 1}`, points: closed(ring) })),
    );
  return [...zones.slice(1).map((zone) => ({ name: zone.name, points: closed(zone.outline!) })), ...ofAreas]
    .filter(({ points }) => touches(points, outline))
    .map((path) => ({ ...path, isDriven: false }));
}

const closed = (outline: readonly Point[]) => [...outline, outline[0]];

/** A zone path that runs wholly outside the part needs no edges. */
function touches(points: readonly Point[], outline: readonly Point[]): boolean {
  const crosses = points
    .slice(1)
    .some((q, k) =>
      outline.some((a, n) => segmentsCross(points[k], q, a, outline[(n + 1) % outline.length])),
    );
  return crosses || points.some((p) => contains(outline, p));
}

/** Zone of each triangle, by its middle; where coverings are missing the zones are counted on, as withUncovered has them. */
export function zonesOf(
  { positions, triangles }: Mesh,
  zones: readonly ZoneLaminate[],
  coverings: readonly (readonly PartShape[])[],
): Uint16Array {
  const out = new Uint16Array(triangles.length / 3);
  if (zones.length === 1 && coverings.length === 0) return out;
  for (let t = 0; t < out.length; t++) {
    const middle = [0, 1].map((k) =>
      [0, 1, 2].reduce((sum, c) => sum + positions[3 * triangles[3 * t + c] + k] / 3, 0),
    );
    const at = { x: middle[0], y: middle[1] };
    zones.forEach(({ outline }, zone) => {
      if (outline && contains(outline, at)) out[t] = zone;
    });
    coverings.forEach((areas, n) => {
      if (!areas.some((area) => isInside(area, at))) out[t] += 2 ** n * zones.length;
    });
  }
  return out;
}

/** Zone of each network node: that of any of its triangles, the last one counting. */
export function nodeZones(mesh: Mesh, zoneOfTriangle: ArrayLike<number>, standsAt: Int32Array): Int32Array {
  const onMesh = new Int32Array(mesh.nodeCount);
  mesh.triangles.forEach((i, e) => (onMesh[i] = zoneOfTriangle[Math.floor(e / 3)]));
  return standsAt.map((node) => onMesh[node]);
}
