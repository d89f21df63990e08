import type { Point } from '@wick/core/geometry/polygon';
import { roundPoint, shift, type Edit } from '../job/edits.ts';
import { newId, nextName } from '../job/ids.ts';
import { withoutTriggersOn } from './edits.ts';

/** Places where the front is timed belong to the job: every layout is timed at the same ones. */
export const addMark =
  (at: Point, id: string = newId()): Edit =>
  (job) => ({
    ...job,
    marks: [...job.marks, { id, name: nextName('Mark', job.marks), ...roundPoint(at) }],
  });

export const removeMark =
  (id: string): Edit =>
  (job) =>
    withoutTriggersOn(id, { ...job, marks: job.marks.filter((mark) => mark.id !== id) });

export const updateMark =
  (id: string, changes: { readonly name?: string } & Partial<Point>): Edit =>
  (job) => ({ ...job, marks: job.marks.map((mark) => (mark.id === id ? { ...mark, ...changes } : mark)) });

export const moveMark =
  (id: string, by: Point): Edit =>
  (job) => ({
    ...job,
    marks: job.marks.map((mark) => (mark.id === id ? { ...mark, ...shift(mark, by) } : mark)),
  });
