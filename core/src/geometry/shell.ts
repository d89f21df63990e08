import { ModelError } from '../model-error.ts';
import { flipForPermeability } from '../flow/edge-flips.ts';
import { uniformSheet } from '../flow/sheet.ts';
import type { Mesh } from './mesh.ts';
import type { TriangleSoup } from './surface-file.ts';

export interface ShellPoint {
  readonly x: number;
  readonly y: number;
  readonly z: number;
}

export interface ShellRequest {
  /** m */
  readonly soup: TriangleSoup;
  /** Lines as points in space; each is drawn along mesh edges from one to the next. */
  readonly lines: readonly { readonly name: string; readonly points: readonly ShellPoint[] }[];
  /** Edges are halved until about so many nodes are there. */
  readonly nodeCount: number;
}

const MOST_NODES = 60_000;
/** Corners nearer than this share of the size of the shell are one. */
const WELD = 1e-6;
/** A line point may lie off the surface by this share of its size. */
const REACH = 0.05;

/**
 * Mesh of a surface in space from loose triangles: corners welded, flat slivers dropped, long edges halved (both triangles
 * beside one at a time, so that the surface stays closed where it was), all triangles turned alike.
 * @throws ModelError SHELL_EMPTY, SHELL_EDGE (an edge of three triangles), SHELL_SIZE, LINE_OFF_PART
 * Checked by shell.test.ts.
 */
export function meshShell({ soup, lines, nodeCount }: ShellRequest): Mesh {
  const { points, triangles } = weld(soup);
  if (triangles.length === 0)
    throw new ModelError('SHELL_EMPTY', 'The surface has no area. Check the unit and the file it came from.');
  if (points.length / 3 > MOST_NODES)
    throw new ModelError(
      'SHELL_SIZE',
      `The surface alone has ${points.length / 3} corners; ${MOST_NODES} can be computed. Export it with a coarser tolerance.`,
    );
  turnAlike(triangles);
  const area = areaOf(points, triangles);
  const edgeLength = Math.sqrt((2 * area) / (Math.sqrt(3) * Math.max(50, Math.min(nodeCount, MOST_NODES))));
  halve(points, triangles, 1.35 * edgeLength);
  const mesh = {
    nodeCount: points.length / 3,
    positions: Float64Array.from(points),
    triangles: Uint32Array.from(triangles),
    edgeLength,
  };
  const paths = lines.map((line) => pathAlong(mesh, line));
  return {
    ...mesh,
    lineNodes: paths.map((path) => Int32Array.from(new Set(path))),
    lineEdges: paths.map((path) => Int32Array.from(path.slice(1).flatMap((node, i) => [path[i], node]))),
  };
}

function weld(soup: TriangleSoup) {
  let [low, high] = [Infinity, -Infinity];
  for (const v of soup) [low, high] = [Math.min(low, v), Math.max(high, v)];
  const grid = WELD * Math.max(high - low, 1e-12);
  const known = new Map<string, number>();
  const points: number[] = [];
  const triangles: number[] = [];
  for (let t = 0; t < soup.length; t += 9) {
    const corners = [0, 3, 6].map((k) => {
      const [x, y, z] = soup.subarray(t + k, t + k + 3);
      const key = `${Math.round(x / grid)} ${Math.round(y / grid)} ${Math.round(z / grid)}`;
      const index = known.get(key) ?? points.push(x, y, z) / 3 - 1;
      known.set(key, index);
      return index;
    });
    if (new Set(corners).size === 3 && triangleArea(points, corners[0], corners[1], corners[2]) > grid * grid)
      triangles.push(...corners);
  }
  return { points, triangles };
}

/** Walks over neighbours and turns each triangle as the one it was reached from. */
function turnAlike(triangles: number[]) {
  const sides = edgeMap(triangles);
  const seen = new Uint8Array(triangles.length / 3);
  for (let start = 0; start < seen.length; start++) {
    if (seen[start]) continue;
    seen[start] = 1;
    const queue = [start];
    for (const t of queue)
      for (let k = 0; k < 3; k++) {
        const [a, b] = [triangles[3 * t + k], triangles[3 * t + ((k + 1) % 3)]];
        for (const s of sides.get(edgeKey(a, b))!) {
          if (seen[s]) continue;
          seen[s] = 1;
          const own = [0, 1, 2].map((c) => triangles[3 * s + c]);
          const runsAlike = own.some((p, c) => p === a && own[(c + 1) % 3] === b);
          if (runsAlike) [triangles[3 * s], triangles[3 * s + 1]] = [own[1], own[0]];
          queue.push(s);
        }
      }
  }
}

const edgeKey = (a: number, b: number) => (a < b ? a * 2 ** 26 + b : b * 2 ** 26 + a);

function edgeMap(triangles: readonly number[]): Map<number, number[]> {
  const sides = new Map<number, number[]>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const key = edgeKey(triangles[t + k], triangles[t + ((k + 1) % 3)]);
      const list = sides.get(key);
      if (list) list.push(t / 3);
      else sides.set(key, [t / 3]);
      if (list && list.length > 2)
        throw new ModelError(
          'SHELL_EDGE',
          'Three triangles meet at one edge of the surface, so it is not a shell. Export one skin only.',
        );
    }
  return sides;
}

