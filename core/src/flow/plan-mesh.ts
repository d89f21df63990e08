import { meshPart, type Mesh, type MeshLine } from '../geometry/mesh.ts';
import type { Point } from '../geometry/polygon.ts';
import { isInside } from '../layouts/frame.ts';
import type { ForecastRequest } from './layout.ts';
import { stretchOf } from './stretch.ts';
import { zonePaths } from './zones-on-mesh.ts';

/** The last mesh made: where only openings, laminates or the resin change it serves again. */
let lastMesh: { readonly key: string; readonly mesh: Mesh } | null = null;

/**
 * The mesh that a request runs on: its shell, or its plan, even where resin runs alike all ways. The last one is kept.
 * @throws ModelError of meshPart
 */
export function planMesh(request: ForecastRequest): Mesh {
  if (request.shell) return request.shell;
  const { nodeCount, isGlance } = request;
  const stretch = stretchOf(request.zones[0].layers);
  const laid = (points: readonly Point[]) => (stretch ? points.map(stretch.of) : points);
  const outline = laid(request.outline);
  const holes = request.holes.map(laid);
  const lines = [
    ...request.lines.map(({ name, kind, points }) => ({
      ...{ name, points },
      isRinged: kind === 'vent' && points.length === 1,
    })),
    ...zonePaths(request),
    ...awaitedMarks(request),
  ].map((line): MeshLine => ({ ...line, points: laid(line.points) }));
  // Names are of errors only, and an error leaves no mesh.
  const paths = lines.map(({ points, isDriven, isRinged }) => [points, isDriven, isRinged]);
  const key = JSON.stringify([outline, holes, paths, nodeCount, isGlance]);
  if (lastMesh?.key !== key) {
    const mesh = meshPart({ outline, holes, lines, nodeCount, isGlance });
    lastMesh = { key, mesh: stretch ? stretch.back(mesh) : mesh };
  }
  return lastMesh.mesh;
}

/** What an opening waits for at a mark is timed at a node: the mark itself. */
function awaitedMarks({ outline, holes, lines, marks = [] }: ForecastRequest) {
  const awaited = new Set(
    lines.flatMap(({ actions }) => actions.map(({ when }) => (when.kind === 'passed' ? when.what : ''))),
  );
  return marks
    .filter((mark) => awaited.has(mark.id) && isInside({ outline, holes }, mark))
    .map(({ name, x, y }) => ({ name, points: [{ x, y }], isDriven: false }));
}
