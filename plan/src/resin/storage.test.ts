import { expect, test } from '@jest/globals';
import type { Lot } from '@wick/contract/material/resin';
import { lotState, lotToTake, lotWords } from './storage.ts';

const now = { day: Date.parse('2026-11-27T10:00:00Z'), room: 292.15, density: 1150 };
const lot = (changes: Partial<Lot> = {}): Lot => ({
  ...{
    id: 'l1',
    part: 'resin',
    number: 'R1',
    expires: null,
    mass: 25,
    storeTemperature: null,
    care: 'plain',
  },
  ...changes,
});
const wordsOf = (changes: Partial<Lot>) => lotWords(lotState(lot(changes), now)).join(' ');

test('a container is good through its day, soon over, or past', () => {
  const expiryOn = (expires: string) => lotState(lot({ expires }), now).expiry;
  expect(expiryOn('2026-11-27')).toBe('soon');
  expect(expiryOn('2026-11-26')).toBe('past');
  expect(expiryOn('2026-12-20')).toBe('soon');
  expect(expiryOn('2027-12-20')).toBe('good');
  expect(lotState(lot(), now).expiry).toBe('none');
  expect(wordsOf({ expires: '2026-11-20' })).toMatch(/Past its date \(2026-11-20\): not for a part/);
  expect(wordsOf({ expires: '2026-11-28' })).toMatch(/Good for 1 more day\./);
});

test('25 kg out of 6 °C into 19 °C take most of ten hours: 2.56 of their time constants', () => {
  const cold = lotState(lot({ storeTemperature: 279.15 }), now);
  // m c / (h A) as tall as wide, worked by hand: 3.78 h; within a kelvin after ln 13 of it.
  const constant = (25 * 1900) / (8 * 1.5 * Math.PI * Math.cbrt(100 / Math.PI / 1150) ** 2);
  expect(cold.warming).toBeCloseTo(constant * Math.log(13), 0);
  expect(lotWords(cold).join(' ')).toMatch(/Out of the cold store 10 h before it is mixed, shut/);
  expect(lotState(lot(), now).warming).toBe(0);
});

test('what settles is rolled or stirred', () => {
  expect(wordsOf({ care: 'roll' })).toMatch(/Roll the drum/);
  expect(wordsOf({ care: 'stir' })).toMatch(/Stir it through/);
  expect(wordsOf({})).toBe('');
});

test('taken is the one that ends first, never one past its date', () => {
  const states = [
    lot({ id: 'old', number: 'OLD', expires: '2026-01-01' }),
    lot({ id: 'late', number: 'LATE', expires: '2028-01-01' }),
    lot({ id: 'next', number: 'NEXT', expires: '2027-01-01' }),
    lot({ id: 'any', number: 'ANY' }),
    lot({ id: 'other', number: 'H', part: 'hardener' }),
  ].map((one) => lotState(one, now));
  expect(lotToTake(states, 'resin')!.lot.number).toBe('NEXT');
  expect(lotToTake(states, 'hardener')!.lot.number).toBe('H');
  expect(lotToTake(states.slice(0, 1), 'resin')).toBeNull();
});
