import { describe, expect, test } from '@jest/globals';
import { rectangle } from '@wick/core/geometry/shapes';
import fc from 'fast-check';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { demoMaterials } from '../demo/materials.ts';
import { forecastJob } from '../forecast/assess.ts';
import { laidOut, type LaidJob } from '../job/laid.ts';
import { jobWithShape } from '../job/new-job.ts';
import { bareLine } from '../layout/edits.ts';
import { newLayer } from '../stack/edits.ts';
import { anyEdit } from '../test/any-edit.ts';
import { ledgerOf } from './ledger.ts';
import { quickRuleWords } from './words.ts';
import { weightsOf } from './weights.ts';

const named = (name: string) => laidOut(demoJobs.find((job) => job.name === name)!);
const grams = (mass: number) => Math.round(1000 * mass);

/** A square metre of four plies of 850 g/m2 glass at half fibre, peel ply all over, one feed with a metre of hose. */
const start = jobWithShape({ name: 'Plate', outline: rectangle({ length: 1, width: 1 }) });
const plate: LaidJob = {
  ...laidOut(start),
  // Between two halves, so that the plies stay as thick as the target says.
  process: 'closedMould',
  laminate: {
    ...start.laminate,
    plies: [1, 2, 3, 4].map((n) => ({ id: `ply-${n}`, materialId: 'quad-glass-850', angle: 0, inset: 0 })),
    fibreVolumeFraction: 0.5,
  },
  layers: [newLayer('peelPly', 'peel-nylon', 'peel')],
  lines: [
    {
      ...bareLine(
        'feed',
        [
          { x: 0, y: 0.1 },
          { x: 0, y: 0.9 },
        ],
        'feed-1',
      ),
      bore: 0.01,
      hoseLength: 1,
      hoseBore: 0.008,
    },
    bareLine(
      'vent',
      [
        { x: 1, y: 0.1 },
        { x: 1, y: 0.9 },
      ],
      'vent-1',
    ),
  ],
  resin: { ...start.resin, materialId: 'epoxy-slow-s3', heel: 0.3 },
  materials: demoMaterials.filter(({ id }) => ['quad-glass-850', 'peel-nylon', 'epoxy-slow-s3'].includes(id)),
};

describe('ledger of a square metre, by hand', () => {
  const ledger = ledgerOf(plate, demoShop)!;
  const massOf = (name: string) => grams(ledger.rows.find((row) => row.name === name)!.mass);
  // 1130 kg/m3; 3.4 kg/m2 of glass of 2550 kg/m3 at one half leave as much of its volume to the resin.
  const plies = 1130 * (3.4 / 2550);
  const layer = plate.layers[0]!.covers;
  const reach = layer.kind === 'part' ? 1 + 2 * layer.edge : NaN;
  const peel = 1130 * 8e-5 * reach ** 2;
  const line = 1130 * (Math.PI / 4) * 0.01 ** 2 * 0.8;
  const hose = 1130 * (Math.PI / 4) * 0.008 ** 2 * 1;

  test('every line to the gram', () => {
    expect(massOf('Plies')).toBe(grams(plies));
    expect(grams(plies)).toBe(1507);
    expect(massOf('Peel ply nylon 85')).toBe(grams(peel));
    expect(massOf(plate.lines[0]!.name)).toBe(71);
    expect(grams(line)).toBe(71);
    expect(massOf(`Hose to ${plate.lines[0]!.name}`)).toBe(57);
    expect(grams(hose)).toBe(57);
    expect(massOf('Heel in the pot')).toBe(300);
    const drawn = plies + peel + line + hose;
    // 0.2 mm of film on bottom and wall of a bucket as tall as wide.
    const cup = 1130 * 2e-4 * 1.25 * Math.PI * Math.cbrt((4 * drawn) / 1130 / Math.PI) ** 2;
    expect(grams(ledger.total)).toBe(grams(drawn + cup + 0.3));
    expect(ledger.quickRule).toBeCloseTo(3.4 + 1, 9);
  });

  test('each line says what asks for it', () => {
    const sourceOf = (name: string) => ledger.rows.find((row) => row.name === name)!.sources;
    expect(sourceOf('Plies')).toEqual([{ kind: 'part', id: null }]);
    expect(sourceOf('Peel ply nylon 85')).toEqual([{ kind: 'layer', id: plate.layers[0]!.id }]);
    expect(sourceOf(plate.lines[0]!.name)).toEqual([{ kind: 'line', id: 'feed-1' }]);
  });

  test('why the quick rule says otherwise', () => {
    const words = quickRuleWords(ledger, (mass) => `${grams(mass)} g`);
    expect(words).toMatch(/as much resin as fibre, 3400 g; these plies hold 1507 g/);
    expect(words).toMatch(new RegExp(`${grams(4.4 - ledger.total)} g would be left over`));
  });
});

