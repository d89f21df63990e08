import { z } from 'zod';
import { quantity } from '../quantity.ts';
import { instrumentId } from './instrument.ts';
import { runId } from './parts.ts';

const mass = quantity('mass', { atLeast: 0, below: 1000 });
const component = z.enum(['resin', 'hardener']);

/** Mixing, on a scale. */
export const mixBodies = [
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
    mixId: runId,
    instrumentId: instrumentId.nullable(),
    value: quantity('mass', { atLeast: -1000, below: 5000 }),
  }),
  /** Hardener and resin have met: the clock of the batch starts. */
  z.strictObject({ kind: z.literal('contact'), mixId: runId }),
  /** So much has been poured in, as the scale had it or as it was typed; what it showed then counts as nothing from now on. */
  z.strictObject({
    kind: z.literal('poured'),
    mixId: runId,
    what: component,
    mass,
    instrumentId: instrumentId.nullable(),
    zero: quantity('mass', { atLeast: -1000, below: 5000 }),
  }),
  z.strictObject({
    kind: z.literal('mixStep'),
    mixId: runId,
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
