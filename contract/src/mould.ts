import { z } from 'zod';
import { MOST_RUNS_BEHIND } from './material/learned.ts';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,60}$/, 'an id is up to 60 letters, digits, - or _');
const date = z.iso.date('a date reads like 2026-03-14');

/** What happens to a mould over its life. */
const eventKinds = ['coat', 'pull', 'leak', 'mended', 'repair', 'note'] as const;

/** Kinds of place where a bag leaks. */
export const leakKinds = [
  'pleat',
  'tapeCorner',
  'port',
  'mesh',
  'strand',
  'join',
  'hose',
  'pot',
  'mould',
] as const;
export type LeakKind = (typeof leakKinds)[number];

const eventSchema = z.strictObject({
  id,
  date,
  kind: z.enum(eventKinds),
  text: z.string().max(300),
  /** Of a leak that was found on a leak walk: at which place, and of what kind that is. */
  place: z.strictObject({ id: z.string().min(1).max(80), kind: z.enum(leakKinds) }).optional(),
});

/** What a workshop learns of a mould from its own parts: what its bags let in, Pa m3/s; resin drawn over what was planned. */
export const mouldSides = ['leak', 'drawn'] as const;
export type MouldSide = (typeof mouldSides)[number];

const learnedSchema = z.strictObject({
  /** Middle of the next part. */
  value: z.number().gt(0).lt(1e6),
  /** How far the next part may be off it, as a share. */
  doubt: z.number().gte(0).lt(1000),
  /** Runs it rests on. */
  runIds: z.array(z.string().min(1).max(40)).min(1).max(MOST_RUNS_BEHIND),
});

/** Record of a mould: what it is, and its history in the order in which it happened. */
export const mouldSchema = z.strictObject({
  id,
  name: z.string().trim().min(1, 'give the mould a name').max(80),
  material: z.string().max(80),
  /** Of its own laminate; null where nobody knows. */
  plies: z.number().int().min(1).max(200).nullable(),
  condition: z.enum(['sound', 'worn', 'damaged']),
  history: z.array(eventSchema).max(2000),
  learned: z.partialRecord(z.enum(mouldSides), learnedSchema).optional(),
});

export type Mould = z.infer<typeof mouldSchema>;
export type MouldEvent = Mould['history'][number];
export type MouldEventKind = MouldEvent['kind'];
