import { describe, expect, test } from '@jest/globals';
import { jobSchema } from '@wick/contract/job/job';
import { mouldSchema } from '@wick/contract/mould';
import { stepLibrarySchema } from '@wick/contract/steps';
import type { EntryBody } from '@wick/contract/run/run';
import { usualSteps } from '../card/usual-steps.ts';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMoulds } from '../demo/moulds.ts';
import { logOf } from '../infusion/test/plate.ts';
import { runStateOf } from '../run/state.ts';
import { editOfLesson, isAlike, knownChanges, lessonsOf, withLessonNote, withLessonStep } from './lessons.ts';

const lesson = (change: string | null, amount: number | null = null): EntryBody => ({
  ...{ kind: 'lesson', target: 'plan', text: 'words', change, amount },
});
const written = (...bodies: EntryBody[]) => lessonsOf(runStateOf(logOf(bodies.map((body, n) => [n, body]))));

describe('a known change', () => {
  test('every one makes a job of every demo job that still reads, and does something to one of them', () => {
    for (const change of knownChanges.filter(({ edit }) => edit !== null)) {
      const [one] = written(lesson(change.id));
      let changed = 0;
      for (const job of demoJobs) {
        const after = editOfLesson(one!, demoShop)!(job);
        expect(jobSchema.safeParse(after).success).toBe(true);
        changed += Number(JSON.stringify(after) !== JSON.stringify(job));
      }
      expect([change.id, changed > 0]).toEqual([change.id, true]);
    }
  });

  test('its own amount goes before the usual one', () => {
    const [own, usual] = written(lesson('reserve', 0.35), lesson('reserve'));
    const reserve = (which: typeof own) =>
      editOfLesson(which!, demoShop)!(demoJobs[0]!).resin.reserve as { share: number };
    expect(reserve(own).share).toBe(0.35);
    expect(reserve(usual).share).toBe(0.2);
  });

  test('words alone, or a change this program does not know, change no job', () => {
    for (const one of written(lesson(null), lesson('from-a-newer-version')))
      expect(editOfLesson(one, demoShop)).toBeNull();
  });

  test('one about the steps stands once among those of its phase', () => {
    for (const change of knownChanges.filter(({ step }) => step !== null)) {
      const once = withLessonStep(usualSteps, change, 'lesson-1');
      expect(stepLibrarySchema.safeParse(once).success).toBe(true);
      expect(once.steps).toHaveLength(usualSteps.steps.length + 1);
      const at = once.steps.findIndex(({ id }) => id === 'lesson-1');
      expect(once.steps[at]!.phase).toBe(change.step!.phase);
      expect(withLessonStep(once, change, 'lesson-2')).toBe(once);
    }
  });

  test('one about the mould goes into its history', () => {
    const mould = withLessonNote(demoMoulds[0]!, 'x'.repeat(900), '2026-03-14');
    expect(mouldSchema.safeParse(mould).success).toBe(true);
    expect(mould.history.at(-1)).toMatchObject({ kind: 'note', date: '2026-03-14' });
  });
});

test('a lesson is settled by the last word about it', () => {
  const all = written(
    lesson('reserve'),
    { kind: 'lessonSettled', lessonId: 'e0', is: 'dropped', jobId: null },
    { kind: 'lessonSettled', lessonId: 'e0', is: 'taken', jobId: 'copy' },
    lesson(null),
  );
  expect(all.map(({ settled }) => settled?.is ?? null)).toEqual(['taken', null]);
});

test('alike are jobs on one mould, or of one process with half of their materials in common', () => {
  const job = { id: 'a', mouldId: 'm', process: 'infusion', materialIds: ['1', '2', '3'] };
  expect(isAlike(job, { ...job, id: 'b', materialIds: [] })).toBe(true);
  expect(isAlike(job, { ...job, id: 'b', mouldId: null })).toBe(true);
  expect(isAlike(job, { ...job, id: 'b', mouldId: null, materialIds: ['1', '8', '9'] })).toBe(false);
  expect(isAlike(job, { ...job, id: 'b', mouldId: null, process: 'wetLayup' })).toBe(false);
  expect(
    isAlike(
      { ...job, mouldId: null, materialIds: [] },
      { id: 'c', mouldId: null, process: 'infusion', materialIds: [] },
    ),
  ).toBe(false);
});
