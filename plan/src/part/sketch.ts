import { polygonOf } from '@wick/core/geometry/arcs';
import { straightened, straightenedRing } from '@wick/core/geometry/along';
import { boundsOf, type Point } from '@wick/core/geometry/polygon';
import type { PlanSketch } from '@wick/contract/api';
import type { LaidJob } from '../job/laid.ts';

/** Share of the plan's longer way that nobody sees in a list, and of it the step to which places are written. */
const UNSEEN = 1 / 180;
const STEP = 1 / 5;

/** The plan of a job for a list: outline, holes, zones and lines, as fine as they can be seen there. */
export function planSketchOf({ part, zones, lines }: LaidJob): PlanSketch {
  const outline = polygonOf(part.outline);
  const { minX, minY, maxX, maxY } = boundsOf(outline);
  const unseen = UNSEEN * Math.max(maxX - minX, maxY - minY);
  const digits = Math.min(15, Math.max(0, Math.ceil(-Math.log10(STEP * unseen))));
  const written = (path: readonly Point[]) =>
    path.map(({ x, y }) => ({ x: Number(x.toFixed(digits)), y: Number(y.toFixed(digits)) }));
  const line = (path: readonly Point[]) => written(straightened(path, unseen));
  const ring = (path: readonly Point[]) => written(straightenedRing(path, unseen));
  const ofKind = (kind: string) => lines.filter((one) => one.kind === kind).map(({ points }) => line(points));
  return {
    outline: ring(outline),
    holes: part.holes.map((hole) => ring(polygonOf(hole.outline))),
    zones: zones.map((zone) => ring(polygonOf(zone.outline))),
    feeds: ofKind('feed'),
    vents: ofKind('vent'),
  };
}
