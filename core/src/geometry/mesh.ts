import { ModelError } from '../model-error.ts';
import { addRings, gradeTowards, isAtCorner, lineEnds } from './line-ends.ts';
import { divide, isOnPart, isOnRing, nodesOfLine, snapToRings, type Edge } from './mesh-paths.ts';
import { planarGraph } from './planar-graph.ts';
import {
  boundsOf,
  contains,
  distance,
  nearestOnSegment,
  requireSimplePolygon,
  segmentsCross,
  signedArea,
  type Point,
} from './polygon.ts';
import { constrainedDelaunay } from './triangulation.ts';

export interface MeshLine {
  readonly name: string;
  readonly points: readonly Point[];
  /** Pressure is given along it, so the mesh is graded towards its ends. True when left out. */
  readonly isDriven?: boolean;
  /** A point that the front closes round, as round a vent: the mesh is graded towards it too. */
  readonly isRinged?: boolean;
}

export interface MeshRequest {
  readonly outline: readonly Point[];
  readonly holes?: readonly (readonly Point[])[];
  /** Lines whose path must follow mesh edges; a single point becomes a node. */
  readonly lines?: readonly MeshLine[];
  /** Wanted number of nodes, 50 to 60 000; met within a few per cent where the geometry allows. */
  readonly nodeCount: number;
  /** For a hand that is dragging: made once, its node count within a fifth. */
  readonly isGlance?: boolean;
}

export interface Mesh {
  readonly nodeCount: number;
  /** Node positions, stride 3: x, y, z; m. z is 0 for a flat plan. */
  readonly positions: Float64Array;
  /** Node indices, stride 3, counter-clockwise. */
  readonly triangles: Uint32Array;
  /** Nodes on each requested line, in the order of the request. Never empty. */
  readonly lineNodes: readonly Int32Array[];
  /** Mesh edges along each requested line as pairs of nodes; empty for a point. */
  readonly lineEdges: readonly Int32Array[];
  /** Typical edge length, m. */
  readonly edgeLength: number;
}

const MIN_NODES = 50;
const MAX_NODES = 60_000;
/** Line points closer to the outline than this share of the edge length are moved onto it: no slivers in between. */
const SNAP = 0.3;
const SMOOTHING_ROUNDS = 3;
/** No lattice point comes nearer to a line's end than this share of the edge length: rings of their own stand there. */
const CLEAR = 0.85;

/**
 * Triangle mesh of a plan outline with holes and embedded lines: boundary and lines divided evenly, a hexagonal
 * lattice inside, constrained Delaunay, a few rounds of smoothing.
 * @throws ModelError on an outline or hole that is not a simple polygon, a hole outside the outline (HOLE_OUTSIDE),
 *         a line that touches no laminate (LINE_OFF_PART), or a node count out of range (NODE_COUNT)
 * Checked by mesh.test.ts (area, Euler characteristic, angles, lines followed).
 */
export function meshPart(request: MeshRequest): Mesh {
  const { outline, holes = [], lines = [], nodeCount, isGlance } = request;
  if (!(nodeCount >= MIN_NODES && nodeCount <= MAX_NODES))
    throw new ModelError(
      'NODE_COUNT',
      `A mesh of ${nodeCount} nodes was asked for; ${MIN_NODES} to ${MAX_NODES} can be computed. 5000 is plenty for a forecast.`,
      { nodeCount },
    );
  requireSimplePolygon(outline, 'The outline');
  holes.forEach((hole, i) => requireHoleInside(hole, outline, holes, i));
  const area =
    Math.abs(signedArea(outline)) - holes.reduce((sum, hole) => sum + Math.abs(signedArea(hole)), 0);
  if (isGlance) return meshWithEdge(outline, holes, lines, likelyEdge(area, [outline, ...holes], nodeCount));
  let edgeLength = Math.sqrt((2 * area) / (Math.sqrt(3) * nodeCount));
  let mesh = meshWithEdge(outline, holes, lines, edgeLength);
  for (let round = 0; round < 2 && Math.abs(mesh.nodeCount / nodeCount - 1) > 0.04; round++) {
    edgeLength *= Math.sqrt(mesh.nodeCount / nodeCount);
    mesh = meshWithEdge(outline, holes, lines, edgeLength);
  }
  return mesh;
}

/** Edge of even triangles with so many nodes: by Euler, an edge of the rim counts half a node more than one inside. */
function likelyEdge(area: number, rings: readonly (readonly Point[])[], nodeCount: number): number {
  const rim = rings.flatMap((ring) => ring.map((p, i) => distance(p, ring[(i + 1) % ring.length])));
  const half = rim.reduce((sum, length) => sum + length, 0) / 4;
  return (half + Math.sqrt(half ** 2 + (2 * area * nodeCount) / Math.sqrt(3))) / nodeCount;
}

