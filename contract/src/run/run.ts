import { z } from 'zod';
import { quantity } from '../quantity.ts';
import { cardBodies } from './card-bodies.ts';
import { infusionBodies } from './infusion-bodies.ts';
import { instrumentId } from './instrument.ts';
import { mixBodies } from './mix-bodies.ts';
import { personName, runId } from './parts.ts';
import { reviewBodies } from './review-bodies.ts';

const time = z.iso.datetime({ offset: true, error: 'a time reads like 2026-03-14T09:12:05.120Z' });

/** Where an instrument hangs. */
export const places = ['bag', 'pot', 'room', 'mould', 'resin', 'bench'] as const;
export type Place = (typeof places)[number];

/** A part that is made, or a rehearsal of one with simulated instruments. */
export const newRunSchema = z.strictObject({
  id: runId,
  kind: z.enum(['part', 'rehearsal']),
  /** By which the clock of a rehearsal is quicker than the one on the wall. */
  speed: z.number().gte(1).lte(60),
  /** Of a rehearsal: the same one draws the same. */
  seed: z
    .number()
    .int()
    .gte(0)
    .lte(2 ** 31 - 1),
});
export type NewRun = z.infer<typeof newRunSchema>;

export const runSchema = newRunSchema.extend({
  jobId: z.string(),
  /** Of the job's parts, from 1. */
  number: z.number().int(),
  startedAt: z.string(),
  endedAt: z.string().nullable(),
});
export type Run = z.infer<typeof runSchema>;

/** What a watcher is called for. */
export const limitsSchema = z.strictObject({
  /** In the bag, above this. */
  pressure: quantity('absolutePressure', { above: 0, below: 110_000 }).nullable(),
  /** Of mould or resin, below and above these. */
  coldest: quantity('temperature', { above: 233, below: 473 }).nullable(),
  warmest: quantity('temperature', { above: 233, below: 473 }).nullable(),
  /** No reading for so long. */
  silence: quantity('duration', { atLeast: 5, below: 86_400 }),
});
export type Limits = z.infer<typeof limitsSchema>;

const alarmSchema = z.strictObject({
  kind: z.literal('alarm'),
  cause: z.enum(['pressure', 'cold', 'warm', 'silence']),
  instrumentId,
  /** Of the reading; null where there was none. */
  value: z.number().nullable(),
  limit: z.number(),
});

/** What stands in a verdict once it has been written down. */
const verdictSchema = z.strictObject({
  kind: z.literal('judged'),
  /** The entry by which the bag was shut. */
  shutId: runId,
  verdict: z.enum(['passes', 'leaks', 'cannotTell']),
  /** Pa m3/s, with the ends of its 95 % interval. */
  throughput: z.strictObject({ value: z.number(), low: z.number(), high: z.number() }),
  throughputLimit: z.number(),
  freeVolume: quantity('volume', { above: 0, below: 100 }),
  /** In the bag when it was shut, absolute. */
  start: z.number(),
  duration: quantity('duration', { atLeast: 0, below: 1e6 }),
  voids: z.number(),
});

/** What can happen, or be done or said, while a part is made. */
const bodySchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('attach'), instrumentId, place: z.enum(places) }),
  z.strictObject({ kind: z.literal('detach'), instrumentId }),
  /** The pump draws; the bag is shut off from it; air is let in. */
  z.strictObject({ kind: z.literal('pull') }),
  z.strictObject({ kind: z.literal('shut') }),
  z.strictObject({ kind: z.literal('letGo') }),
  /** A step of the staged pull-down that was done. */
  z.strictObject({
    kind: z.literal('step'),
    wanted: quantity('absolutePressure', { above: 0, below: 110_000 }).nullable(),
    feed: z.enum(['open', 'clamped']),
    worked: z.string().trim().max(300),
  }),
  verdictSchema,
  /** A place of the leak walk was looked at. */
  z.strictObject({
    kind: z.literal('looked'),
    placeId: z.string().min(1).max(80),
    place: z.string().max(120),
    state: z.enum(['found', 'sealed', 'sound']),
    how: z.enum(['ear', 'listener', 'gauge']),
  }),
  /** The listener is held to a place. */
  z.strictObject({ kind: z.literal('listen'), placeId: z.string().min(1).max(80) }),
  /** Clamps on these lines: the rest of the bag was read alone. */
  z.strictObject({ kind: z.literal('clamped'), lineIds: z.array(z.string().max(40)).max(100) }),
  /** Free volume read from a known one that was let into the bag. */
  z.strictObject({
    kind: z.literal('expansion'),
    volume: quantity('volume', { above: 0, below: 10 }),
    pressure: quantity('absolutePressure', { above: 0, below: 1e6 }),
    before: quantity('absolutePressure', { above: 0, below: 110_000 }),
    after: quantity('absolutePressure', { above: 0, below: 110_000 }),
  }),
  /** Takes the watch, or takes it over. */
  z.strictObject({
    kind: z.literal('watch'),
    watcher: personName.min(1, 'a watch has a name'),
    limits: limitsSchema,
  }),
  z.strictObject({ kind: z.literal('watchEnds') }),
  alarmSchema,
  ...mixBodies,
  ...cardBodies,
  ...infusionBodies,
  ...reviewBodies,
  /** Somebody has seen it and says so by name. */
  z.strictObject({ kind: z.literal('answered'), alarmId: runId }),
  /** What a rehearsal is made to suffer from now on. */
  z.strictObject({
    kind: z.literal('trouble'),
    what: z.enum([
      'leak',
      'wetCore',
      'pumpDies',
      'silent',
      'heaterOff',
      'weather',
      'drawn',
      'none',
      'scaleDrifts',
      'scaleFlat',
      'bucketLeans',
      'coldResin',
      'race',
      'dryBucket',
      'day',
    ]),
    placeId: z.string().max(80).nullable(),
    amount: z.number().gte(0).lt(1e9),
  }),
  z.strictObject({ kind: z.literal('note'), text: z.string().trim().min(1).max(1000) }),
  /** An earlier entry was a mistake; it stays and no longer counts. */
  z.strictObject({ kind: z.literal('struck'), entryId: runId, why: z.string().trim().max(300) }),
]);
export type EntryBody = z.infer<typeof bodySchema>;
export type Alarm = z.infer<typeof alarmSchema>;

/** An entry as it is sent; known by its id when it is sent again. */
const entryShape = z.strictObject({ id: runId, at: time, by: personName, body: bodySchema });
export const newEntrySchema = entryShape
  .refine(({ by, body }) => body.kind !== 'overruled' || by !== '', {
    message: 'going on past a hold point needs a name',
    path: ['by'],
  })
  .refine(({ by, body }) => body.kind !== 'skipped' || by !== '', {
    message: 'leaving a step out needs a name',
    path: ['by'],
  })
  .refine(({ by, body }) => body.kind !== 'signed' || by !== '', {
    message: 'a signature needs a name',
    path: ['by'],
  });
export type NewEntry = z.infer<typeof newEntrySchema>;

export const entrySchema = entryShape.extend({
  runId: z.string(),
  /** In which it came in; rises. */
  order: z.number().int(),
  writtenAt: z.string(),
  /** The screen it was made on. */
  device: z.string(),
});
export type Entry = z.infer<typeof entrySchema>;

export const watchedRunSchema = z.object({
  run: runSchema,
  jobName: z.string(),
  entries: z.array(entrySchema),
});
export type WatchedRun = z.infer<typeof watchedRunSchema>;

/** Entries sent at once at most. */
export const MOST_ENTRIES = 200;
