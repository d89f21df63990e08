import { z } from 'zod';
import { quantity } from './quantity.ts';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,60}$/, 'an id is up to 60 letters, digits, - or _');
const line = (most: number) => z.string().trim().max(most);
const duration = quantity('duration', { atLeast: 0, below: 1e7 });

/** What is done to a part, in the order of work. */
export const phases = [
  'mould',
  'release',
  'gelCoat',
  'barrier',
  'layUp',
  'bag',
  'leakCheck',
  'mix',
  'infuse',
  'cure',
  'debag',
  'demould',
  'trim',
  'weigh',
] as const;
export type Phase = (typeof phases)[number];

/** Of what a job fills in one step each. */
export const stepCounts = [
  'once',
  'coat',
  'gelPass',
  /** The first side that will be seen lies on the mould, or under the bag. */
  'mouldFace',
  'bagFace',
  'core',
  'ply',
  'layer',
  'line',
  'pleat',
  'pull',
  'batch',
  'valve',
] as const;
export type StepCount = (typeof stepCounts)[number];

/** Time that has to pass once a step is done, and by when what follows has to have begun. */
const waitSchema = z
  .strictObject({
    word: line(60).min(1, 'a wait says what for'),
    opens: duration,
    closes: duration.nullable(),
    /** At which these times hold; they slide with the temperature from there. Null where they do not. */
    temperature: quantity('temperature', { above: 233, below: 473 }).nullable(),
  })
  .refine(({ opens, closes }) => closes === null || closes > opens, {
    message: 'a window closes after it opens',
    path: ['closes'],
  });

export const stepSchema = z.strictObject({
  id,
  phase: z.enum(phases),
  title: line(80).min(1, 'a step has a title'),
  why: line(300),
  /** Where it hurts people. */
  caution: line(300),
  /** From the kit. */
  takes: z.array(line(60).min(1)).max(12),
  who: line(40),
  /** Hands on, for each one that the job fills in; null where nobody has said. */
  lasts: duration.nullable(),
  each: z.enum(stepCounts),
  /** Processes in which it is done; none for all. */
  processes: z.array(z.enum(['infusion', 'wetLayup', 'closedMould', 'bonding'])).max(4),
  wait: waitSchema.nullable(),
  /** A picture is asked for. */
  photo: z.boolean(),
  isUsed: z.boolean(),
});
export type Step = z.infer<typeof stepSchema>;

/** Coats of one thing, laid on at even times. */
const coatSchema = z.strictObject({
  name: line(60).min(1, 'a coat has a name'),
  count: z.number().int().min(1).max(20),
  /** On a mould from which nothing has been pulled yet; null for as many. */
  onNew: z.number().int().min(1).max(20).nullable(),
  /** From one coat to the next. */
  apart: duration,
  /** Until it has hazed and is wiped; null where it is not. */
  haze: duration.nullable(),
  /** From the last of them until what follows. */
  after: duration,
});
export type Coat = z.infer<typeof coatSchema>;

/** A release system: its coats in order. */
export const releaseRecipeSchema = z.strictObject({
  id,
  name: line(60).min(1, 'a release system has a name'),
  kind: z.enum(['wax', 'semiPermanent', 'film']),
  coats: z.array(coatSchema).min(1, 'a release system has a coat').max(8),
  /** Gel coat or first ply has to begin within so long of the last coat; null for no such time. */
  within: duration.nullable(),
  /** Parts pulled from one application; null where every part gets its own. */
  pulls: z.number().int().min(1).max(100).nullable(),
  note: line(300),
});
export type ReleaseRecipe = z.infer<typeof releaseRecipeSchema>;

const allIdsDiffer = (items: readonly { id: string }[]) =>
  new Set(items.map((item) => item.id)).size === items.length;

/** The workshop's own way of working: its steps in their order, and its release systems. */
export const stepLibrarySchema = z.strictObject({
  steps: z.array(stepSchema).max(300).refine(allIdsDiffer, 'two steps have the same id'),
  recipes: z
    .array(releaseRecipeSchema)
    .min(1, 'keep at least one release system')
    .max(40)
    .refine(allIdsDiffer, 'two release systems have the same id'),
  /** J/mol, by which windows slide. */
  activationEnergy: z.number().gte(0).lte(200_000),
});
export type StepLibrary = z.infer<typeof stepLibrarySchema>;
