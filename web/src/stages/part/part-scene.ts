import type { JobFeature } from '@wick/contract/job/job';
import { edgeLength, edgeMiddle, type Corner } from '@wick/core/geometry/arcs';
import type { Figure, Scene } from '../../board/scene.ts';

/** Handles of the ring in hand, and of rises where they are shown. Short edges have no handle in their middle. */
export function partScene(
  ring: readonly Corner[],
  features: readonly JobFeature[],
  leastMiddle: number,
): Scene {
  const edges = ring.map((a, index) => ({ a, b: ring[(index + 1) % ring.length]!, index }));
  return [
    ...edges
      .filter(({ a, b }) => edgeLength(a, b) > leastMiddle)
      .map(({ a, b, index }): Figure => handle('edgeMiddle', 'ring', index, edgeMiddle(a, b))),
    ...ring.map((p, index) => handle('corner', 'ring', index, p)),
    ...features.flatMap(({ id, points }) => points.map((p, index) => handle('featurePoint', id, index, p))),
  ];
}

const handle = (role: Figure['role'], id: string, index: number, { x, y }: Corner): Figure => ({
  role,
  id,
  index,
  points: [{ x, y }],
  reach: 8,
});