test('over any edits the lines add up, none is below nothing, and what they name is on the plan', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...demoJobs),
      fc.uniqueArray(fc.integer(), { maxLength: 10 }),
      (first, seeds) => {
        const job = laidOut(seeds.reduce((known, seed) => anyEdit(known, seed).edit(known), first));
        const ledger = ledgerOf(job, demoShop);
        if (!ledger) return;
        expect(ledger.rows.reduce((sum, { mass }) => sum + mass, 0)).toBeCloseTo(ledger.total, 9);
        expect(ledger.resin + ledger.hardener).toBeCloseTo(ledger.total, 9);
        const ids = new Set(
          [...job.zones, ...job.layers, ...job.lines, ...job.tees, ...job.stations].map(({ id }) => id),
        );
        for (const { mass, sources } of ledger.rows) {
          expect(mass).toBeGreaterThan(0);
          for (const { id } of sources) if (id !== null) expect(ids).toContain(id);
        }
      },
    ),
    { numRuns: 40 },
  );
});

describe('what the scale will say', () => {
  const tray = named('Rescue sled tray');

  test('fibre, core and resin make the part; what is thrown away is counted apart', () => {
    const weights = weightsOf(plate, demoShop)!;
    expect(weights.fibre).toBeCloseTo(3.4, 9);
    expect(weights.resin).toBeCloseTo(1130 * (3.4 / 2550), 6);
    expect(weights.asLaid).toBeCloseTo(weights.fibre + weights.resin, 9);
    expect(weights.trimmed).toBeCloseTo(weights.asLaid, 9);
    const ledger = ledgerOf(plate, demoShop)!;
    const heel = ledger.rows.filter(({ where }) => where === 'pot').reduce((sum, { mass }) => sum + mass, 0);
    expect(weights.resin + weights.resinInConsumables + weights.catchPot + heel).toBeCloseTo(ledger.total, 9);
  });

  test('a rim of 50 mm off a square metre leaves 81 hundredths of it', () => {
    const trimmed = weightsOf({ ...plate, part: { ...plate.part, trim: 0.05 } }, demoShop)!;
    expect(trimmed.trimmed / trimmed.asLaid).toBeCloseTo(0.81, 6);
  });

  test('a brake is not part of what is trimmed out; what the vents draw stands in the catch pot', () => {
    const gore = named('Dome gore 7');
    const flow = forecastJob(gore, demoShop, { nodeCount: 300, steps: 20, layers: false });
    const weights = weightsOf(gore, demoShop, flow)!;
    expect(weights.catchPot).toBeCloseTo(1060 * flow.vented, 9);
    expect(weights.core).toBeGreaterThan(0);
    expect(weights.trimmed).toBeLessThanOrEqual(weights.asLaid + 1e-9);
    expect(weightsOf(tray, demoShop)!.unknown.length).toBeGreaterThan(0);
    expect(weightsOf({ ...tray, laminate: { ...tray.laminate, plies: [] } }, demoShop)).toBeNull();
  });
});
