import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import {
  developedLength,
  filletSaving,
  lengthOverPlan,
  mouldLine,
  pointsAlong,
  slopeExcess,
  type Climb,
} from './section.ts';

const RIGHT = Math.PI / 2;
const mm = 1e-3;

/** Sections with as many climbs as they have room for, each wider apart than its own slope and roundings. */
const anyClimb = fc.record({
  gap: fc.double({ min: 0.05, max: 0.5, noNaN: true }),
  height: fc.double({ min: 5 * mm, max: 0.3, noNaN: true }),
  isDown: fc.boolean(),
  angle: fc.double({ min: 0.3, max: RIGHT, noNaN: true }),
  rounding: fc.double({ min: 0, max: 0.9, noNaN: true }),
});
const anySection = fc.array(anyClimb, { maxLength: 5 }).map((given) => {
  let at = 0;
  const climbs = given.map(({ gap, height, isDown, angle, rounding }): Climb => {
    // Both roundings together may take the whole slope.
    const most = height / Math.sin(angle) / Math.tan(angle / 2) / 2;
    const radius = rounding * Math.min(most, gap / 3);
    at += gap + radius;
    const climb = { at, height: isDown ? -height : height, angle, foot: radius, top: radius };
    at += height / Math.tan(angle) + radius;
    return climb;
  });
  return { plan: at + 0.3, climbs };
});

describe('developed length of a section', () => {
  test('a slope of 40 mm needs 40.0 mm at a right angle, 16.6 mm at 45 degrees', () => {
    // A wall adds its height; a slope its own length less the run below it: H / sin - H / tan.
    expect(slopeExcess({ height: 40 * mm, angle: RIGHT }) / mm).toBeCloseTo(40, 9);
    const own = 40 / Math.sin(Math.PI / 4) - 40 / Math.tan(Math.PI / 4);
    expect(slopeExcess({ height: 40 * mm, angle: Math.PI / 4 }) / mm).toBeCloseTo(own, 9);
    expect(own).toBeCloseTo(16.6, 1);
  });

  test('a fillet of 10 mm at a right angle gives back 4.3 mm: two legs of 10 less a quarter of the circle', () => {
    expect(filletSaving(10 * mm, RIGHT) / mm).toBeCloseTo(20 - (Math.PI / 2) * 10, 9);
    expect(20 - (Math.PI / 2) * 10).toBeCloseTo(4.3, 1);
  });

  test('a box of 40 mm with fillets of 10 mm: what its net has, arcs and straights added by hand', () => {
    const wall = { angle: RIGHT, foot: 10 * mm, top: 10 * mm };
    const section = {
      plan: 0.6,
      climbs: [
        { ...wall, at: 0.1, height: 40 * mm },
        { ...wall, at: 0.5, height: -40 * mm },
      ],
    };
    // 90 level, a quarter round 10, 20 up, a quarter, 380 level, and the same down again.
    const quarter = (Math.PI / 2) * 10;
    const byHand = 2 * (90 + quarter + 20 + quarter) + 380;
    expect(developedLength(mouldLine(section)) / mm).toBeCloseTo(byHand, 9);
    expect(lengthOverPlan(section) / mm).toBeCloseTo(byHand - 600, 9);
  });

  test('random sections: the chain is as long as the closed form, and ends where the plan ends, level with what it climbed', () => {
    fc.assert(
      fc.property(anySection, (section) => {
        const line = mouldLine(section);
        expect(developedLength(line)).toBeCloseTo(section.plan + lengthOverPlan(section), 9);
        const end = pointsAlong(line).at(-1)!;
        expect(end.x).toBeCloseTo(section.plan, 9);
        expect(end.z).toBeCloseTo(
          section.climbs.reduce((sum, { height }) => sum + height, 0),
          9,
        );
      }),
    );
  });

  test('a climb that does not fit is refused, with its place', () => {
    const wall = { at: 0.05, height: 40 * mm, angle: RIGHT, foot: 0.1, top: 0 };
    expect(() => mouldLine({ plan: 1, climbs: [wall] })).toThrow(/0\.050 m does not fit/);
    const slope = { at: 0.9, height: 0.3, angle: 0.5, foot: 0, top: 0 };
    expect(() => mouldLine({ plan: 1, climbs: [slope] })).toThrow(/over its end/);
    expect(() => mouldLine({ plan: NaN, climbs: [] })).toThrow(/Length of the section/);
  });
});
