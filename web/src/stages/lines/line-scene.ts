import type { LaidJob } from '@wick/plan/job/laid';
import { meshAreasOf } from '@wick/plan/layout/mesh-areas';
import type { Probe } from '../../compute/probes.ts';
import type { Figure, Scene } from '../../board/scene.ts';

/** A traced edge of more points than this moves as a whole, and shows no handles. */
export const MOST_HANDLES = 6;

/** What can be taken hold of among lines, fittings, marks and probes. */
export function lineScene(job: LaidJob, probes: readonly Probe[]): Scene {
  const { lines, stations, tees, marks } = job;
  const places = [...stations, ...tees].flatMap(({ id, place }) => (place ? [{ id, place }] : []));
  return [
    ...meshAreasOf(job).map(({ id, outline }): Figure => ({
      role: 'fitting',
      id,
      points: outline,
      shape: 'closed',
      reach: 8,
    })),
    ...lines.map(({ id, points }): Figure => ({ role: 'line', id, points, reach: 10 })),
    ...lines
      .filter(({ points }) => points.length <= MOST_HANDLES)
      .flatMap(({ id, points }) =>
        points.map((p, index): Figure => ({ role: 'lineEnd', id, index, points: [p], reach: 7 })),
      ),
    ...places.map(({ id, place }): Figure => ({ role: 'fitting', id, points: [place], reach: 16 })),
    ...marks.map(({ id, x, y }): Figure => ({ role: 'mark', id, points: [{ x, y }], reach: 11 })),
    ...probes.map(({ id, x, y }): Figure => ({ role: 'probe', id, points: [{ x, y }], reach: 12 })),
  ];
}
