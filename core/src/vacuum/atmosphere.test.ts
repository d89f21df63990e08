import { describe, expect, test } from '@jest/globals';
import { ambientAtAltitude, seaLevelSlip, stationPressure } from './atmosphere.ts';

describe('standard atmosphere', () => {
  // ISO 2533 table values, from memory.
  test.each([
    [0, 101_325],
    [1000, 89_874.6],
    [1500, 84_556],
    [2000, 79_495],
  ])('%d m', (altitude, pressure) => {
    expect(Math.abs(ambientAtAltitude(altitude) / pressure - 1)).toBeLessThan(2e-4);
  });

  test('26 inHg of vacuum is all there is near 1170 m', () => {
    const inHg = 3386.389; // NIST SP 811
    expect(ambientAtAltitude(1150) / inHg).toBeGreaterThan(26);
    expect(ambientAtAltitude(1190) / inHg).toBeLessThan(26);
  });

  test.each([NaN, 9000, -2000])('refuses %p', (altitude) => {
    expect(() => ambientAtAltitude(altitude)).toThrow(/between -500 m and 6000 m/);
  });
});

describe('pressure of a weather report', () => {
  test('1030 hPa at sea level are 859.5 hPa at 1500 m', () => {
    // QNH (1 - 0.0065 h / 288.15)^5.2559, worked by hand.
    expect(Math.abs(stationPressure(103_000, 1500) / 85_950 - 1)).toBeLessThan(2e-4);
  });

  test('is caught where no weather brings it: high up, and not near the sea', () => {
    expect(seaLevelSlip(101_300, 640)).toBeCloseTo(stationPressure(101_300, 640), 6);
    expect(seaLevelSlip(94_000, 640)).toBeNull();
    expect(seaLevelSlip(101_300, 50)).toBeNull();
    // No sea-level figure either: another slip, which is not this one's to guess.
    expect(seaLevelSlip(60_000, 640)).toBeNull();
  });
});
