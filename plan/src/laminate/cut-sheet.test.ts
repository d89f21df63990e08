import { describe, expect, test } from '@jest/globals';
import { regionArea } from '@wick/core/geometry/overlay';
import { signedArea, type Point } from '@wick/core/geometry/polygon';
import Papa from 'papaparse';
import { cutCsv, cutSheetOf } from './cut-sheet.ts';
import { laidDemos } from '../test/laid-demos.ts';
import type { LaidJob } from '../job/laid.ts';
import { plyCutsOf } from './ply-book.ts';

const named = (name: string) => laidDemos.find((job) => job.name === name)!;
const gore = named('Dome gore 7');
const tray = named('Rescue sled tray');
const areaOf = (rings: readonly (readonly Point[])[]) =>
  rings.reduce((sum, ring) => sum + Math.abs(signedArea(ring)), 0);

describe('cut sheet', () => {
  test('pieces of each ply make up its area, holes taken out', () => {
    for (const job of laidDemos) {
      const { pieces } = cutSheetOf(job, 0);
      for (const cut of plyCutsOf(job)) {
        const own = pieces.filter(({ piece }) => piece.order === cut.order).map(({ piece }) => piece);
        const net = areaOf(own.map(({ outline }) => outline)) - areaOf(own.flatMap(({ holes }) => holes));
        expect(net).toBeCloseTo(regionArea(cut.region), 6);
      }
    }
  });

  test('every piece lies on the roll of its cloth, and the share used is area over roll', () => {
    for (const job of laidDemos)
      for (const roll of cutSheetOf(job, 0).rolls) {
        expect(roll.nest.tooWide).toEqual([]);
        for (const { shape, at } of roll.nest.placed)
          for (const { y } of shape.outline) {
            expect(at.y + y).toBeGreaterThan(-1e-9);
            expect(at.y + y).toBeLessThan(roll.width + 1e-9);
          }
        const shapes = roll.nest.placed.map(({ shape }) => shape);
        const net =
          areaOf(shapes.map(({ outline }) => outline)) - areaOf(shapes.flatMap(({ holes }) => holes));
        expect(roll.nest.usedShare).toBeCloseTo(net / (roll.nest.length * roll.width), 9);
        expect(roll.nest.usedShare).toBeLessThanOrEqual(1);
      }
  });

  test('labels run in lay order over zones; a patch is named by its zone', () => {
    const { pieces } = cutSheetOf(tray, 0);
    const numbers = pieces.map(({ label }) => Number.parseInt(label, 10));
    expect([...numbers].sort((a, b) => a - b)).toEqual(numbers);
    expect(pieces.filter(({ zone }) => zone === 'Lashing point')).toHaveLength(2);
  });

  test('a lap between pieces takes more roll; none takes as much as the plies', () => {
    const [plain, lapped] = [0, 0.05].map((overlap) => cutSheetOf(gore, overlap).rolls[0]!.nest.length);
    expect(lapped!).toBeGreaterThan(plain!);
  });

  test('a roll of unknown width is taken at a usual one, and said to be', () => {
    const unknown: LaidJob = {
      ...gore,
      materials: gore.materials.map((material) =>
        material.kind === 'fabric' ? { ...material, rollWidth: null } : material,
      ),
    };
    expect(cutSheetOf(unknown, 0).rolls.every((roll) => roll.isAssumedWidth)).toBe(true);
    expect(cutSheetOf(gore, 0).rolls.some((roll) => roll.isAssumedWidth)).toBe(false);
  });

  test('cores by area and the fewest sheets that hold it', () => {
    const { cores } = cutSheetOf(gore, 0);
    // 3.1 m2 of foam in sheets of 2.44 x 1.22 m.
    expect(cores).toHaveLength(1);
    expect(cores[0]!.sheets).toBe(Math.ceil(cores[0]!.area / (2.44 * 1.22)));
    expect(cutSheetOf(named('Kiosk fascia'), 0).cores).toEqual([]);
  });

  test('as a table: one row a piece, millimetres and degrees', () => {
    const rows = Papa.parse<string[]>(cutCsv(cutSheetOf(tray, 0))).data;
    expect(rows[0]).toEqual(['label', 'cloth', 'zone', 'angle_deg', 'length_mm', 'width_mm']);
    expect(rows).toHaveLength(1 + cutSheetOf(tray, 0).pieces.length);
    expect(rows[1]).toEqual(['1', 'Twill carbon 200', 'Base', '0', '1600', '600']);
    const quoted = { ...tray, zones: tray.zones.map((zone) => ({ ...zone, name: 'Pad, "left"' })) };
    expect(
      Papa.parse<string[]>(cutCsv(cutSheetOf(quoted, 0))).data.some((row) => row[2] === 'Pad, "left"'),
    ).toBe(true);
  });

  test('a job without plies has nothing to cut', () => {
    const bare: LaidJob = { ...gore, zones: [], laminate: { ...gore.laminate, plies: [] } };
    expect(cutSheetOf(bare, 0).pieces).toEqual([]);
  });
});
