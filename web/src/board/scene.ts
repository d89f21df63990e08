import { contains, distance, nearestOnSegment, type Point } from '@wick/core/geometry/polygon';

/** What a figure is to the hand. */
export type Role =
  'line' | 'lineEnd' | 'mark' | 'fitting' | 'probe' | 'corner' | 'edgeMiddle' | 'featurePoint' | 'ring';

/** Something on the plan that can be taken hold of: data, the same for a flat board and one in space. */
export interface Figure {
  readonly role: Role;
  /** Of what it belongs to. */
  readonly id: string;
  /** Which point or edge of that, where it is one of several. */
  readonly index?: number;
  /** A point, or a polyline, m. */
  readonly points: readonly Point[];
  /** The polyline closes; an area is taken hold of anywhere within it. */
  readonly shape?: 'closed' | 'area';
  /** How near to it counts, pixels. */
  readonly reach: number;
}

/** Figures from the lowest to the topmost. */
export type Scene = readonly Figure[];

/**
 * What lies under a place: the topmost role within reach, and of several of that role the nearest.
 * @param pixel m on the plan
 */
export function figureAt(scene: Scene, at: Point, pixel: number): Figure | null {
  let best: Figure | null = null;
  let least = Infinity;
  for (let i = scene.length - 1; i >= 0; i--) {
    const figure = scene[i]!;
    if (best && figure.role !== best.role) continue;
    const away = distanceTo(figure, at);
    if (away <= figure.reach * pixel && away < least) [best, least] = [figure, away];
  }
  return best;
}

function distanceTo({ points, shape }: Figure, at: Point): number {
  if (shape === 'area' && contains(points, at)) return 0;
  const path = shape && points.length > 1 ? [...points, points[0]!] : points;
  return path.reduce(
    (least, p, i) => Math.min(least, distance(at, i === 0 ? p : nearestOnSegment(at, path[i - 1]!, p))),
    Infinity,
  );
}
