import { z } from 'zod';
import { quantity } from '../quantity.ts';
import { instrumentId } from './instrument.ts';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');
const time = z.iso.datetime({ offset: true, error: 'a time reads like 2026-03-14T09:12:05.120Z' });
const name = z.string().trim().max(40);

/** Where an instrument hangs. */
export const places = ['bag', 'pot', 'room', 'mould', 'resin', 'bench'] as const;
export type Place = (typeof places)[number];

/** A part that is made, or a rehearsal of one with simulated instruments. */
export const newRunSchema = z.strictObject({
  id,
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
  shutId: id,
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

const mass = quantity('mass', { atLeast: 0, below: 1000 });
const component = z.enum(['resin', 'hardener']);

/** Mixing, on a scale. */
const mixBodies = [
  /** A batch is begun: which of how many, what belongs into it, and from which containers. */
  z.strictObject({
    kind: z.literal('mixBegun'),
    number: z.number().int().min(1).max(100),
    count: z.number().int().min(1).max(100),
    materialId: z.string().max(60),
    resin: mass,
    hardener: mass,
    lots: z.strictObject({ resin: z.string().trim().max(40), hardener: z.string().trim().max(40) }),
    /** What was done with them before: warmed, rolled, stirred up. */
    readied: z.array(z.string().trim().max(300)).max(20),
  }),
  /** What the scale shows with the bucket on it counts as nothing from now on. */
  z.strictObject({
    kind: z.literal('tared'),
    mixId: id,
    instrumentId: instrumentId.nullable(),
    value: quantity('mass', { atLeast: -1000, below: 5000 }),
  }),
  /** Hardener and resin have met: the clock of the batch starts. */
  z.strictObject({ kind: z.literal('contact'), mixId: id }),
  /** So much has been poured in, as the scale had it or as it was typed; what it showed then counts as nothing from now on. */
  z.strictObject({
    kind: z.literal('poured'),
    mixId: id,
    what: component,
    mass,
    instrumentId: instrumentId.nullable(),
    zero: quantity('mass', { atLeast: -1000, below: 5000 }),
  }),
  z.strictObject({
    kind: z.literal('mixStep'),
    mixId: id,
    step: z.enum(['stirred', 'secondBucket', 'degassed', 'inPot']),
  }),
  /** What a hand does to the simulated scale of a rehearsal. */
  z.strictObject({
    kind: z.literal('hand'),
    does: z.enum(['bucket', 'pour', 'stop', 'clear']),
    /** kg/s */
    rate: z.number().gte(0).lt(100),
  }),
] as const;

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
    watcher: name.min(1, 'a watch has a name'),
    limits: limitsSchema,
  }),
  z.strictObject({ kind: z.literal('watchEnds') }),
  alarmSchema,
  ...mixBodies,
  /** Somebody has seen it and says so by name. */
  z.strictObject({ kind: z.literal('answered'), alarmId: id }),
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
    ]),
    placeId: z.string().max(80).nullable(),
    amount: z.number().gte(0).lt(1e9),
  }),
  z.strictObject({ kind: z.literal('note'), text: z.string().trim().min(1).max(1000) }),
  /** An earlier entry was a mistake; it stays and no longer counts. */
  z.strictObject({ kind: z.literal('struck'), entryId: id, why: z.string().trim().max(300) }),
]);
export type EntryBody = z.infer<typeof bodySchema>;
export type Alarm = z.infer<typeof alarmSchema>;

/** An entry as it is sent; known by its id when it is sent again. */
export const newEntrySchema = z.strictObject({ id, at: time, by: name, body: bodySchema });
export type NewEntry = z.infer<typeof newEntrySchema>;

export const entrySchema = newEntrySchema.extend({
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
