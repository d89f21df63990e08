import { describe, expect, test } from '@jest/globals';
import { createRandom, normalOf } from '../random.ts';
import { LOCAL_SCATTER } from './marks.ts';
import { normalCdf } from '../verdict/sampling.ts';
import { lookAhead, weighShapes, type Shape } from './shapes.ts';

const PRIOR = 0.2626;
const plain = (id: string, factor: number): Shape => ({
  ...{ id, event: null, prior: 1, last: 60 * factor },
  atMarks: [10, 20, 30, 40].map((t) => t * factor),
});
/** Two marks lie along the side where it races: the front is there in half the time, and at the last corner sooner. */
const race: Shape = { id: 'race', event: 'race:1', prior: 0.2, last: 45, atMarks: [10, 10, 15, 40] };
const seen = (times: readonly number[]) => times.map((time) => ({ seen: time, deviation: 0.11 }));

describe('shapes by their evidence', () => {
  const shapes = [plain('a', 1), plain('b', 1.05), race];

  test('without a mark they are as likely as before', () => {
    const { shapes: weighed, events } = weighShapes(
      shapes.map((shape) => ({ ...shape, atMarks: [] })),
      [],
      PRIOR,
    );
    expect(weighed.map(({ weight }) => weight)).toEqual([1, 1, 0.2].map((p) => expect.closeTo(p / 2.2, 9)));
    expect(events).toEqual([{ event: 'race:1', belief: expect.closeTo(0.2 / 2.2, 9) }]);
  });

  test('two marks that come early along one side say race; everything twice as fast does not', () => {
    const raced = weighShapes(shapes, seen([10, 10, 15, 40]), PRIOR);
    expect(raced.events[0]!.belief).toBeGreaterThan(0.7);
    const fast = weighShapes(shapes, seen([7, 14, 21, 28]), PRIOR);
    expect(fast.events[0]!.belief).toBeLessThan(0.1);
    expect(Math.exp(fast.shapes[0]!.factor.mean)).toBeGreaterThan(1.3);
  });

  test('a single early mark is flagged and no race', () => {
    const { events, belief } = weighShapes(shapes, seen([10, 10, 30, 40]), PRIOR);
    expect(events[0]!.belief).toBeLessThan(0.2);
    expect(belief[1]).toBeLessThan(0.3);
    expect(belief[0]).toBeGreaterThan(0.5);
  });

  test('shapes that are all alike count all, one that alone fits counts one', () => {
    const many = Array.from({ length: 20 }, (_, k) => plain(`${k}`, 1));
    expect(weighShapes(many, seen([10, 20, 30, 40]), PRIOR).effective).toBeCloseTo(20, 6);
    // Marks in the wrong rhythm for all but one.
    const odd = { ...plain('odd', 1), atMarks: [10, 40, 30, 20] };
    const others = Array.from({ length: 20 }, (_, k) => ({ ...plain(`${k}`, 1), prior: 1e-6 }));
    expect(weighShapes([odd, ...others], seen([10, 40, 30, 20]), PRIOR).effective).toBeLessThan(1.1);
  });

  test('a front seen where a shape has none takes that shape out', () => {
    const dry = { ...plain('dry', 1), atMarks: [10, 20, NaN, 40] };
    const { shapes: weighed } = weighShapes([plain('a', 1), dry], seen([10, 20, 30, 40]), PRIOR);
    expect(weighed[1]!.weight).toBeLessThan(0.01);
  });
});

describe('what lies ahead', () => {
  const two = weighShapes(
    [plain('a', 1), plain('b', 2)].map((s) => ({ ...s, atMarks: [] })),
    [],
    PRIOR,
  );

  test('one shape: the log-normal of factor and what is local', () => {
    const one = weighShapes([{ ...plain('a', 1), atMarks: [] }], [], PRIOR);
    const ahead = lookAhead(one, [60], [NaN]);
    const spread = Math.exp(1.2816 * Math.hypot(PRIOR, 0.6 * LOCAL_SCATTER));
    expect(ahead.at(0.5)).toBeCloseTo(60, 3);
    expect(ahead.at(0.9)).toBeCloseTo(60 * spread, 2);
    expect(ahead.at(0.1)).toBeCloseTo(60 / spread, 2);
  });

  test('a mixture, against drawing from it', () => {
    const ahead = lookAhead(two, [60, 120], [NaN, NaN]);
    const random = createRandom(3);
    const draws = Array.from({ length: 40_000 }, () => {
      const middle = random() < 0.5 ? 60 : 120;
      return middle * Math.exp(Math.hypot(PRIOR, 0.6 * LOCAL_SCATTER) * normalOf(random));
    }).sort((a, b) => a - b);
    for (const share of [0.1, 0.5, 0.9])
      expect(ahead.at(share) / draws[Math.round(share * draws.length)]!).toBeCloseTo(1, 1);
  });

  test('what has not come by now comes later, and what may stay dry may never come', () => {
    expect(lookAhead(two, [60, 120], [NaN, NaN], 100).at(0.1)).toBeGreaterThan(100);
    const open = lookAhead(two, [60, Infinity], [NaN, NaN]);
    expect(open.at(0.4)).toBeLessThan(90);
    expect(open.at(0.6)).toBe(Infinity);
    expect(lookAhead(two, [NaN, Infinity], [NaN, NaN]).at(0.1)).toBe(Infinity);
  });

  test('given that it has not come: the middle of the cut normal curve, and less belief in what would have come', () => {
    const spread = Math.hypot(PRIOR, 0.6 * LOCAL_SCATTER);
    const now = 90;
    const { given } = lookAhead(two, [60, 120], [NaN, NaN], now);
    const dry = [60, 120].map((time) => normalCdf(Math.log(time / now) / spread));
    expect(given[0]!.weight).toBeCloseTo(dry[0]! / (dry[0]! + dry[1]!), 6);
    // Half of what is left of the curve lies behind the middle.
    given.forEach(({ factor }, k) => {
      const middle = [60, 120][k]! / Math.exp(factor);
      expect(middle).toBeGreaterThan(now);
      expect(normalCdf(Math.log([60, 120][k]! / middle) / spread) / dry[k]!).toBeCloseTo(0.5, 2);
    });
    // Long overdue in all of them it is still ahead.
    const late = lookAhead(two, [60, 120], [NaN, NaN], 1000).given;
    late.forEach(({ factor }, k) => expect([60, 120][k]! / Math.exp(factor)).toBeGreaterThan(999));
  });

  test('nearer to the end less of the local scatter is left', () => {
    const width = (until: number) => {
      const ahead = lookAhead(two, [60, 60], [until, until]);
      return ahead.at(0.9) / ahead.at(0.1);
    };
    expect(width(55)).toBeLessThan(width(20));
  });
});

test('the normal distribution: table values', () => {
  // Table 26.1 of Abramowitz & Stegun: 0.5, 0.841344746, 0.977249868, 0.998650102.
  [0.5, 0.841344746, 0.977249868, 0.998650102].forEach((p, z) => {
    expect(normalCdf(z)).toBeCloseTo(p, 6);
    expect(normalCdf(-z)).toBeCloseTo(1 - p, 6);
  });
});
