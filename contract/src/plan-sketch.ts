import { polygonOf } from '@wick/core/geometry/arcs';
import type { PlanSketch } from './api.ts';
import type { Job } from './job.ts';

const points = (path: readonly { x: number; y: number }[]) => path.map(({ x, y }) => ({ x, y }));

/** The plan of a job for a list: outline, holes, zones and lines. */
export function planSketchOf({ part, zones, lines }: Job): PlanSketch {
  const ofKind = (kind: string) =>
    lines.filter((line) => line.kind === kind).map((line) => points(line.points));
  return {
    outline: points(polygonOf(part.outline)),
    holes: part.holes.map((hole) => points(polygonOf(hole))),
    zones: zones.map((zone) => points(polygonOf(zone.outline))),
    feeds: ofKind('feed'),
    vents: ofKind('vent'),
  };
}
