import { expect, test } from '@jest/globals';
import { readViscosityCsv } from './viscosity-csv.ts';

test('plain, with units in the heading, with decimal commas and a byte-order mark', () => {
  const expected = [
    { time: 0, viscosity: 0.35 },
    { time: 1800, viscosity: 0.7 },
  ];
  for (const text of [
    '0,350\n30,700\n',
    '\uFEFFtime (h),viscosity (Pa.s)\r\n0,0.35\r\n0.5,0.7',
    'Zeit (min);Viskositaet (mPa s)\n0;350,0\n30;700,0',
    '"t [s]"\t"eta [cP]"\n0\t350\n1800\t700',
  ]) {
    const read = readViscosityCsv(text);
    expect(read.ok).toBe(true);
    if (read.ok)
      read.value.forEach((point, i) => {
        expect(point.time).toBeCloseTo(expected[i]!.time, 9);
        expect(point.viscosity).toBeCloseTo(expected[i]!.viscosity, 12);
      });
  }
});

test.each<[string, string, RegExp]>([
  ['empty', '  \n', /file is empty/],
  ['one column', 'time\n1\n2', /one column only/],
  ['one point', 'time,viscosity\n0,300', /fewer than two/],
  ['words', '0,300\n10,thick', /Line 2 reads “10,thick”/],
  ['falling times', '0,300\n10,400\n5,500', /Line 3: times must rise/],
  ['no viscosity', '0,300\n10,0', /Line 2.*above zero/],
  ['NaN', '0,300\nNaN,400', /Line 2 reads/],
  ['an unknown unit', 'time (fortnights),viscosity (mPa s)\n0,300\n1,400', /Line 2 reads/],
  [
    'far too long',
    Array.from({ length: 2100 }, (_, i) => `${i},${300 + i}`).join('\n'),
    /2100 points; 2000 are plenty/,
  ],
])('%s is refused with a sentence', (_, text, says) => {
  const read = readViscosityCsv(text);
  expect(read.ok).toBe(false);
  if (!read.ok) expect(read.message).toMatch(says);
});
