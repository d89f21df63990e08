import { quantityOf, type QuantityName } from '@wick/core/units/quantities';
import { z } from 'zod';

/** What an instrument can measure: quantities of the unit table. A relative gauge reads vacuum below ambient. */
export const measures = ['absolutePressure', 'gaugePressure', 'temperature', 'mass', 'soundLevel'] as const;
measures satisfies readonly QuantityName[];
export type Measure = (typeof measures)[number];

/** What a reading of each can be, SI: what lies outside is a fault of the instrument or a wrong unit. */
export const readable: Readonly<Record<Measure, readonly [low: number, high: number]>> = {
  absolutePressure: [-1000, 200_000],
  gaugePressure: [-100_000, 120_000],
  temperature: [173.15, 773.15],
  mass: [-1, 5000],
  soundLevel: [-60, 200],
};

export const instrumentId = z
  .string()
  .regex(/^[A-Za-z0-9_-]{1,40}$/, 'an id is up to 40 letters, digits, - or _');

const shape = {
  id: instrumentId,
  name: z.string().trim().min(1, 'give the instrument a name').max(60),
  measures: z.enum(measures),
  /** In which it reports where a reading names none. */
  unit: z.string().max(10),
  /** Step of its display, SI; and the scatter of one reading beside that, standard deviation. */
  resolution: z.number().gt(0, 'the step of the display is above 0').lt(1e6),
  noise: z.number().gte(0, 'scatter is not below 0').lt(1e6),
};

export const newInstrumentSchema = z
  .strictObject({
    ...shape,
    /** Posts by itself with a word of its own, or is read by eye and typed. */
    kind: z.enum(['device', 'hand']),
  })
  .refine(({ measures: name, unit }) => quantityOf(name).units.some(({ symbol }) => symbol === unit), {
    message: 'this is no unit of what the instrument measures',
    path: ['unit'],
  });
export type NewInstrument = z.infer<typeof newInstrumentSchema>;

export const instrumentSchema = z.strictObject({
  ...shape,
  kind: z.enum(['device', 'hand', 'simulated']),
  /** The rehearsal that a simulated one belongs to. */
  runId: z.string().nullable(),
  addedAt: z.string(),
  /** Set where its word is no longer good. */
  revokedAt: z.string().nullable(),
  /** By which its clock was behind the server's when it last said what it shows, s. */
  clockOffset: z.number().nullable(),
  last: z.object({ at: z.string(), value: z.number() }).nullable(),
});
export type Instrument = z.infer<typeof instrumentSchema>;

/** The word of a device is shown once. */
export const instrumentWordSchema = z.object({ instrument: instrumentSchema, word: z.string().nullable() });

const readingId = z
  .string()
  .min(1, 'an id is needed, so that a repeated reading is known')
  .max(64, 'an id has up to 64 characters');

/** A reading as a line of JSON; in the instrument's own unit where it names none. */
export const readingLineSchema = z
  .strictObject({
    id: z.union([readingId, z.number().int().transform(String)]),
    at: z.iso.datetime({ offset: true, error: 'a time reads like 2026-03-14T09:12:05.120Z' }).optional(),
    /** For a device without a clock: s before it is sent. */
    ago: z.number().gte(0, 'seconds before now are not below 0').lt(1e8).optional(),
    value: z.number({ error: 'a value is a number' }),
    unit: z.string().max(20).optional(),
  })
  .refine(({ at, ago }) => (at === undefined) !== (ago === undefined), {
    message: 'say when it was read: either at (a time) or ago (seconds before now)',
  });

/** The device's own clock as it sends; everything after it is put right by the difference. */
export const clockLineSchema = z.strictObject({
  now: z.iso.datetime({ offset: true, error: 'a time reads like 2026-03-14T09:12:05.120Z' }),
});

/** What came of a batch: how many are new, how many were known by their id, and which lines were not taken. */
export const takenSchema = z.object({
  kept: z.number().int(),
  known: z.number().int(),
  refused: z.array(z.object({ line: z.number().int(), why: z.string() })),
  clockOffset: z.number().nullable(),
});
export type Taken = z.infer<typeof takenSchema>;

/** Typed by hand, SI. */
export const typedReadingSchema = z.strictObject({
  id: readingId,
  at: z.iso.datetime({ offset: true }),
  value: z.number(),
});

/** Most lines of a batch, and its largest size. */
export const MOST_LINES = 5000;
export const MAX_BATCH_BYTES = 1_000_000;

export interface Reading {
  readonly id: string;
  /** ms since 1970, by the server's clock */
  readonly at: number;
  /** SI */
  readonly value: number;
}

/** A stretch of readings thinned for display: each place covers what was read between its own start and the next. */
export const windowSchema = z.object({
  /** ms since 1970 */
  starts: z.array(z.number()),
  lows: z.array(z.number()),
  highs: z.array(z.number()),
  means: z.array(z.number()),
  /** Readings in the whole stretch. */
  count: z.number().int(),
});
export type ReadingWindow = z.infer<typeof windowSchema>;

/** Single readings of a stretch, evenly left out where there are many. */
export const samplesSchema = z.object({
  ats: z.array(z.number()),
  values: z.array(z.number()),
  count: z.number().int(),
});
export type Samples = z.infer<typeof samplesSchema>;

/** Places of a display at most, and single readings at most. */
export const MOST_PLACES = 1000;
export const MOST_SAMPLES = 4000;
