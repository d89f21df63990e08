import { z } from 'zod';
import { entrySchema, runSchema } from './run.ts';

/**
 * What every open screen is told as it happens, as server-sent events named by their kind. The id of an event says how far it had
 * come; a screen that returns with it is told what it missed.
 */
export const streamSchemas = {
  /** First of all, and every few seconds: the server's clock, ms since 1970. */
  clock: z.object({ now: z.number() }),
  entry: entrySchema,
  run: runSchema,
  /** New readings of an instrument, thinned: ms since 1970 and SI. */
  readings: z.object({ instrumentId: z.string(), points: z.array(z.tuple([z.number(), z.number()])) }),
  /** More was missed than is told again: ask for everything anew. */
  gap: z.object({}),
} as const;
export type StreamKind = keyof typeof streamSchemas;
/** What an event of a kind carries. */
export type StreamData<K extends StreamKind> = z.infer<(typeof streamSchemas)[K]>;
