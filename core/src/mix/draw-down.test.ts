import { describe, expect, test } from '@jest/globals';
import { drawDown, drawnAt, timeDrawn, type Drawn } from './draw-down.ts';

const MINUTE = 60;
/** Darcy in one direction at constant pressure: what has been drawn goes with the root of time. */
const strip: Drawn = {
  times: Array.from({ length: 201 }, (_, i) => 60 * MINUTE * (i / 200) ** 2),
  masses: Array.from({ length: 201 }, (_, i) => 10 * (i / 200)),
};

describe('draw-down', () => {
  test('a strip that takes 10 kg in 60 min has drawn 5 kg at 15.0 and 7.5 kg at 33.75 min (Darcy, closed form)', () => {
    expect(timeDrawn(strip, 5) / MINUTE).toBeCloseTo(15, 6);
    expect(timeDrawn(strip, 7.5) / MINUTE).toBeCloseTo(33.75, 6);
    expect(drawnAt(strip, 15 * MINUTE)).toBeCloseTo(5, 6);
    expect(drawnAt(strip, -1)).toBe(0);
    expect(drawnAt(strip, 1e9)).toBe(10);
    expect(timeDrawn(strip, 10.1)).toBe(Infinity);
  });

  test('two batches: the floor is reached when the first but for the heel is gone, the second lifts it, 0.5 kg stay', () => {
    const pours = [
      { time: 0, mass: 5.5 },
      { time: 14 * MINUTE, mass: 5 },
    ];
    const { line, least, dryAt, most, left } = drawDown(strip, pours, 0.4);
    expect(dryAt).toBeNull();
    // 10 sqrt(14 / 60) have gone by the second pour; the end is lower still.
    const before = 5.5 - 10 * Math.sqrt(14 / 60);
    const at = line.filter(({ time }) => time === 14 * MINUTE).map(({ mass }) => mass);
    expect(at[0]).toBeCloseTo(before, 3);
    expect(at[1]).toBeCloseTo(before + 5, 3);
    expect(left).toBeCloseTo(0.5, 9);
    expect(least.mass).toBeCloseTo(0.5, 9);
    expect(most.mass).toBeCloseTo(before + 5, 3);
  });

  test('a second batch that comes too late: dry from the minute at which 5.1 kg have gone until it is in', () => {
    const pours = [
      { time: 0, mass: 5.5 },
      { time: 20 * MINUTE, mass: 5 },
    ];
    const { dryAt, least } = drawDown(strip, pours, 0.4);
    expect(dryAt! / MINUTE).toBeCloseTo(60 * 0.51 ** 2, 2);
    expect(least.mass).toBeCloseTo(5.5 - 10 * Math.sqrt(20 / 60), 2);
  });

  test('nothing drawn and nothing poured are no fault; a pot poured after its feed opened is dry from the start', () => {
    expect(drawDown({ times: [], masses: [] }, [], 0.4)).toMatchObject({ line: [], dryAt: null, left: 0 });
    expect(drawDown(strip, [{ time: 60, mass: 11 }], 0.4).dryAt).toBe(0);
    // Gelled before the feed opened: nothing is drawn, so nothing runs dry.
    const still = drawDown({ times: [], masses: [] }, [{ time: 5, mass: 2 }], 0.4);
    expect(still).toMatchObject({ left: 2, dryAt: null });
  });
});
