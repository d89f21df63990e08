import { polygonOf } from '@wick/core/geometry/arcs';
import type { PlanSketch } from '@wick/contract/api';
import type { LaidJob } from '../job/laid.ts';

const points = (path: readonly { x: number; y: number }[]) => path.map(({ x, y }) => ({ x, y }));

/** The plan of a job for a list: outline, holes, zones and lines. */
export function planSketchOf({ part, zones, lines }: LaidJob): PlanSketch {
  const ofKind = (kind: string) =>
    lines.filter((line) => line.kind === kind).map((line) => points(line.points));
  return {
    outline: points(polygonOf(part.outline)),
    holes: part.holes.map((hole) => points(polygonOf(hole.outline))),
    zones: zones.map((zone) => points(polygonOf(zone.outline))),
    feeds: ofKind('feed'),
    vents: ofKind('vent'),
  };
}
