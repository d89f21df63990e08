import type { Instrument } from '@wick/contract/run/instrument';
import type { Entry, Place } from '@wick/contract/run/run';

/** It shows a pressure of the bag, absolute or below ambient. */
export const isGauge = ({ measures }: Pick<Instrument, 'measures'>): boolean =>
  measures === 'absolutePressure' || measures === 'gaugePressure';

/** Those that show the finest steps first. */
export const byFineness = (a: Pick<Instrument, 'resolution'>, b: Pick<Instrument, 'resolution'>): number =>
  a.resolution - b.resolution;

/** Absolute pressure that a reading comes to, Pa; a relative gauge says by how much it lies below ambient. */
export const absoluteOf = (
  { measures }: Pick<Instrument, 'measures'>,
  value: number,
  ambientPressure: number,
): number => (measures === 'gaugePressure' ? ambientPressure - value : value);

/** Which instruments belong to a run: those of the workshop hang on real parts, simulated ones in their own rehearsal. */
export const isAtHand = ({ runId }: Pick<Instrument, 'runId'>, rehearsalId: string | null): boolean =>
  runId === rehearsalId;

/** Instruments that hung at a place at some time of a run, whether they were taken off since or not. */
export const hungAt = (entries: readonly Entry[], place: Place): ReadonlySet<string> =>
  new Set(
    entries.flatMap(({ body }) =>
      body.kind === 'attach' && body.place === place ? [body.instrumentId] : [],
    ),
  );
