import { ModelError } from '../model-error.ts';
import { distance, nearestOnSegment, type Point } from './polygon.ts';

export function snapToRings(p: Point, rings: readonly (readonly Point[])[], reach: number): Point {
  let best = p;
  let bestDistance = reach;
  for (const ring of rings)
    ring.forEach((a, i) => {
      const corner = distance(p, a);
      const near = nearestOnSegment(p, a, ring[(i + 1) % ring.length]);
      const away = distance(p, near);
      if (corner <= bestDistance) [best, bestDistance] = [a, corner * 0.999];
      else if (away < bestDistance) [best, bestDistance] = [near, away];
    });
  return best;
}

export function isOnRing(p: Point, rings: readonly (readonly Point[])[], reach: number): boolean {
  return rings.some((ring) =>
    ring.some((a, i) => distance(p, nearestOnSegment(p, a, ring[(i + 1) % ring.length])) < reach),
  );
}

export interface Edge {
  a: number;
  b: number;
  path: number;
}

export function isOnPart(
  edge: Edge,
  points: readonly Point[],
  rings: readonly (readonly Point[])[],
  inside: (p: Point) => boolean,
  h: number,
) {
  const middle = {
    x: (points[edge.a].x + points[edge.b].x) / 2,
    y: (points[edge.a].y + points[edge.b].y) / 2,
  };
  return inside(middle) || isOnRing(middle, rings, 1e-3 * h);
}

/** Divides edges to length h or less, and further where another node comes nearer than their own half-length. */
export function divide(edges: readonly Edge[], points: Point[], h: number): Edge[] {
  const cut = (edge: Edge, parts: number): Edge[] => {
    const [p, q] = [points[edge.a], points[edge.b]];
    const chain = [edge.a];
    for (let i = 1; i < parts; i++) {
      const at = { x: p.x + ((q.x - p.x) * i) / parts, y: p.y + ((q.y - p.y) * i) / parts };
      chain.push(points.push(at) - 1);
    }
    chain.push(edge.b);
    return chain.slice(1).map((b, i) => ({ a: chain[i], b, path: edge.path }));
  };
  // Edges shared by two paths (a line along the outline) must be cut alike: cut each pair once, then copy.
  const shared = new Map<string, Edge[]>();
  const cutOnce = (edge: Edge, parts: number): Edge[] => {
    const key = edge.a < edge.b ? `${edge.a} ${edge.b}` : `${edge.b} ${edge.a}`;
    const known = shared.get(key);
    if (known) return known.map((piece) => ({ ...piece, path: edge.path }));
    const pieces = cut(edge, parts);
    shared.set(key, pieces);
    return pieces;
  };
  let fine = edges.flatMap((edge) =>
    cutOnce(edge, Math.max(1, Math.ceil(distance(points[edge.a], points[edge.b]) / h - 1e-9))),
  );
  for (let round = 0; round < 3; round++) {
    const used = [...new Set(fine.flatMap(({ a, b }) => [a, b]))];
    shared.clear();
    const next = fine.flatMap((edge) => cutOnce(edge, isEncroached(edge, points, used, h) ? 2 : 1));
    if (next.length === fine.length) break;
    fine = next;
  }
  return fine;
}

function isEncroached(edge: Edge, points: readonly Point[], used: readonly number[], h: number): boolean {
  const [p, q] = [points[edge.a], points[edge.b]];
  const half = distance(p, q) / 2;
  if (half < h / 6) return false;
  const middle = { x: (p.x + q.x) / 2, y: (p.y + q.y) / 2 };
  return used.some((index) => {
    const r = points[index];
    if (
      Math.abs(r.x - middle.x) > half ||
      Math.abs(r.y - middle.y) > half ||
      index === edge.a ||
      index === edge.b
    )
      return false;
    return distance(r, middle) < 0.95 * half;
  });
}

export function nodesOfLine(
  line: { readonly name: string },
  snapped: readonly Point[],
  path: number,
  edges: readonly Edge[],
  points: Point[],
  rings: readonly (readonly Point[])[],
  inside: (p: Point) => boolean,
  h: number,
): number[] {
  const nodes = [...new Set(edges.filter((edge) => edge.path === path).flatMap(({ a, b }) => [a, b]))];
  if (nodes.length > 0) return nodes;
  // A line that only its end brings onto the part touches it in a point.
  const single = snapped.find((p) => inside(p) || isOnRing(p, rings, 1e-3 * h));
  if (single) {
    const known = points.findIndex((p) => distance(p, single) <= 1e-3 * h);
    return [known >= 0 ? known : points.push(single) - 1];
  }
  throw new ModelError(
    'LINE_OFF_PART',
    `${line.name} touches no laminate. Drag it onto the part or delete it.`,
    { line: line.name },
  );
}
