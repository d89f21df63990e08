import { z } from 'zod';
import { itemId } from './places.ts';

const bands = ['comfortable', 'tight', 'gamble', 'willNotFill', 'drySpot', 'airTrapped'] as const;

/** What a forecast of a layout came to; times s from first mix, null where the resin gels first. */
export const outcomeSchema = z.strictObject({
  band: z.enum(bands),
  fillTime: z.number().nullable(),
  gelTime: z.number(),
  /** The pot then leaves the resin's data, so that its gel is not known. */
  endsUnknown: z.boolean().default(false),
  earliest: z.number().nullable(),
  latest: z.number().nullable(),
  chance: z.number().min(0).max(1),
  /** Between which the chance lies, and at the last corner shares of the resin's life, of its flow to gel and of its usable time; not in results of earlier versions. */
  chanceFrom: z.number().min(0).max(1).nullable().default(null),
  chanceTo: z.number().min(0).max(1).nullable().default(null),
  lifeUsed: z.number().min(0).nullable().default(null),
  flowUsed: z.number().min(0).nullable().default(null),
  timeUsed: z.number().min(0).nullable().default(null),
  /** Cut off from the vents, m2, and share of the part wet at gel. */
  dryArea: z.number().min(0),
  wetShare: z.number().min(0).max(1),
  /** In lines, hoses, mesh and vents, kg. */
  wastedResin: z.number().min(0),
  lineLength: z.number().min(0),
  hoseLength: z.number().min(0),
  /** Valves that somebody has to turn. */
  operatorActions: z.number().int().min(0),
});

/** An outcome with what it is of. Kept beside the job, never in it. */
export const resultSchema = z.strictObject({
  layoutId: itemId,
  /** Of everything the outcome depends on: another key means that it is out of date. */
  key: z.string().regex(/^[0-9a-f]{16}$/, 'a key is sixteen hexadecimal digits'),
  outcome: outcomeSchema,
});

export type Outcome = z.infer<typeof outcomeSchema>;
export type JobResult = z.infer<typeof resultSchema>;
