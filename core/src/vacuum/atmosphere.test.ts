import { describe, expect, test } from '@jest/globals';
import { ambientAtAltitude } from './atmosphere.ts';

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
