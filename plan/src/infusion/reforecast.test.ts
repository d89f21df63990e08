import { describe, expect, test } from '@jest/globals';
import { clockOf } from '@wick/core/verdict/verdict';
import { runConditionsOf } from '../resin/run.ts';
import { logOf, frontMark, plate, plateShapes, shop, under } from './test/plate.ts';
import { shapeIdsOf } from './problem-shapes.ts';
import { refusalOf } from './upstream.ts';
import { reforecastWords } from './words.ts';

const plan = () => plateShapes()[0]!;
const run = runConditionsOf(plate, shop)!;
const clock = clockOf(run);
/** The last corner with everything so many times better, by the clock alone. */
const lastAt = (factor: number) =>
  clock.timeAtFluidity({ from: run.openTime, fluidity: plan().last / factor });

test('they are solved the plan first, then events and draws by turns, each once', () => {
  const order = shapeIdsOf(plate, shop);
  expect(new Set(order).size).toBe(order.length);
  expect(order[0]).toBe('plan');
  const half = order.slice(1, 1 + Math.floor(order.length / 2));
  expect(half.filter((id) => id.startsWith('race-')).length).toBeGreaterThanOrEqual(9);
  expect(half.filter((id) => id.startsWith('draw-')).length).toBeGreaterThanOrEqual(9);
});

