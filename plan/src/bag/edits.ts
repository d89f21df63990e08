import type { JobSection } from '@wick/contract/job/job';
import type { Point } from '@wick/core/geometry/polygon';
import { roundPoint, withPart, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';

/** A section drawn across the plan. */
export const addSection =
  (points: readonly Point[], id: string = newId()): Edit =>
  (job) => {
    const { sections } = job.part;
    const section: JobSection = { id, name: nextName('Section', sections), points: points.map(roundPoint) };
    return withPart({ sections: [...sections, section] })(job);
  };

export const removeSection =
  (id: string): Edit =>
  (job) =>
    withPart({ sections: job.part.sections.filter((section) => section.id !== id) })(job);
