import { edgeMiddle, flattenEdge, type Corner } from './arcs.ts';
import { distance, nearestOnSegment, type Point } from './polygon.ts';

export type SnapKind = 'corner' | 'middle' | 'spacing' | 'edge' | 'level' | 'grid' | 'free';

export interface Snapped {
  readonly point: Point;
  readonly kind: SnapKind;
  /** Lines to show why: from the snapped point to what it lines up with. */
  readonly guides: readonly (readonly [Point, Point])[];
}

export interface SnapTargets {
  /** Rings and open lines to snap to; what is being moved is left out. */
  readonly rings: readonly (readonly Corner[])[];
  readonly lines: readonly (readonly Point[])[];
  /** Farthest a point is pulled, m. */
  readonly reach: number;
  /** Spacing of the grid, m; null for none. */
  readonly grid: number | null;
}

/**
 * Pulls a point onto what it nearly meets: a corner, the middle of an edge, the place that continues an even spacing of
 * two lines, an edge, the level of a corner, then the grid. Pulls along one axis only leave the other to the grid.
 * Checked by plan-geometry.test.ts.
 */
export function snap(at: Point, targets: SnapTargets): Snapped {
  const { rings, lines, reach, grid } = targets;
  const corners = [...rings.flat(), ...lines.flat()];
  const corner = nearest(at, corners, reach);
  if (corner) return { point: bare(corner), kind: 'corner', guides: [] };
  const edges = [
    ...rings.flatMap((ring) => ring.map((a, i) => [a, ring[(i + 1) % ring.length]] as const)),
    ...lines.flatMap((line) => line.slice(1).map((b, i) => [line[i], b] as const)),
  ];
  const middle = nearest(
    at,
    edges.map(([a, b]) => edgeMiddle(a, b)),
    reach,
  );
  if (middle) return { point: middle, kind: 'middle', guides: [] };
  const onEdge = nearest(
    at,
    edges.map(([a, b]) => nearestOnEdge(at, a, b)),
    reach,
  );
  if (onEdge) return { point: onEdge, kind: 'edge', guides: [] };
  return level(at, corners, evenPlaces(lines), reach, grid);
}

const bare = ({ x, y }: Point): Point => ({ x, y });

function nearest(at: Point, candidates: readonly Point[], reach: number): Point | null {
  let best: Point | null = null;
  let least = reach;
  for (const candidate of candidates) {
    const away = distance(at, candidate);
    if (away <= least) {
      least = away;
      best = candidate;
    }
  }
  return best;
}

function nearestOnEdge(at: Point, a: Corner, b: Point): Point {
  const points = [...flattenEdge(a, b), b];
  return points
    .slice(1)
    .map((end, i) => nearestOnSegment(at, points[i], end))
    .reduce((best, p) => (distance(at, p) < distance(at, best) ? p : best));
}

/** Along each axis: where a further line would stand as far from its neighbour as that one from the next. */
function evenPlaces(lines: readonly (readonly Point[])[]): { x: number[]; y: number[] } {
  const places = (axis: 'x' | 'y') => {
    const at = lines
      .filter((line) => line.length > 0)
      .map((line) => line.reduce((sum, p) => sum + p[axis], 0) / line.length)
      .sort((p, q) => p - q);
    return at.slice(1).flatMap((far, i) => {
      const near = at[i];
      return far - near > 1e-6 ? [2 * near - far, (near + far) / 2, 2 * far - near] : [];
    });
  };
  return { x: places('x'), y: places('y') };
}

/** Each axis on its own: even spacing, the level of a corner, the grid, or free. */
function level(
  at: Point,
  corners: readonly Point[],
  even: { x: number[]; y: number[] },
  reach: number,
  grid: number | null,
): Snapped {
  const guides: (readonly [Point, Point])[] = [];
  const kinds: SnapKind[] = [];
  const pull = (axis: 'x' | 'y'): number => {
    const value = at[axis];
    const closest = (list: readonly number[]) =>
      list.reduce((best, v) => (Math.abs(v - value) < Math.abs(best - value) ? v : best), Infinity);
    const spaced = closest(even[axis]);
    if (Math.abs(spaced - value) <= reach) {
      kinds.push('spacing');
      return spaced;
    }
    const lined = closest(corners.map((c) => c[axis]));
    if (Math.abs(lined - value) <= reach) {
      kinds.push('level');
      return lined;
    }
    if (grid === null) return value;
    kinds.push('grid');
    return Math.round(value / grid) * grid;
  };
  const point = { x: pull('x'), y: pull('y') };
  for (const axis of ['x', 'y'] as const) {
    const partner = corners.find((c) => Math.abs(c[axis] - point[axis]) < 1e-9);
    if (partner) guides.push([bare(partner), point]);
  }
  const kind = (['spacing', 'level', 'grid'] as const).find((k) => kinds.includes(k)) ?? 'free';
  return { point, kind, guides };
}