function requireHoleInside(
  hole: readonly Point[],
  outline: readonly Point[],
  holes: readonly (readonly Point[])[],
  index: number,
) {
  const name = `Hole ${index + 1}`;
  requireSimplePolygon(hole, name);
  const others = [outline, ...holes.slice(0, index)];
  const crossed = others.findIndex((other) => ringsCross(hole, other));
  if (crossed >= 0 || !contains(outline, hole[0]))
    throw new ModelError(
      'HOLE_OUTSIDE',
      `${name} ${crossed > 0 ? `overlaps hole ${crossed}` : 'is not wholly inside the outline'}. Drag it back inside or delete it.`,
      { hole: index },
    );
  const nested = holes
    .slice(0, index)
    .findIndex((other) => contains(other, hole[0]) || contains(hole, other[0]));
  if (nested >= 0)
    throw new ModelError(
      'HOLE_OUTSIDE',
      `${name} and hole ${nested + 1} lie inside each other. Delete one.`,
      { hole: index },
    );
}

function ringsCross(a: readonly Point[], b: readonly Point[]): boolean {
  return a.some((p, i) =>
    b.some((q, j) => segmentsCross(p, a[(i + 1) % a.length], q, b[(j + 1) % b.length])),
  );
}

function meshWithEdge(
  outline: readonly Point[],
  holes: readonly (readonly Point[])[],
  lines: readonly MeshLine[],
  h: number,
): Mesh {
  const rings = [outline, ...holes];
  const inside = (p: Point) => contains(outline, p) && !holes.some((hole) => contains(hole, p));
  const snapped = lines.map((line) => line.points.map((p) => snapToRings(p, rings, SNAP * h)));
  const graph = planarGraph(
    [
      ...rings.map((points) => ({ points, closed: true })),
      ...snapped.map((points) => ({ points, closed: false })),
    ],
    1e-3 * h,
  );
  const points = [...graph.points];
  const edges = graph.segments.filter(
    (edge) => edge.path < rings.length || isOnPart(edge, points, rings, inside, h),
  );
  const driven = snapped.filter((_, index) => lines[index].isDriven ?? true);
  const ringed = snapped.flatMap(([p], index) => (lines[index].isRinged ? [p] : []));
  const ends = [...lineEnds(driven), ...ringed].filter(
    (p) => !isAtCorner(p, rings) && (inside(p) || isOnRing(p, rings, 1e-3 * h)),
  );
  const fine = gradeTowards(ends, divide(edges, points, h), points);
  const lineNodes = lines.map((line, index) =>
    nodesOfLine(line, snapped[index], rings.length + index, fine, points, rings, inside, h),
  );
  const lineEdges = lines.map((_, index) =>
    fine.filter((edge) => edge.path === rings.length + index).flatMap(({ a, b }) => [a, b]),
  );
  const kept = compact(points, fine, [...lineNodes, ...lineEdges]);
  addRings(ends, kept.points, kept.edges, inside, h);
  const fixedCount = kept.points.length;
  fillInterior(kept.points, kept.edges, ends, inside, h);
  // Free points lie inside, behind edges that the triangles keep to: those outside need not be told apart to smooth.
  for (let round = 0; round < SMOOTHING_ROUNDS; round++)
    smooth(kept.points, constrainedDelaunay(kept.points, kept.edges), fixedCount);
  return packMesh(kept.points, insideTriangles(kept.points, kept.edges, inside), kept.lists, h);
}

/** Drops points that no edge or line uses (line ends outside the part). */
function compact(points: readonly Point[], edges: readonly Edge[], lists: readonly number[][]) {
  const index = new Map<number, number>();
  const kept: Point[] = [];
  const keep = (old: number) => {
    const known = index.get(old);
    if (known !== undefined) return known;
    index.set(old, kept.length);
    return kept.push(points[old]) - 1;
  };
  const pairs = new Map<string, [number, number]>();
  for (const { a, b } of edges) {
    const pair: [number, number] = [keep(a), keep(b)];
    pairs.set([...pair].sort().join(' '), pair);
  }
  return {
    points: kept,
    edges: [...pairs.values()],
    lists: lists.map((nodes) => Int32Array.from(nodes, keep)),
  };
}

