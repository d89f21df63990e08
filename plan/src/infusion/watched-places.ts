import { placeOf } from '@wick/core/geometry/mesh-places';
import { distance, type Point } from '@wick/core/geometry/polygon';
import type { LaidJob } from '../job/laid.ts';
import { frontAt, type SolvedShape } from './problem-shapes.ts';

/** Shares of the planned fill at which a front is looked for where nobody has planned marks. */
const WATCHED = [0.12, 0.25, 0.4, 0.6, 0.78];
/** Of the planned fill a place may be earlier or later than its share. */
const BAND = 0.04;

/** The plan's marks where it has enough, else places spread over the fill and as far from each other as they can be. */
export function watchedPlaces(job: Pick<LaidJob, 'marks'>, plan: SolvedShape): Point[] {
  const marks = job.marks.filter((mark) => frontAt(plan, mark) > 0);
  if (marks.length >= 3) return marks.map(({ x, y }) => ({ x, y }));
  const end = plan.front.reduce((most, time) => (time > most ? time : most), 0);
  const chosen: Point[] = [];
  for (const share of WATCHED) {
    const near = Array.from(plan.front.keys())
      .filter((i) => Math.abs(plan.front[i]! / end - share) < BAND)
      .map((i) => placeOf(plan.mesh, i));
    const away = (place: Point) => Math.min(1e9, ...chosen.map((other) => distance(place, other)));
    const best = near.reduce<Point | null>(
      (most, one) => (most && away(most) >= away(one) ? most : one),
      null,
    );
    if (best) chosen.push(best);
  }
  return chosen;
}
