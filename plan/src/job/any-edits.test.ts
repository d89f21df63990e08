import { describe, expect, test } from '@jest/globals';
import type { Job } from '@wick/contract/job/job';
import fc from 'fast-check';
import { demoJobs } from '../demo/jobs.ts';
import { readJob, readUnfinished } from '../files/job-file.ts';
import { anyEdit, moves } from '../test/any-edit.ts';

/** Each its own: new ids come from them. */
const seeds = fc.uniqueArray(fc.integer(), { minLength: 1, maxLength: 25 });
const startOf = fc.constantFrom(...demoJobs);

/** All ids of a job, each as often as it stands as an id of something. */
function idsOf(document: unknown): string[] {
  if (typeof document !== 'object' || document === null) return [];
  const own = 'id' in document && typeof document.id === 'string' ? [document.id] : [];
  return [...own, ...Object.values(document).flatMap(idsOf)];
}
/** Ids that are the job's own: its materials and its mould have theirs from elsewhere. */
const ownIds = (job: Job) => idsOf({ ...job, materials: [], mould: null });

describe('whatever edits come, in any order', () => {
  test('the job always reads, and says the same after being written and read; only a ring may cross itself', () => {
    fc.assert(
      fc.property(startOf, seeds, (start, list) => {
        let job = start;
        for (const seed of list) {
          const { name, edit } = anyEdit(job, seed);
          job = edit(job);
          const written = JSON.parse(JSON.stringify(job));
          const read = readUnfinished(written);
          if (!read.ok) throw new Error(`after “${name}”: ${read.message}`);
          expect(read.value).toEqual(written);
          const whole = readJob(written);
          if (!whole.ok) expect(whole.message).toMatch(/crosses itself/);
        }
      }),
      { numRuns: 120 },
    );
  });

  test('an edit changes nothing of the job that it is given, and does the same each time', () => {
    fc.assert(
      fc.property(startOf, seeds, (start, list) => {
        let job = start;
        for (const seed of list) {
          const { edit } = anyEdit(job, seed);
          const before = JSON.stringify(job);
          const once = edit(job);
          expect(JSON.stringify(job)).toBe(before);
          expect(JSON.stringify(edit(job))).toBe(JSON.stringify(once));
          job = once;
        }
      }),
      { numRuns: 100 },
    );
  });

  test('no two things of a layout and its job carry one id', () => {
    fc.assert(
      fc.property(startOf, seeds, (start, list) => {
        const job = list.reduce((now, seed) => anyEdit(now, seed).edit(now), start);
        for (const layout of job.layouts) {
          const ids = ownIds({ ...job, layouts: [layout] });
          expect(ids.length - new Set(ids).size).toBe(0);
        }
      }),
      { numRuns: 100 },
    );
  });

  test('every kind of edit comes up', () => {
    const seen = new Set(Array.from({ length: 3000 }, (_, seed) => anyEdit(demoJobs[0]!, seed).name));
    expect([...seen].sort()).toEqual(Object.keys(moves).sort());
  });
});
