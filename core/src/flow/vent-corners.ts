import type { Mesh } from '../geometry/mesh.ts';
import { allNodes, nodesWithin } from '../geometry/mesh-places.ts';
import { distance, type Point } from '../geometry/polygon.ts';
import type { LayoutLine } from './layout.ts';

/** A place where vents make a corner. */
export interface VentCorner {
  readonly place: Point;
  /** Index of the vents that make it. */
  readonly lines: readonly number[];
  /** Where the vents leave it, at the reach from it: what is counted ends there. */
  readonly rim: readonly Point[];
}

/** How far from such a corner resin counts as having come to it, m; on a small part this share of its size. */
const CORNER_REACH = 0.02;
const SMALL_PART = 0.05;
/** Ends of vents this near to one another meet, m. */
const MEETING = 1e-3;
/** From this angle on vents run on straight, rad. */
const STRAIGHT = (150 * Math.PI) / 180;

/**
 * Where a vent turns, or two meet, at less than about a straight line.
 * @param area of the part, m2
 */
export function cornersBetweenVents(lines: readonly LayoutLine[], area: number): VentCorner[] {
  const reach = Math.min(CORNER_REACH, SMALL_PART * Math.sqrt(area));
  const found: { place: Point; lines: number[]; headings: number[] }[] = [];
  lines.forEach(({ kind, points }, line) => {
    if (kind !== 'vent') return;
    points.forEach((place, n) => {
      const ways = [points[n - 1], points[n + 1]].filter((p) => p && distance(p, place) > MEETING);
      const known = found.find((other) => distance(other.place, place) <= MEETING);
      const corner = known ?? { place, lines: [], headings: [] };
      if (!known) found.push(corner);
      corner.lines.push(line);
      corner.headings.push(...ways.map((p) => Math.atan2(p.y - place.y, p.x - place.x)));
    });
  });
  return found
    .filter(({ headings }) => headings.some((a) => headings.some((b) => isBent(a, b))))
    .map(({ place, lines: own, headings }) => ({
      place,
      lines: [...new Set(own)],
      rim: headings.map((way) => ({
        x: place.x + reach * Math.cos(way),
        y: place.y + reach * Math.sin(way),
      })),
    }));
}

function isBent(a: number, b: number): boolean {
  const angle = Math.abs(Math.atan2(Math.sin(a - b), Math.cos(a - b)));
  return angle > 1e-3 && angle < STRAIGHT;
}

/**
 * Nodes in corners between vents. Vacuum on both sides drives nothing into them: the front comes nearer without end, so what
 * lies within a fixed reach is not waited for.
 */
export function ventCornerNodes(
  mesh: Mesh,
  lines: readonly LayoutLine[],
  corners: readonly VentCorner[],
): Int32Array {
  const isNear = new Uint8Array(mesh.nodeCount);
  for (const { place, rim } of corners)
    for (const i of nodesWithin(mesh, [place], distance(place, rim[0]))) isNear[i] = 1;
  for (const i of shutIn(mesh, lines)) isNear[i] = 1;
  return allNodes(mesh).filter((i) => isNear[i]);
}

/** Nodes of vents with none but vents round them: a coarse mesh has nothing else in such a corner. */
function shutIn({ triangles, lineNodes, nodeCount }: Mesh, lines: readonly LayoutLine[]): number[] {
  const isVent = new Uint8Array(nodeCount);
  lines.forEach(({ kind }, n) => {
    if (kind === 'vent') for (const i of lineNodes[n]) isVent[i] = 1;
  });
  const isOpen = new Uint8Array(nodeCount);
  triangles.forEach((i, e) => {
    if (isVent[i]) return;
    const first = e - (e % 3);
    for (let c = 0; c < 3; c++) if (triangles[first + c] !== i) isOpen[triangles[first + c]] = 1;
  });
  return Array.from(isVent.keys()).filter((i) => isVent[i] && !isOpen[i]);
}
