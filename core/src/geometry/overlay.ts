import Coordinate from 'jsts/org/locationtech/jts/geom/Coordinate.js';
import type Geometry from 'jsts/org/locationtech/jts/geom/Geometry.js';
import GeometryFactory from 'jsts/org/locationtech/jts/geom/GeometryFactory.js';
import type LineString from 'jsts/org/locationtech/jts/geom/LineString.js';
import type Polygon from 'jsts/org/locationtech/jts/geom/Polygon.js';
import BufferOp from 'jsts/org/locationtech/jts/operation/buffer/BufferOp.js';
import BufferParameters from 'jsts/org/locationtech/jts/operation/buffer/BufferParameters.js';
import OverlayOp from 'jsts/org/locationtech/jts/operation/overlay/OverlayOp.js';
import { ModelError } from '../model-error.ts';
import { polygonOf, type Corner } from './arcs.ts';
import { signedArea, type Point } from './polygon.ts';

/** A patch of the plan: one outline with its holes. A region is any number of them. */
export interface Patch {
  readonly outline: readonly Corner[];
  readonly holes: readonly (readonly Corner[])[];
}
export type Region = readonly Patch[];

const factory = new GeometryFactory();
/** Corners sharper than this ratio of mitre to offset are cut off square. */
const MITRE_LIMIT = 5;

/** m2, with arcs as chords. */
export const regionArea = (region: Region) =>
  region.reduce(
    (sum, { outline, holes }) =>
      sum +
      Math.abs(signedArea(polygonOf(outline))) -
      holes.reduce((inner, hole) => inner + Math.abs(signedArea(polygonOf(hole))), 0),
    0,
  );

/**
 * Boolean operations on plan regions; arcs are taken as chords. Outlines come back counter-clockwise, holes clockwise.
 * @throws ModelError OVERLAY_FAILED where an outline crosses itself
 * Computed by jsts. Checked against polyclip-ts by overlay.test.ts.
 */
export const unite = (a: Region, b: Region) => combine(a, b, OverlayOp.union);
export const subtract = (a: Region, b: Region) => combine(a, b, OverlayOp.difference);
export const intersect = (a: Region, b: Region) => combine(a, b, OverlayOp.intersection);

function combine(a: Region, b: Region, operation: (a: Geometry, b: Geometry) => Geometry): Region {
  return guarded(() => patchesOf(operation(geometryOf(a), geometryOf(b))));
}

/**
 * Everything within a distance, m, of an open line or a point.
 * Computed by jsts. Checked against its area, length x width plus the two round ends, by overlay.test.ts.
 */
export function strip(line: readonly Point[], distance: number): Region {
  const parameters = new BufferParameters();
  parameters.setQuadrantSegments(8);
  const [first, ...rest] = line.map(({ x, y }) => new Coordinate(x, y));
  const path = rest.length > 0 ? factory.createLineString([first, ...rest]) : factory.createPoint(first);
  return guarded(() => patchesOf(BufferOp.bufferOp(path, distance, parameters)));
}

/**
 * Region grown (distance > 0) or shrunk (< 0) by an even margin, m. Growing keeps corners sharp, as a flange is drawn.
 * @param corners mitre (the default) or round: every point within the distance
 * Computed by jsts. Checked against the Steiner formula A + P d + pi d^2 and a direct distance test by overlay.test.ts.
 */
export function offset(region: Region, distance: number, corners: 'mitre' | 'round' = 'mitre'): Region {
  if (distance === 0) return region;
  const parameters = new BufferParameters();
  parameters.setQuadrantSegments(16);
  if (corners === 'mitre') {
    parameters.setJoinStyle(BufferParameters.JOIN_MITRE);
    parameters.setMitreLimit(MITRE_LIMIT);
  }
  return guarded(() => patchesOf(BufferOp.bufferOp(geometryOf(region), distance, parameters)));
}

function guarded(operation: () => Region): Region {
  try {
    return operation();
  } catch (error) {
    throw new ModelError(
      'OVERLAY_FAILED',
      'The outlines cannot be combined: one of them crosses or touches itself. Move the corner where it does.',
      { cause: (error as Error).message },
    );
  }
}

function geometryOf(region: Region): Geometry {
  const polygons = region.map(({ outline, holes }) =>
    factory.createPolygon(linearRing(outline), holes.map(linearRing)),
  );
  // Patches of a region may touch or overlap; a zero offset joins them into one valid geometry.
  return polygons.length === 1 ? polygons[0] : BufferOp.bufferOp(factory.createMultiPolygon(polygons), 0);
}

function linearRing(ring: readonly Corner[]) {
  const points = polygonOf(ring);
  return factory.createLinearRing([...points, points[0]].map(({ x, y }) => new Coordinate(x, y)));
}

/** What is thinner than a tenth of a millimetre squared is rounding, not a piece. */
const LEAST_AREA = 1e-8;

function patchesOf(geometry: Geometry): Region {
  const patches: Patch[] = [];
  for (let n = 0; n < geometry.getNumGeometries(); n++) {
    const polygon = geometry.getGeometryN(n) as unknown as Polygon;
    if (polygon.getGeometryType() !== 'Polygon' || polygon.isEmpty() || polygon.getArea() < LEAST_AREA)
      continue;
    patches.push({
      outline: pointsOf(polygon.getExteriorRing(), 1),
      holes: Array.from({ length: polygon.getNumInteriorRing() }, (_, i) =>
        pointsOf(polygon.getInteriorRingN(i), -1),
      ),
    });
  }
  return patches;
}

function pointsOf(ring: LineString, direction: 1 | -1): Point[] {
  const points = ring
    .getCoordinates()
    .slice(0, -1)
    .map(({ x, y }: Point) => ({ x, y }));
  return Math.sign(signedArea(points)) === direction ? points : points.reverse();
}