/** Halves the longest edges, round by round, until none is longer than asked. */
function halve(points: number[], triangles: number[], longest: number) {
  for (let round = 0; round < 40; round++) {
    const sides = edgeMap(triangles);
    const long = [...sides.keys()]
      .map((key) => ({ key, length: edgeLengthOf(points, key) }))
      .filter(({ length }) => length > longest)
      .sort((a, b) => b.length - a.length);
    if (long.length === 0) return;
    const touched = new Set<number>();
    for (const { key } of long) {
      const beside = sides.get(key)!;
      if (beside.some((t) => touched.has(t))) continue;
      if (points.length / 3 >= MOST_NODES) return;
      const [a, b] = [Math.floor(key / 2 ** 26), key % 2 ** 26];
      const middle =
        points.push(...[0, 1, 2].map((k) => (points[3 * a + k] + points[3 * b + k]) / 2)) / 3 - 1;
      for (const t of beside) {
        touched.add(t);
        const corners = [0, 1, 2].map((k) => triangles[3 * t + k]);
        const first = corners.findIndex((p, k) => edgeKey(p, corners[(k + 1) % 3]) === key);
        const [p, q, r] = [corners[first], corners[(first + 1) % 3], corners[(first + 2) % 3]];
        [triangles[3 * t], triangles[3 * t + 1], triangles[3 * t + 2]] = [p, middle, r];
        touched.add(triangles.push(middle, q, r) / 3 - 1);
      }
    }
    makeDelaunay(points, triangles);
  }
}

/** Flips edges within flat parts until no angle pair across one is too wide. */
function makeDelaunay(points: readonly number[], triangles: number[]) {
  const nodeCount = points.length / 3;
  const flipped = flipForPermeability(
    { nodeCount, positions: Float64Array.from(points), triangles: Uint32Array.from(triangles) },
    uniformSheet(triangles.length / 3, { xx: 1, yy: 1, xy: 0, storage: 1 }),
  );
  flipped.forEach((node, e) => (triangles[e] = node));
}

function edgeLengthOf(points: readonly number[], key: number): number {
  const [a, b] = [Math.floor(key / 2 ** 26), key % 2 ** 26];
  return Math.hypot(...[0, 1, 2].map((k) => points[3 * a + k] - points[3 * b + k]));
}

/** Nodes from point to point by the shortest way along edges (Dijkstra 1959). */
function pathAlong(
  mesh: Pick<Mesh, 'nodeCount' | 'positions' | 'triangles'>,
  line: ShellRequest['lines'][number],
): number[] {
  const size = Math.sqrt(areaOf(mesh.positions, mesh.triangles));
  const stops = line.points.map((p) => {
    const { node, away } = nearest(mesh, p);
    if (away > REACH * size)
      throw new ModelError(
        'LINE_OFF_PART',
        `${line.name} has a point ${away.toFixed(3)} m off the surface. Place it on the surface, in metres after scaling.`,
        { line: line.name },
      );
    return node;
  });
  const neighbours = neighboursOf(mesh);
  return stops
    .slice(1)
    .reduce((path, stop, i) => [...path, ...shortest(mesh, neighbours, stops[i], stop).slice(1)], [stops[0]]);
}

function nearest({ nodeCount, positions }: Pick<Mesh, 'nodeCount' | 'positions'>, p: ShellPoint) {
  let [node, away] = [0, Infinity];
  for (let i = 0; i < nodeCount; i++) {
    const d = Math.hypot(positions[3 * i] - p.x, positions[3 * i + 1] - p.y, positions[3 * i + 2] - p.z);
    if (d < away) [node, away] = [i, d];
  }
  return { node, away };
}

function neighboursOf({ nodeCount, triangles }: Pick<Mesh, 'nodeCount' | 'triangles'>): Set<number>[] {
  const out = Array.from({ length: nodeCount }, () => new Set<number>());
  triangles.forEach((i, e) => {
    const j = triangles[e - (e % 3) + ((e + 1) % 3)];
    out[i].add(j);
    out[j].add(i);
  });
  return out;
}

function shortest(
  { positions }: Pick<Mesh, 'positions'>,
  neighbours: readonly Set<number>[],
  from: number,
  to: number,
): number[] {
  const distance = new Float64Array(neighbours.length).fill(Infinity);
  const before = new Int32Array(neighbours.length).fill(-1);
  const open = new Set([from]);
  distance[from] = 0;
  while (open.size > 0) {
    let near = -1;
    for (const i of open) if (near < 0 || distance[i] < distance[near]) near = i;
    if (near === to) break;
    open.delete(near);
    for (const j of neighbours[near]) {
      const way =
        distance[near] + Math.hypot(...[0, 1, 2].map((k) => positions[3 * near + k] - positions[3 * j + k]));
      if (way >= distance[j]) continue;
      distance[j] = way;
      before[j] = near;
      open.add(j);
    }
  }
  const path = [to];
  while (path[0] !== from && before[path[0]] >= 0) path.unshift(before[path[0]]);
  return path[0] === from ? path : [from, to];
}

function triangleArea(points: ArrayLike<number>, a: number, b: number, c: number): number {
  const u = [0, 1, 2].map((k) => points[3 * b + k] - points[3 * a + k]);
  const v = [0, 1, 2].map((k) => points[3 * c + k] - points[3 * a + k]);
  return Math.hypot(u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]) / 2;
}

/** m2 */
export function areaOf(points: ArrayLike<number>, triangles: ArrayLike<number>): number {
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3)
    sum += triangleArea(points, triangles[t], triangles[t + 1], triangles[t + 2]);
  return sum;
}
