import type { ComparedRow } from '@wick/contract/run/review-bodies';
import type { QuantityName } from '@wick/core/units/quantities';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import type { Minutes } from '../infusion/reforecast.ts';

export type ComparedGroup = 'part' | 'fill' | 'resin' | 'vacuum' | 'cure';

/** One figure as planned and as measured, SI. */
export interface Compared {
  readonly id: string;
  readonly group: ComparedGroup;
  readonly name: string;
  readonly quantity: QuantityName;
  /** What nine in ten parts lie above and below; null where nothing was planned. */
  readonly planned: Minutes | null;
  readonly measured: number;
  /** Standard deviation of the measuring. */
  readonly doubt: number;
  /** Within what was planned, the doubt of the measuring counted in; null where it cannot be told. */
  readonly isInside: boolean | null;
  /** What that means, in the trade's words; empty where there is nothing to say. */
  readonly means: string;
}

/** A range around a middle, by a standard deviation. */
export const around = (middle: number, deviation: number): Minutes => ({
  early: middle - NINE_IN_TEN * deviation,
  middle,
  late: middle + NINE_IN_TEN * deviation,
});
/** A range around a middle, by a standard deviation of its ln. */
export const wide = (middle: number, logDeviation: number): Minutes => ({
  early: middle * Math.exp(-NINE_IN_TEN * logDeviation),
  middle,
  late: middle * Math.exp(NINE_IN_TEN * logDeviation),
});

/** Holds what was measured against what was planned. @param of means: what it means to lie below or above, by so large a share */
export function compared(
  of: Omit<Compared, 'isInside' | 'means'> & {
    readonly means?: (off: 'low' | 'high', share: number) => string;
  },
): Compared {
  const { planned, measured, doubt, means, ...rest } = of;
  const slack = NINE_IN_TEN * doubt;
  const isLow = planned !== null && measured < planned.early - slack;
  const isHigh = planned !== null && measured > planned.late + slack;
  const share = planned ? measured / planned.middle - 1 : 0;
  return {
    ...{ ...rest, planned, measured, doubt },
    isInside: planned === null ? null : !isLow && !isHigh,
    means: (isLow && means?.('low', share)) || (isHigh && means?.('high', share)) || '',
  };
}

/** "9 %", without its sign. */
export const percent = (share: number) => `${Math.round(100 * Math.abs(share))} %`;
/** A quantity in the workshop's unit. */
export type Show = (value: number | null, quantity: QuantityName) => string;

/** "22 to 31 min"; a limit where there is nothing below. */
export function plannedWords(
  { early, middle, late }: NonNullable<ComparedRow['planned']>,
  quantity: QuantityName,
  show: Show,
): string {
  if (early === null && late !== null) return `at most ${show(late, quantity)}`;
  if (late === null)
    return early === null ? 'not before gel' : `from ${show(early, quantity)}, or not before gel`;
  return early === middle && late === middle
    ? show(middle, quantity)
    : `${show(early, quantity)} to ${show(late, quantity)}`;
}
