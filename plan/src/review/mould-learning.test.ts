import { describe, expect, test } from '@jest/globals';
import { mouldSchema, type Mould } from '@wick/contract/mould';
import type { BookFigures } from '@wick/contract/run/review-bodies';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { demoMoulds } from '../demo/moulds.ts';
import { demoRuns } from '../demo/runs.ts';
import {
  learnedOf,
  mouldOffersOf,
  mouldWords,
  reserveFor,
  tightChance,
  withMouldLearned,
} from './mould-learning.ts';

const table = demoMoulds.find(({ id }) => id === 'flat-table')!;
const [first] = demoRuns.flatMap(({ entries }) =>
  entries.flatMap(({ body }) => (body.kind === 'booked' ? [body.figures] : [])),
);
let count = 0;
const part = (changes: Partial<BookFigures>) => ({
  runId: `run-${++count}`,
  figures: { ...first!, mouldId: table.id, ...changes },
});
const leaking = (measured: number | null) =>
  part({ leak: { planned: 1e-3, measured }, drawn: { planned: 4, measured: null } });
const drawing = (measured: number | null, wet: number | null = 3000) =>
  part({
    leak: { planned: 1e-3, measured: null },
    drawn: { planned: 4, measured },
    fill: { planned: 3000, measured: wet },
  });
const only = (mould: Mould, parts: Parameters<typeof mouldOffersOf>[1]) => {
  const offers = mouldOffersOf(mould, parts);
  expect(offers).toHaveLength(1);
  return offers[0]!;
};

describe('what parts say of their mould', () => {
  test('one tested bag: between what is usual and what it let in, by their precisions (conjugate normal, textbook form)', () => {
    const { side, value, doubt, scatter, isNews } = only(table, [leaking(2e-3)]);
    const [prior, run] = [Math.log(10) / NINE_IN_TEN, Math.hypot(Math.log(2) / NINE_IN_TEN, 0.2)];
    const weight = run ** -2 / (run ** -2 + prior ** -2);
    const posterior = Math.sqrt(1 / (run ** -2 + prior ** -2));
    expect(side).toBe('leak');
    expect(Math.log(value / 5e-4)).toBeCloseTo(weight * Math.log(2e-3 / 5e-4), 3);
    expect(Math.log(doubt) / NINE_IN_TEN).toBeCloseTo(Math.hypot(posterior, Math.log(2) / NINE_IN_TEN), 3);
    expect(scatter).toBeCloseTo(2, 6);
    expect(isNews).toBe(true);
  });

  test('many of them: their own middle, and never narrower than they differ', () => {
    const lets = [3e-3, 2e-3, 5e-3, 4e-3, 2.5e-3, 3.5e-3, 3e-3, 2e-3, 5e-3, 4e-3, 2.5e-3, 3.5e-3];
    const mean = Math.exp(lets.reduce((sum, one) => sum + Math.log(one), 0) / lets.length);
    const { value, doubt, scatter, runIds } = only(table, lets.map(leaking));
    expect(value / mean).toBeCloseTo(1, 1);
    expect(doubt).toBeGreaterThan(scatter);
    expect(runIds).toHaveLength(lets.length);
  });

  test('resin over the plan; a part that stayed dry, or on another mould, or was not weighed, says nothing', () => {
    const wet = Array.from({ length: 8 }, () => drawing(4.4));
    const { side, value, runIds } = only(table, [
      ...wet,
      drawing(2, null),
      drawing(null),
      part({ mouldId: 'another', drawn: { planned: 4, measured: 9 } }),
    ]);
    expect(side).toBe('drawn');
    expect(value).toBeGreaterThan(1.08);
    expect(value).toBeLessThan(1.1);
    expect(runIds).toEqual(wet.map(({ runId }) => runId));
    expect(mouldOffersOf(table, [leaking(0), leaking(-1e-5), leaking(null)])).toEqual([]);
  });

  test('of more parts than a record names the latest count, and can be kept', () => {
    const offer = only(
      table,
      Array.from({ length: 520 }, () => drawing(4.4)),
    );
    expect(offer.runIds).toHaveLength(500);
    expect(() => mouldSchema.parse(withMouldLearned(table, 'drawn', offer))).not.toThrow();
  });

  test('taken it stands in the record, is no news, and set back it is gone', () => {
    const parts = [drawing(4.4), drawing(4.5)];
    const offer = only(table, parts);
    const taken = mouldSchema.parse(withMouldLearned(table, 'drawn', offer));
    expect(learnedOf(taken, 'drawn')!.value).toBe(offer.value);
    expect(learnedOf(taken, 'drawn')!.doubt).toBeCloseTo(offer.doubt, 9);
    expect(only(taken, parts)).toMatchObject({ isNews: false, now: { value: offer.value } });
    expect(only(taken, [...parts, drawing(4.2)]).isNews).toBe(true);
    const both = withMouldLearned(taken, 'leak', { value: 1e-3, doubt: 2, runIds: ['a'] });
    expect(withMouldLearned(both, 'leak', null)).toEqual(taken);
    expect(withMouldLearned(taken, 'drawn', null)).toEqual(table);
  });
});

test('nine in ten: the upper end of x/÷ is the reserve, and a limit there is met by nine bags in ten', () => {
  const own = withMouldLearned(
    withMouldLearned(table, 'drawn', { value: 1.04, doubt: 1.05, runIds: ['a'] }),
    'leak',
    { value: 1e-3, doubt: 2, runIds: ['a'] },
  );
  // 1.04 x 1.05 - 1 = 0.092, to the next whole per cent.
  expect(reserveFor(own)).toBe(0.1);
  expect(reserveFor(withMouldLearned(own, 'drawn', { value: 0.8, doubt: 1.05, runIds: ['a'] }))).toBe(0);
  expect(tightChance(own, 2e-3)).toBeCloseTo(0.9, 3);
  expect(tightChance(own, 1e-3)).toBeCloseTo(0.5, 6);
  expect(tightChance(own, 0.5e-3)).toBeCloseTo(0.1, 3);
  expect([reserveFor(table), tightChance(table, 1e-3)]).toEqual([null, null]);
  // 1 mbar L/s is 0.1 Pa m3/s.
  expect(mouldWords(own, 'leak')).toBe(
    'Bags on Long glass table let in 0.01 mbar·L/s, x/÷ 2.00 (measured here, 1 part)',
  );
  expect(mouldWords(own, 'drawn')).toBe(
    'Parts on Long glass table draw × 1.04 of their plan, x/÷ 1.05 (measured here, 1 part)',
  );
  expect(mouldWords(table, 'leak')).toBeNull();
});
