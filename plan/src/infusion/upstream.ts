import { nearestNode, placeOf } from '@wick/core/geometry/mesh-places';
import type { Point } from '@wick/core/geometry/polygon';
import type { SeenFront } from './infusion.ts';
import { frontAt, type SolvedShape } from './problem-shapes.ts';

/** m to either side of the way within which a place lies upstream of another. */
const WAY = 0.06;
/** It has to be so much earlier on the way to count. */
const EARLIER = 0.8;

/**
 * Why a mark cannot be: the front has to pass what lies on its way first.
 * @param shape of the plan  @returns a sentence, or null where it can be
 */
export function refusalOf(
  shape: Pick<SolvedShape, 'mesh' | 'front'>,
  seen: readonly Pick<SeenFront, 'at' | 'x' | 'y'>[],
  mark: Pick<SeenFront, 'at' | 'x' | 'y'>,
): string | null {
  const isOnWay = (up: Point, down: Point) =>
    frontAt(shape, up) < EARLIER * frontAt(shape, down) &&
    wayBack(shape, down).some((p) => Math.hypot(p.x - up.x, p.y - up.y) < WAY);
  const minute = (ms: number) => `${Math.round(Math.abs(ms) / 60_000)} min`;
  for (const other of seen) {
    if (other.at > mark.at && isOnWay(other, mark))
      return `The front was seen further back only ${minute(other.at - mark.at)} later, on its way to here. Look again, or strike the earlier mark out.`;
    if (other.at < mark.at && isOnWay(mark, other))
      return `The front was seen beyond this place ${minute(mark.at - other.at)} ago, and had to pass here first. Look again, or strike that mark out.`;
  }
  return null;
}

/** The way by which the front came to a place: from node to neighbour, each earlier than the one before. */
function wayBack({ mesh, front }: Pick<SolvedShape, 'mesh' | 'front'>, to: Point): Point[] {
  const neighbours = neighboursOf(mesh);
  let node = nearestNode(mesh, to);
  const way = [placeOf(mesh, node)];
  for (;;) {
    const before = neighbours[node]!.reduce((best, i) => (front[i]! < front[best]! ? i : best), node);
    if (before === node) return way;
    node = before;
    way.push(placeOf(mesh, node));
  }
}

const known = new WeakMap<object, number[][]>();
function neighboursOf(mesh: SolvedShape['mesh']): number[][] {
  let lists = known.get(mesh);
  if (lists) return lists;
  const sets = Array.from({ length: mesh.nodeCount }, () => new Set<number>());
  for (let t = 0; t < mesh.triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      sets[mesh.triangles[t + k]!]!.add(mesh.triangles[t + ((k + 1) % 3)]!);
      sets[mesh.triangles[t + ((k + 1) % 3)]!]!.add(mesh.triangles[t + k]!);
    }
  lists = sets.map((set) => [...set]);
  known.set(mesh, lists);
  return lists;
}
