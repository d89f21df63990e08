import { z } from 'zod';

const id = z.string().regex(/^[A-Za-z0-9_-]{1,60}$/, 'an id is up to 60 letters, digits, - or _');
const date = z.iso.date('a date reads like 2026-03-14');

/** What happens to a mould over its life. */
const eventKinds = ['coat', 'pull', 'leak', 'mended', 'repair', 'note'] as const;

const eventSchema = z.strictObject({
  id,
  date,
  kind: z.enum(eventKinds),
  text: z.string().max(300),
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

/** Newest first; of one day the later entry first. */
export function byDate(history: readonly MouldEvent[]): MouldEvent[] {
  return history
    .map((event, i) => ({ event, i }))
    .sort((a, b) => b.event.date.localeCompare(a.event.date) || b.i - a.i)
    .map(({ event }) => event);
}

/** Parts pulled since release was last put on; null when it never was. */
export function pullsSinceCoat(history: readonly MouldEvent[]): number | null {
  const sorted = byDate(history);
  const coat = sorted.findIndex(({ kind }) => kind === 'coat');
  return coat < 0 ? null : sorted.slice(0, coat).filter(({ kind }) => kind === 'pull').length;
}

/** Leaks found that nothing says were mended since. */
export function openLeaks(history: readonly MouldEvent[]): MouldEvent[] {
  const sorted = byDate(history);
  const mended = sorted.findIndex(({ kind }) => kind === 'mended');
  return (mended < 0 ? sorted : sorted.slice(0, mended)).filter(({ kind }) => kind === 'leak');
}

/** Common practice, no source: a thinner laminate leaks. */
const TIGHT_FROM_PLIES = 6;

/** What to look at before the next part, each in a sentence. */
export function mouldCautions(mould: Mould): string[] {
  const leaks = openLeaks(mould.history);
  const pulls = pullsSinceCoat(mould.history);
  return [
    ...(mould.condition === 'damaged' ? ['It is marked as damaged. Mend it before release goes on.'] : []),
    ...leaks.map(({ date, text }) => `Leak of ${date} not marked as mended${text ? `: ${text}` : ''}.`),
    ...(pulls === null ? ['No release coat is on record.'] : []),
    ...(mould.plies !== null && mould.plies < TIGHT_FROM_PLIES
      ? [`Its ${mould.plies} plies may leak through; from about ${TIGHT_FROM_PLIES} on a mould holds vacuum.`]
      : []),
  ];
}
