import type { Point } from '@wick/core/geometry/polygon';
import type { JobFeature } from '@wick/contract/job/job';
import { roundPoint, withPart, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';

const featureNames: Record<JobFeature['kind'], string> = {
  rise: 'Rise',
  step: 'Step',
  insideCorner: 'Inside corner',
};

export const addFeature =
  (points: readonly Point[], kind: JobFeature['kind'] = 'rise', id: string = newId()): Edit =>
  (job) => {
    const feature: JobFeature = {
      id,
      name: nextName(featureNames[kind], job.part.features),
      kind,
      points: points.map(roundPoint),
      height: 0.05,
      radius: 0.01,
      angle: null,
    };
    return withPart({ features: [...job.part.features, feature] })(job);
  };

export const updateFeature =
  (id: string, changes: Partial<JobFeature>): Edit =>
  (job) =>
    withPart({
      features: job.part.features.map((item) => (item.id === id ? { ...item, ...changes } : item)),
    })(job);

export const moveFeaturePoint =
  (id: string, index: number, to: Point): Edit =>
  (job) =>
    withPart({
      features: job.part.features.map((item) =>
        item.id === id
          ? { ...item, points: item.points.map((p, i) => (i === index ? roundPoint(to) : p)) }
          : item,
      ),
    })(job);

export const removeFeature =
  (id: string): Edit =>
  (job) =>
    withPart({ features: job.part.features.filter((item) => item.id !== id) })(job);
