import { z } from 'zod';

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

/** Record of a mould: what it is, and its history in the order in which it happened. */
export const mouldSchema = z.strictObject({
  id,
  name: z.string().trim().min(1, 'give the mould a name').max(80),
  material: z.string().max(80),
  /** Of its own laminate; null where nobody knows. */
  plies: z.number().int().min(1).max(200).nullable(),
  condition: z.enum(['sound', 'worn', 'damaged']),
  history: z.array(eventSchema).max(2000),
});

export type Mould = z.infer<typeof mouldSchema>;
export type MouldEvent = Mould['history'][number];
export type MouldEventKind = MouldEvent['kind'];
