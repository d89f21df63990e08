import { z } from 'zod';
import type { Route } from '../route.ts';
import {
  instrumentSchema,
  instrumentWordSchema,
  newInstrumentSchema,
  samplesSchema,
  takenSchema,
  typedReadingSchema,
  windowSchema,
} from './instrument.ts';
import {
  entrySchema,
  MOST_ENTRIES,
  newEntrySchema,
  newRunSchema,
  runSchema,
  watchedRunSchema,
} from './run.ts';
import { runPlanSchema } from './plan.ts';
import { photoSchema } from './photo.ts';

const nothing = z.void();

/** What is asked about runs and instruments; a part of all routes. */
export const runRoutes = {
  /** Newest first. */
  listRuns: { method: 'GET', path: '/api/jobs/:id/runs', body: null, answer: z.array(runSchema) },
  /** The same id again answers with what is there. */
  addRun: { method: 'POST', path: '/api/jobs/:id/runs', body: newRunSchema, answer: runSchema },
  /** The plan it follows: the one taken last. */
  getRunPlan: { method: 'GET', path: '/api/runs/:id/plan', body: null, answer: runPlanSchema },
  /** Goes on by the job as it is saved now; the differences are written into the run. */
  takeRunPlan: {
    method: 'POST',
    path: '/api/runs/:id/plan',
    body: z.strictObject({ jobRevision: z.number().int().min(1) }),
    answer: runPlanSchema,
  },
  /** The picture itself; the same id again is answered with what is there. */
  addPhoto: { method: 'PUT', path: '/api/runs/:id/photos/:photoId', body: null, answer: photoSchema },
  /** With ?size=small for a thumbnail. */
  getPhoto: { method: 'GET', path: '/api/runs/:id/photos/:photoId', body: null, answer: nothing },
  listEntries: { method: 'GET', path: '/api/runs/:id/entries', body: null, answer: z.array(entrySchema) },
  /** In the order in which they are to stand; those known by their id are answered as they are kept. */
  addEntries: {
    method: 'POST',
    path: '/api/runs/:id/entries',
    body: z.strictObject({ entries: z.array(newEntrySchema).min(1).max(MOST_ENTRIES) }),
    answer: z.array(entrySchema),
  },
  /** Runs that somebody watches now, with all that was said in them. */
  listWatches: { method: 'GET', path: '/api/watches', body: null, answer: z.array(watchedRunSchema) },
  listInstruments: { method: 'GET', path: '/api/instruments', body: null, answer: z.array(instrumentSchema) },
  addInstrument: {
    method: 'POST',
    path: '/api/instruments',
    body: newInstrumentSchema,
    answer: instrumentWordSchema,
  },
  /** A new word for a device; the one before is no longer good. */
  renewWord: { method: 'POST', path: '/api/instruments/:id/word', body: null, answer: instrumentWordSchema },
  /** Its word is no longer good; what it has read stays. */
  revokeInstrument: { method: 'DELETE', path: '/api/instruments/:id', body: null, answer: nothing },
  typeReading: {
    method: 'POST',
    path: '/api/instruments/:id/readings',
    body: typedReadingSchema,
    answer: takenSchema,
  },
  /** With ?from=, ?to= (ms since 1970) and ?places=. */
  readWindow: { method: 'GET', path: '/api/instruments/:id/window', body: null, answer: windowSchema },
  /** With ?from=, ?to= and ?most=. */
  readSamples: { method: 'GET', path: '/api/instruments/:id/samples', body: null, answer: samplesSchema },
  /** From a device, with its word: lines of JSON. */
  postReadings: { method: 'POST', path: '/api/readings', body: null, answer: takenSchema },
  /** Server-sent events. */
  stream: { method: 'GET', path: '/api/stream', body: null, answer: nothing },
} as const satisfies Record<string, Route>;
