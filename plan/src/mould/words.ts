import type { Mould, MouldEvent } from '@wick/contract/mould';

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

/** Leaks of the mould itself that nothing says were mended since; those of a bag went with the bag. */
export function openLeaks(history: readonly MouldEvent[]): MouldEvent[] {
  const sorted = byDate(history);
  const mended = sorted.findIndex(({ kind }) => kind === 'mended');
  return (mended < 0 ? sorted : sorted.slice(0, mended)).filter(
    ({ kind, place }) => kind === 'leak' && (!place || place.kind === 'mould'),
  );
}

/** Common practice, no source: a thinner laminate leaks. */
const TIGHT_FROM_PLIES = 6;

/** Its own laminate lets air through. */
export const isThin = ({ plies }: Pick<Mould, 'plies'>): boolean =>
  plies !== null && plies < TIGHT_FROM_PLIES;

/** What to look at before the next part, each in a sentence. */
export function mouldCautions(mould: Mould): string[] {
  const leaks = openLeaks(mould.history);
  const pulls = pullsSinceCoat(mould.history);
  return [
    ...(mould.condition === 'damaged' ? ['It is marked as damaged. Mend it before release goes on.'] : []),
    ...leaks.map(({ date, text }) => `Leak of ${date} not marked as mended${text ? `: ${text}` : ''}.`),
    ...(pulls === null ? ['No release coat is on record.'] : []),
    ...(isThin(mould)
      ? [`Its ${mould.plies} plies may leak through; from about ${TIGHT_FROM_PLIES} on a mould holds vacuum.`]
      : []),
  ];
}