describe('on one clock', () => {
  test('before any mark it is the plan with its doubt', () => {
    const { last, planned, factor, marks } = under([]).answer(run.openTime + 60);
    expect(last.middle / lastAt(1)).toBeCloseTo(1, 1);
    expect(planned.late).toBeGreaterThan(1.3 * planned.middle);
    expect(factor.middle).toBeCloseTo(1, 6);
    expect(marks).toEqual([]);
  });

  test('three marks of a part that takes resin a quarter worse: the factor, the last corner, half the width', () => {
    const marks = [
      frontMark(plan(), 0.3, 0.2, 0.75),
      frontMark(plan(), 0.5, 0.3, 0.75),
      frontMark(plan(), 0.7, 0.1, 0.75),
    ];
    const answer = under(marks).answer(marks[2]![0] + 1);
    expect(answer.factor.middle).toBeGreaterThan(0.73);
    expect(answer.factor.middle).toBeLessThan(0.82);
    expect(answer.last.early).toBeLessThan(lastAt(0.75));
    expect(answer.last.late).toBeGreaterThan(lastAt(0.75));
    const width = ({ early, late }: { early: number; late: number }) => Math.log(late / early);
    expect(width(answer.last) / width(answer.planned)).toBeLessThan(0.6);
  });

  test.each([0, 1, 2, 3, 4, 5])(
    'one wrong mark of six, number %d: within a tenth, flagged, and still there',
    (wrong) => {
      const right = [0.25, 0.4, 0.55, 0.7, 0.85, 1].map((x, n) => frontMark(plan(), x, 0.05 + 0.07 * n, 0.8));
      const spoilt = right.map(([at, body], n): (typeof right)[number] =>
        n === wrong ? [run.openTime + (at - run.openTime) * (n < 3 ? 2.5 : 0.35), body] : [at, body],
      );
      const now = right[5]![0] + 30;
      const without = under(right.filter((_, n) => n !== wrong)).answer(now);
      const all = under(spoilt).answer(now);
      expect(Math.abs(all.last.middle / without.last.middle - 1)).toBeLessThan(0.1);
      expect(all.marks).toHaveLength(6);
      expect(all.marks.filter(({ isDoubted }) => isDoubted)).toHaveLength(1);
    },
  );

  test('half the pressure from the start is seen by the gauge, and doubles what is to come', () => {
    const { clock: live } = under([]);
    const [feed, vent] = [93_869, 1500];
    const half = feed - (feed - vent) / 2;
    const readings = Array.from({ length: 200 }, (_, n) => ({
      at: live.zero + 1000 * (run.openTime + 30 * n),
      pressure: half,
    }));
    const answer = under([], readings).answer(run.openTime + 60);
    const expected = clock.timeAtFluidity({ from: run.openTime, fluidity: 2 * plan().last });
    expect(answer.last.middle / expected).toBeCloseTo(1, 1);
  });

  test('a race along one edge is recognised once both sides were marked, and said in words', () => {
    const race = plateShapes().findLast(({ id }) => id.startsWith('race-0'))!;
    const edge = race.event!.places;
    const along = (share: number) => ({
      x: edge[0]!.x + share * (edge[1]!.x - edge[0]!.x),
      y: Math.abs(edge[0]!.y + share * (edge[1]!.y - edge[0]!.y) - 0.01),
    });
    const marks = [
      frontMark(race, along(0.5).x, along(0.5).y),
      frontMark(race, along(0.7).x, along(0.7).y),
      frontMark(race, along(0.85).x, along(0.85).y),
      frontMark(race, 0.4, 0.4),
      frontMark(race, 0.6, 0.42),
    ].sort((a, b) => a[0] - b[0]);
    const answer = under(marks).answer(marks.at(-1)![0] + 10);
    expect(answer.events[0]!.event).toMatchObject({ kind: 'race', of: '0' });
    expect(answer.events[0]!.belief).toBeGreaterThan(0.5);
    expect(reforecastWords(answer).join(' ')).toContain(`races along ${race.event!.where}`);
  });

  test('overdue: what is simulated on from here has the last corner ahead, too', () => {
    const marks = [frontMark(plan(), 0.3, 0.2), frontMark(plan(), 0.5, 0.3)];
    const answer = under(marks).answer(1.15 * lastAt(1));
    const { shape, factor } = answer.likeliest;
    expect(clock.timeAtFluidity({ from: run.openTime, fluidity: shape.last / factor })).toBeGreaterThan(
      answer.now,
    );
  });

  test('once all of it was said to be wet, that is when it was, and what is left to turn goes by it', () => {
    const wetAt = 1.2 * lastAt(1);
    const said = under([frontMark(plan(), 0.3, 0.2), [wetAt, { kind: 'allWet' }]]);
    for (const later of [5, 900]) {
      const { last, turns, nextMark } = said.answer(wetAt + later);
      for (const end of [last.early, last.middle, last.late]) expect(end).toBeCloseTo(wetAt, 0);
      expect(nextMark).toBeNull();
      const shut = plan().turns.find(({ actionId }) => actionId === 'feed-1-shuts')!;
      const fluidity = (shut.time / plan().last) * clock.fluidity({ from: run.openTime, to: wetAt });
      const expected = clock.timeAtFluidity({ from: run.openTime, fluidity });
      expect(turns[0]!.at.middle / expected).toBeCloseTo(1, 1);
    }
  });

  test('it says where to look next, ahead of the front', () => {
    const marks = [frontMark(plan(), 0.3, 0.2)];
    const { nextMark, now } = under(marks).answer(marks[0]![0] + 5);
    expect(nextMark!.at).toBeGreaterThan(now);
    expect(nextMark!.settles).toBeGreaterThan(0.2);
    expect(nextMark!.settles).toBeLessThanOrEqual(1);
  });

  test('the planned shutting of the feed has its minutes, and they go with the marks', () => {
    const slow = [0.3, 0.5, 0.7].map((x) => frontMark(plan(), x, 0.2, 0.6));
    const before = under([]).answer(run.openTime + 10).turns[0]!;
    const after = under(slow).answer(slow[2]![0]).turns[0]!;
    expect(before.actionId).toBe('feed-1-shuts');
    expect(before.at.middle / lastAt(1)).toBeCloseTo(1, 1);
    expect(after.at.middle).toBeGreaterThan(1.3 * before.at.middle);
  });

  test('a struck mark no longer counts, and marks in another order of arrival say the same', () => {
    const marks = [frontMark(plan(), 0.3, 0.2, 0.75), frontMark(plan(), 0.5, 0.3, 0.75)];
    const now = marks[1]![0] + 30;
    const one = under(marks).answer(now).last.middle;
    expect(under([...marks].reverse()).answer(now).last.middle).toBe(one);
    const struck = under([...marks, [now, { kind: 'struck', entryId: 'e3', why: 'tapped beside it' }]]);
    expect(struck.answer(now).marks).toHaveLength(1);
  });
});

describe('a mark that cannot be', () => {
  const at = (x: number, ms: number) => ({ x, y: 0.22, at: ms });
  test('beyond a place that was passed only later, or before one that was passed long ago', () => {
    expect(refusalOf(plan(), [at(0.4, 600_000)], at(0.9, 300_000))).toContain(
      'further back only 5 min later',
    );
    expect(refusalOf(plan(), [at(0.9, 300_000)], at(0.4, 600_000))).toContain('had to pass here first');
    expect(refusalOf(plan(), [at(0.4, 300_000)], at(0.9, 600_000))).toBeNull();
    expect(refusalOf(plan(), [], at(0.9, 1))).toBeNull();
  });
});

test('before the mix nothing is live', () => {
  const entries = logOf([[0, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }]]);
  expect(entries).toHaveLength(1);
  expect(under([]).clock.hasPressure).toBe(false);
});
