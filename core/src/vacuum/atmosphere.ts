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

/**
 * Pressure at a station from one reduced to sea level, as weather reports give it: p = QNH (1 - 0.0065 h / 288.15)^5.2559.
 * Source: ISO 2533. Checked by atmosphere.test.ts.
 */
export const stationPressure = (seaLevel: number, altitude: number): number =>
  (seaLevel * ambientAtAltitude(altitude)) / STANDARD_PRESSURE;

/** Share by which weather moves the pressure either way; common practice, no source. */
const WEATHER = 0.045;

/** A pressure that no weather brings to this altitude, but that a report for sea level would give: the station's own one, Pa; null where there is no such slip. */
export function seaLevelSlip(pressure: number, altitude: number): number | null {
  const isLikely = (from: number) => Math.abs(pressure / from - 1) <= WEATHER;
  return !isLikely(ambientAtAltitude(altitude)) && isLikely(STANDARD_PRESSURE)
    ? stationPressure(pressure, altitude)
    : null;
}
