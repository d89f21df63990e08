import { ModelError } from '../model-error.ts';

const STANDARD_PRESSURE = 101_325;

/**
 * Ambient pressure of the standard atmosphere: p = p0 (1 - L h / T0)^(g M / (R L)).
 * @param altitude m above sea level, -500 to 6000
 * @returns Pa, absolute
 * @throws ModelError ALTITUDE_RANGE outside the range a workshop can have
 * Source: ISO 2533, troposphere. Checked by atmosphere.test.ts.
 */
export function ambientAtAltitude(altitude: number): number {
  if (!(altitude >= -500 && altitude <= 6000))
    throw new ModelError('ALTITUDE_RANGE', `Altitude must lie between -500 m and 6000 m, got ${altitude}.`, {
      altitude,
    });
  return STANDARD_PRESSURE * (1 - (0.0065 * altitude) / 288.15) ** 5.255876;
}
