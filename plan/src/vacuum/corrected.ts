import type { RiseReadings } from '@wick/core/vacuum/rise';

/** Readings of one instrument: ms since 1970 and SI. */
export interface Series {
  readonly ats: readonly number[];
  readonly values: readonly number[];
}

/** Value of a series at a time, straight between its readings, and level before and after them; null where there is none. */
export function valueIn({ ats, values }: Series, at: number): number | null {
  if (ats.length === 0) return null;
  let [low, high] = [0, ats.length - 1];
  if (at <= ats[low]!) return values[low]!;
  if (at >= ats[high]!) return values[high]!;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (ats[middle]! <= at) low = middle;
    else high = middle;
  }
  const share = (at - ats[low]!) / (ats[high]! - ats[low]!);
  return values[low]! + share * (values[high]! - values[low]!);
}

/** Saturated water gives so much more for each kelvin at 22 C, Pa/K. Source: Magnus formula, WMO No. 8 (from memory). */
export const WATER_RISE = 165;

export interface Corrected {
  readonly readings: RiseReadings;
  /** By which the air outside changed meanwhile, Pa, where the gauge follows it and a barometer says so; null where nobody knows. */
  readonly weather: number | null;
  /** By which it got warmer, K; null where no thermometer hangs there. */
  readonly warmed: number | null;
}

/**
 * A drop test with weather and temperature taken out: a relative gauge follows the air outside one to one, and gas that warms by a
 * kelvin rises by its share of the absolute temperature.
 * @param gauge as it read  @param from ms since 1970, when the bag was shut
 * @param ambient Pa, where no barometer hangs
 */
export function correctedReadings(
  gauge: Series & { readonly isRelative: boolean },
  from: number,
  beside: {
    readonly barometer: Series | null;
    readonly thermometer: Series | null;
    readonly ambient: number;
  },
): Corrected {
  const { barometer, thermometer, ambient } = beside;
  const outside = (at: number) => (barometer && valueIn(barometer, at)) ?? ambient;
  const start = thermometer && valueIn(thermometer, from);
  const times: number[] = [];
  const pressures: number[] = [];
  gauge.ats.forEach((at, i) => {
    if (at < from) return;
    const read = gauge.values[i]!;
    const absolute = gauge.isRelative ? outside(at) - read : read;
    const now = thermometer && valueIn(thermometer, at);
    times.push((at - from) / 1000);
    pressures.push(start && now ? (absolute * start) / now : absolute);
  });
  const last = gauge.ats.at(-1);
  const end = thermometer && last !== undefined ? valueIn(thermometer, last) : null;
  return {
    readings: { times, pressures },
    weather:
      gauge.isRelative && barometer && barometer.ats.length > 0 && last !== undefined
        ? outside(last) - outside(from)
        : null,
    warmed: start && end ? end - start : null,
  };
}