/** Adds hexagonal lattice points that keep their distance from every edge. */
function fillInterior(
  points: Point[],
  edges: readonly [number, number][],
  ends: readonly Point[],
  inside: (p: Point) => boolean,
  h: number,
) {
  const box = boundsOf(points);
  const rowHeight = (h * Math.sqrt(3)) / 2;
  const columns = Math.ceil((box.maxX - box.minX) / h) + 2;
  const rows = Math.ceil((box.maxY - box.minY) / rowHeight) + 1;
  const blocked = new Uint8Array(columns * rows);
  const at = (row: number, column: number) => ({
    x: box.minX + (column + (row % 2 ? 0 : 0.5) - 0.5) * h,
    y: box.minY + (row + 0.5) * rowHeight,
  });
  for (const [i, j] of edges) {
    const [a, b] = [points[i], points[j]];
    const clearance = Math.max(0.62 * Math.min(h, distance(a, b)), 0.45 * h);
    const row0 = Math.max(0, Math.floor((Math.min(a.y, b.y) - clearance - box.minY) / rowHeight) - 1);
    const row1 = Math.min(rows - 1, Math.ceil((Math.max(a.y, b.y) + clearance - box.minY) / rowHeight));
    const column0 = Math.max(0, Math.floor((Math.min(a.x, b.x) - clearance - box.minX) / h) - 1);
    const column1 = Math.min(columns - 1, Math.ceil((Math.max(a.x, b.x) + clearance - box.minX) / h) + 1);
    for (let row = row0; row <= row1; row++)
      for (let column = column0; column <= column1; column++) {
        const p = at(row, column);
        if (squared(p, nearestOnSegment(p, a, b)) < clearance ** 2) blocked[row * columns + column] = 1;
      }
  }
  for (let row = 0; row < rows; row++)
    for (let column = 0; column < columns; column++) {
      if (blocked[row * columns + column]) continue;
      const p = at(row, column);
      if (inside(p) && ends.every((end) => squared(p, end) > (CLEAR * h) ** 2)) points.push(p);
    }
}

function insideTriangles(
  points: readonly Point[],
  edges: readonly [number, number][],
  inside: (p: Point) => boolean,
): Uint32Array {
  const all = constrainedDelaunay(points, edges);
  const kept: number[] = [];
  for (let t = 0; t < all.length; t += 3) {
    const [a, b, c] = [points[all[t]], points[all[t + 1]], points[all[t + 2]]];
    const area = (b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x);
    const longest = Math.max(squared(a, b), squared(b, c), squared(c, a));
    if (area > 1e-7 * longest && inside({ x: (a.x + b.x + c.x) / 3, y: (a.y + b.y + c.y) / 3 }))
      kept.push(all[t], all[t + 1], all[t + 2]);
  }
  return Uint32Array.from(kept);
}

/** Distance squared: enough to compare by, and far cheaper. */
const squared = (a: Point, b: Point) => (b.x - a.x) ** 2 + (b.y - a.y) ** 2;

/** Moves free points towards the area-weighted mean of their triangles' centroids. */
function smooth(points: Point[], triangles: Uint32Array, fixedCount: number) {
  const sum = new Float64Array(points.length * 3);
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [points[triangles[t]], points[triangles[t + 1]], points[triangles[t + 2]]];
    const area = ((b.x - a.x) * (c.y - a.y) - (b.y - a.y) * (c.x - a.x)) / 2;
    for (let k = 0; k < 3; k++) {
      const node = triangles[t + k];
      sum[3 * node] += (area * (a.x + b.x + c.x)) / 3;
      sum[3 * node + 1] += (area * (a.y + b.y + c.y)) / 3;
      sum[3 * node + 2] += area;
    }
  }
  for (let i = fixedCount; i < points.length; i++)
    if (sum[3 * i + 2] > 0)
      points[i] = { x: sum[3 * i] / sum[3 * i + 2], y: sum[3 * i + 1] / sum[3 * i + 2] };
}

function packMesh(
  points: readonly Point[],
  triangles: Uint32Array,
  lists: readonly Int32Array[],
  edgeLength: number,
): Mesh {
  const order = new Int32Array(points.length).fill(-1);
  let nodeCount = 0;
  for (const node of triangles) if (order[node] < 0) order[node] = nodeCount++;
  const positions = new Float64Array(nodeCount * 3);
  points.forEach((p, i) => {
    if (order[i] < 0) return;
    positions[3 * order[i]] = p.x;
    positions[3 * order[i] + 1] = p.y;
  });
  const ordered = lists.map((nodes) => nodes.map((node) => order[node]).filter((node) => node >= 0));
  return {
    nodeCount,
    positions,
    triangles: triangles.map((node) => order[node]),
    lineNodes: ordered.slice(0, lists.length / 2),
    lineEdges: ordered.slice(lists.length / 2),
    edgeLength,
  };
}
