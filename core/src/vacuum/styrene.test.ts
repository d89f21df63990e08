import { expect, test } from '@jest/globals';
import { styreneBoilsBelow, styreneVapourPressure } from './styrene.ts';

// Antoine, from memory: 652 / 1171 / 2009 / 3316 Pa; the NIOSH Pocket Guide has 6.7 hPa at 20 C.
test.each([
  [20, 652],
  [30, 1171],
  [40, 2009],
  [50, 3316],
])('styrene at %d C', (celsius, pascal) => {
  expect(Math.abs(styreneVapourPressure(celsius + 273.15) / pascal - 1)).toBeLessThan(0.003);
  expect(styreneBoilsBelow(celsius + 273.15)).toBeCloseTo(1.5 * styreneVapourPressure(celsius + 273.15), 6);
});
