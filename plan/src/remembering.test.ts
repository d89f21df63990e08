import { expect, test } from '@jest/globals';
import { remembering } from './remembering.ts';

test('an answer is taken again for what says the same, whatever object says it', () => {
  const known = remembering<number>(2);
  let made = 0;
  const ask = (...on: object[]) => known(on, () => ++made);
  expect(ask([1, 2], { a: 'x' })).toBe(1);
  expect(ask([1, 2], { a: 'x' })).toBe(1);
  expect(ask([1], [2], { a: 'x' })).toBe(2);
  // Two are kept: the one unused longest goes.
  expect(ask([1, 2], { a: 'x' })).toBe(1);
  expect(ask([3])).toBe(3);
  expect(ask([1, 2], { a: 'x' })).toBe(1);
  expect(ask([1], [2], { a: 'x' })).toBe(4);
});

test('what could not be made is tried again', () => {
  const known = remembering<number>();
  expect(() =>
    known([[1]], () => {
      throw new Error('not yet');
    }),
  ).toThrow('not yet');
  expect(known([[1]], () => 7)).toBe(7);
});
