import { z } from 'zod';
import type { Route } from './route.ts';
import { bookEvidenceSchema, bookFiguresSchema, lessonTargets } from './run/review-bodies.ts';

/** A part in the shop's book. */
export const bookLineSchema = z.object({
  runId: z.string(),
  jobId: z.string(),
  jobName: z.string(),
  /** Of the job's parts. */
  number: z.number().int(),
  kind: z.enum(['part', 'rehearsal']),
  /** When it was begun, and when it was put into the book last, by whom. */
  startedAt: z.string(),
  bookedAt: z.string(),
  by: z.string(),
  figures: bookFiguresSchema,
  evidence: bookEvidenceSchema,
});
export type BookLine = z.infer<typeof bookLineSchema>;

/** A lesson that nobody has taken or set aside, and the job it comes from. */
export const openLessonSchema = z.object({
  lessonId: z.string(),
  runId: z.string(),
  jobId: z.string(),
  jobName: z.string(),
  number: z.number().int(),
  at: z.string(),
  target: z.enum(lessonTargets),
  text: z.string(),
  change: z.string().nullable(),
  amount: z.number().nullable(),
  mouldId: z.string().nullable(),
  process: z.string(),
  materialIds: z.array(z.string()),
});
export type OpenLesson = z.infer<typeof openLessonSchema>;

/** What is asked about parts that were made; a part of all routes. */
export const reviewRoutes = {
  /** Parts in the book, oldest first; rehearsals with ?rehearsals=1. */
  listBook: { method: 'GET', path: '/api/book', body: null, answer: z.array(bookLineSchema) },
  listLessons: { method: 'GET', path: '/api/lessons', body: null, answer: z.array(openLessonSchema) },
  /** The record of a part as PDF: the same run is the same file. With ?paper=A4 or Letter. */
  getReport: { method: 'GET', path: '/api/runs/:id/report', body: null, answer: z.void() },
} as const satisfies Record<string, Route>;
