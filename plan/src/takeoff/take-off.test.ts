import { describe, expect, test } from '@jest/globals';
import Papa from 'papaparse';
import readWorkbook from 'read-excel-file/universal';
import { demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import type { LaidJob } from '../job/laid.ts';
import { availablePressure } from '../laminate/stack.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { takeOffCsv, takeOffRows, takeOffWorkbook } from './sheet.ts';
import { takeOffOf } from './take-off.ts';
import type { TakeOffRequest } from './taken.ts';

const [gore, , plate, tray, fascia] = laidDemos as [LaidJob, LaidJob, LaidJob, LaidJob, LaidJob];
const request: TakeOffRequest = { shop: demoShop, materials: demoMaterials, people: 2, hours: 3 };
const taken = (job: LaidJob, name: string) =>
  takeOffOf(job, request).items.find((item) => item.name === name)!;

describe('take-off of the kerb plate, by hand', () => {
  // 1.3 x 0.45 m, flat; peel ply 20 mm past the edge, mesh short of the vent by 50 mm, tape from 30 to 42 mm.
  test('sheets by their rolls, tape with its corners, film for its blank', () => {
    const peel = taken(plate, 'Peel ply nylon 85');
    expect(peel.amount).toBeCloseTo(1.34 * 1.5, 3);
    expect(peel.weight).toBeCloseTo(1.34 * 1.5 * 0.085, 4);
    expect(peel.cost).toBeCloseTo(1.34 * 1.5 * 3.1, 2);
    expect(peel.why).toMatch(/0\.66 m² lie, 1\.34 m of a roll 1\.50 m wide/);
    expect(taken(plate, 'Net mesh open').amount).toBeCloseTo(1.3 * 1.5, 3);
    // The middle of the tape runs 36 mm outside; 50 mm of lap at each of four corners.
    expect(taken(plate, 'Sealant tape 12').amount).toBeCloseTo(2 * (1.372 + 0.522) + 4 * 0.05, 6);
    // 42 mm to the end of the tape and 30 mm to grasp at each end, 30 mm of slack.
    expect(taken(plate, 'Bag film 50').amount).toBeCloseTo((1.3 + 0.174) * (0.45 + 0.174), 6);
  });

  test('lines and hoses by the metre, fittings counted', () => {
    expect(taken(plate, 'Line 12 mm').amount).toBeCloseTo(0.39 + 0.35, 9);
    expect(taken(plate, 'Hose 12 mm').amount).toBeCloseTo(1.5, 9);
    expect(taken(plate, 'Bag fitting, quarter turn').amount).toBe(2);
    // One a hose, and one more at each feed to shut it with.
    expect(taken(plate, 'Hose clamp').amount).toBe(3);
  });

  test('resin to the gram: plies, opened plies, mesh, peel ply, line, hose, bucket and heel', () => {
    const load = availablePressure(plate, demoShop);
    const fraction = 0.53 * (load / 1e5) ** 0.05;
    const solid = (14 * 0.85) / 2550;
    const area = 1.3 * 0.45;
    const plies = area * (solid / fraction - solid);
    // Under half of the load they open by 2 to the unloading exponent.
    const opened = area * (solid / fraction) * (2 ** 0.02 - 1);
    // The vent is 0.35 m long: a strip of 50 mm before it, and a quarter disc at either end.
    const mesh = (area - 0.05 * 0.35 - (Math.PI / 2) * 0.05 ** 2) * 1.2e-3 * 0.86;
    const peel = 1.34 * 0.49 * 8e-5;
    const tubes = (Math.PI / 4) * 0.012 ** 2 * (0.39 + 1.5);
    const drawn = plies + opened + mesh + peel + tubes;
    // A film of 0.2 mm on bottom and wall of a bucket as tall as wide.
    const film = 2e-4 * 1.25 * Math.PI * Math.cbrt((4 * drawn) / Math.PI) ** 2;
    const mass = 1120 * (drawn + film) + 0.4;
    expect(Math.abs(taken(plate, 'Epoxy extra slow S5').amount - mass)).toBeLessThan(1e-3);
  });

  test('hands: a pair of gloves an hour each, two cups and a stick a batch', () => {
    expect(taken(plate, 'Nitrile gloves, pair').amount).toBe(6);
    expect(taken(plate, 'Measuring cup 1 L').amount).toBe(2);
    expect(taken(plate, 'Stirring stick').amount).toBe(1);
  });
});

describe('take-off', () => {
  test('a pleat takes twice its height of tape; a mould without a bag takes no fittings for it', () => {
    const flat = { ...tray, part: { ...tray.part, features: [] } };
    expect(taken(tray, 'Sealant tape 12').amount - taken(flat, 'Sealant tape 12').amount).toBeCloseTo(
      8 * 0.077,
      6,
    );
    expect(takeOffOf(fascia, request).items.some(({ name }) => name.startsWith('Bag fitting'))).toBe(false);
  });

  test('what comes back is paid for by the parts it serves', () => {
    const fitting = taken(plate, 'Bag fitting, quarter turn');
    expect(fitting.comesBack).toBe(true);
    expect(fitting.cost).toBeCloseTo((2 * 28) / 200, 9);
    const often = {
      ...plate,
      layers: plate.layers.map((layer) => (layer.kind === 'bag' ? { ...layer, uses: 10 } : layer)),
    };
    expect(taken(often, 'Bag film 50').cost! * 10).toBeCloseTo(taken(plate, 'Bag film 50').cost!, 9);
  });

  test('from the shelf as far as it goes; what sinks below its minimum is said', () => {
    // 1.5 m2 of peel ply and 60 m of tape lie on the demo shelf.
    const peel = taken(plate, 'Peel ply nylon 85');
    expect(peel.shelf).toEqual({
      inStock: 1.5,
      toBuy: expect.closeTo(peel.amount - 1.5, 9),
      isBelowMinimum: true,
    });
    expect(taken(plate, 'Sealant tape 12').shelf).toMatchObject({ toBuy: 0, isBelowMinimum: false });
    expect(taken(plate, 'Bag film 50').shelf).toBeNull();
  });

  test('a longer part takes more of everything that lies on it, and each thing says what asked for it', () => {
    for (const job of laidDemos) {
      const { items, cost, weight } = takeOffOf(job, request);
      for (const item of items) {
        expect(item.amount).toBeGreaterThan(0);
        expect(item.why).not.toBe('');
      }
      expect(cost).toBeCloseTo(
        items.reduce((sum, item) => sum + (item.cost ?? 0), 0),
        9,
      );
      expect(weight).toBeGreaterThan(0);
    }
    const longer = {
      ...plate,
      part: { ...plate.part, outline: plate.part.outline.map((p) => ({ ...p, x: 1.2 * p.x })) },
    };
    for (const name of ['Quad glass 850', 'Peel ply nylon 85', 'Sealant tape 12', 'Bag film 50'])
      expect(taken(longer, name).amount).toBeGreaterThan(taken(plate, name).amount);
  });

  test('the list goes out as CSV and XLSX and reads back as it was', async () => {
    const takeOff = takeOffOf(gore, request);
    const rows = takeOffRows(takeOff);
    const csv = Papa.parse<string[]>(takeOffCsv(takeOff)).data;
    expect(csv).toEqual(rows.map((row) => row.map((cell) => (cell === null ? '' : String(cell)))));
    const [sheet] = await readWorkbook(await takeOffWorkbook(takeOff));
    const read = sheet!.data as unknown as (string | number | null)[][];
    expect(read).toHaveLength(rows.length);
    read.forEach((row, n) => row.forEach((cell, k) => expect(cell ?? '').toEqual(rows[n]![k] ?? '')));
  });

  test('a name that looks like a formula is written as text', () => {
    const job = {
      ...plate,
      materials: plate.materials.map((own) => (own.id === 'peel-nylon' ? { ...own, name: '=1+1' } : own)),
    };
    expect(takeOffCsv(takeOffOf(job, request))).toContain("'=1+1");
  });
});
