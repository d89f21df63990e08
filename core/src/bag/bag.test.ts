import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { filmLacking, filmRadius, lockedRadius, pocketArea, pocketGap, reaches } from './bridging.ts';
import { filmCut, filmNeeded, pleatsOf, tapeLength } from './pleats.ts';
import { developedLength, mouldLine, type MouldSection } from './section.ts';

const RIGHT = Math.PI / 2;
const mm = 1e-3;
const box = (height: number, rounding = 0): MouldSection => ({
  plan: 0.6,
  climbs: [
    { at: 0.1, height, angle: RIGHT, foot: rounding, top: rounding },
    { at: 0.5, height: -height, angle: RIGHT, foot: rounding, top: rounding },
  ],
});

describe('pleats', () => {
  test('a flat part asks for none, and for no more tape than its edge', () => {
    const flat = { plan: 1.2, climbs: [] };
    expect(pleatsOf(flat)).toEqual([]);
    expect(filmNeeded(flat)).toBe(0);
    expect(tapeLength(4, pleatsOf(flat))).toBe(4);
  });

  test('a box of 40 mm: one at each wall, 44 mm high, and twice that more tape each', () => {
    const pleats = pleatsOf(box(40 * mm));
    expect(pleats.map(({ at, height }) => [at, height / mm])).toEqual([
      [0.1, expect.closeTo(44, 9)],
      [0.5, expect.closeTo(44, 9)],
    ]);
    expect(tapeLength(3, pleats) - 3).toBeCloseTo(4 * 44 * mm, 9);
  });

  test('random boxes: the pleats hold 1.2 times what the net of the box has over its plan', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5 * mm, max: 0.2, noNaN: true }),
        fc.double({ min: 0, max: 0.4, noNaN: true }),
        (height, share) => {
          const section = box(height, share * height);
          const over = developedLength(mouldLine(section)) - section.plan;
          const held = 2 * pleatsOf(section).reduce((sum, pleat) => sum + pleat.height, 0);
          expect(held).toBeGreaterThanOrEqual(1.2 * over - 1e-12);
        },
      ),
    );
  });

  test('random sections: film is never shorter than the mould line', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 5 * mm, max: 0.2, noNaN: true }),
        fc.double({ min: 0, max: 0.2, noNaN: true }),
        (height, slack) => {
          const developed = developedLength(mouldLine(box(height)));
          expect(filmCut(developed, { flange: 0.05, tape: 0.012, slack })).toBeGreaterThan(developed);
        },
      ),
    );
  });
});

describe('bridging', () => {
  const film = { thickness: 50e-6, strength: 35e6, elongation: 4 };

  test('a film of 50 um that yields at 35 MPa spans a radius of 18.4 mm under 95 kPa', () => {
    // Membrane: the tension a width over the pressure.
    expect(filmRadius(film, 95e3) / mm).toBeCloseTo((35e6 * 50e-6) / 95, 6);
    expect((35e6 * 50e-6) / 95).toBeCloseTo(18.4, 1);
  });

  test('what it lacks is the two legs less the arc, and stretches out of a free length', () => {
    const corner = { radius: 3 * mm, turn: RIGHT };
    const lacking = filmLacking(corner, 10 * mm);
    // From R 10 to r 3 at a right angle: 7 (2 - pi / 2).
    expect(lacking / mm).toBeCloseTo(7 * (2 - Math.PI / 2), 9);
    expect(filmLacking(corner, 2 * mm)).toBe(0);
    expect(reaches(film, corner, 10 * mm, lacking / 0.99)).toBe(true);
    expect(reaches({ ...film, elongation: 0.04 }, corner, 10 * mm, lacking / 0.02)).toBe(false);
  });

  test('plies pressed on a leg of 100 mm at a friction of 0.3 are locked below 30 mm', () => {
    expect(lockedRadius(0.3, 0.1) / mm).toBeCloseTo(30, 9);
  });

  test('the pocket between R 10 and r 3 at a right angle: square corner less quarter disc, 19.5 mm2', () => {
    const corner = { radius: 3 * mm, turn: RIGHT };
    const byHand = 10 ** 2 - (Math.PI / 4) * 10 ** 2 - (3 ** 2 - (Math.PI / 4) * 3 ** 2);
    expect(pocketArea(corner, 10 * mm) / mm ** 2).toBeCloseTo(byHand, 9);
    expect(byHand).toBeCloseTo(19.5, 1);
    expect(pocketGap(corner, 10 * mm) ** 2 / mm ** 2).toBeCloseTo(byHand, 9);
    expect(pocketArea(corner, 2 * mm)).toBe(0);
  });
});
