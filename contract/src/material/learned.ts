import { z } from 'zod';

/** What a workshop learns of an entry from its own parts. */
export const learnedSides = ['permeability', 'viscosity', 'gelTime', 'compaction'] as const;
export type LearnedSide = (typeof learnedSides)[number];

/** Runs that a value may rest on. */
export const MOST_RUNS_BEHIND = 500;

const learnedSchema = z.strictObject({
  /** By which the entry's own values have been multiplied: divided by it they are as they were. */
  factor: z.number().gt(0.001).lt(1000),
  /** How far the next run may be off, as a share; in place of what the entry carries itself. */
  doubt: z.number().gte(0).lte(10),
  /** Runs it rests on. */
  runIds: z.array(z.string().min(1).max(40)).min(1).max(MOST_RUNS_BEHIND),
});

/** What was learned of an entry, by what of it. */
export const learned = z.partialRecord(z.enum(learnedSides), learnedSchema).optional();
