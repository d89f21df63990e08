import { describe, expect, test } from '@jest/globals';
import { demoShop } from '../demo/jobs.ts';
import { laidDemos } from '../test/laid-demos.ts';
import { demoMaterials } from '../demo/materials.ts';
import { problemOf } from '../forecast/problem.ts';
import { hoseOfLine, hoseOfTee, hoseRunsOf, inletOf, stationOf } from './hoses.ts';
import type { JobLine } from '@wick/contract/job/job';
import type { LaidJob } from '../job/laid.ts';
import { ledgerRequestOf } from '../resin/ledger.ts';
import { partSums } from '../laminate/ply-book.ts';

const gore = laidDemos[0]!;
const pot = { id: 'pot-1', kind: 'pot' as const, name: 'Pot 1', place: { x: -1, y: 0.6 }, level: null };
const pump = { id: 'pump-1', kind: 'pump' as const, name: 'Pump 1', place: { x: 4, y: 0.6 }, level: null };
const tee = { id: 'tee-1', name: 'Tee 1', place: { x: 0, y: 0.6 }, hoseLength: null, hoseBore: 0.02 };
const withLines = (change: (line: JobLine) => Partial<JobLine>, more: Partial<LaidJob> = {}): LaidJob => ({
  ...gore,
  ...more,
  lines: gore.lines.map((line) => ({ ...line, ...change(line) })),
});

describe('hoses of a layout', () => {
  test('feeds have one each; a vent where a pump stands or a length is typed', () => {
    expect(hoseRunsOf(gore).map(({ id }) => id)).toEqual(['feed-1', 'feed-2', 'feed-3']);
    const pumped = hoseRunsOf({ ...gore, stations: [pump] });
    expect(pumped.map(({ id, kind }) => [id, kind]).at(-1)).toEqual(['vent-1', 'vent']);
    // 0.6 m from the pump to the middle of the vent at 3.4, 0.6, with 15 % slack.
    expect(pumped.at(-1)!.length).toBeCloseTo(1.15 * 0.6, 9);
    expect(
      hoseRunsOf(withLines(({ kind }) => (kind === 'vent' ? { hoseLength: 2 } : {}))).at(-1)!.length,
    ).toBe(2);
  });

  test('behind a tee a line is as far as the tee, and the tee as far as the pot', () => {
    const job = withLines(({ kind }) => (kind === 'feed' ? { tee: 'tee-1' } : {}), {
      tees: [tee],
      stations: [pot],
    });
    expect(hoseOfLine(job, job.lines[1]!).length).toBeCloseTo(1.15 * 0.9, 9);
    expect(hoseOfTee(job, tee)).toMatchObject({ length: expect.closeTo(1.15, 9), isMeasured: true });
    expect(hoseOfTee({ ...job, stations: [] }, tee)).toMatchObject({ length: 1.2, isMeasured: false });
    expect(hoseOfTee(job, { ...tee, hoseLength: 4 }).length).toBe(4);
    const request = problemOf(job, demoShop, { layers: false, soft: false });
    expect(request.tees![0]!.hose).toEqual({ length: expect.closeTo(1.15, 9), bore: 0.02 });
    expect(request.lines[1]!.hose).toMatchObject({ length: expect.closeTo(1.035, 9), tee: 'tee-1' });
  });

  test('a chosen pot or pump comes before the first of its kind', () => {
    const other = { ...pot, id: 'pot-2', place: { x: 0.12, y: -1 } };
    const job = withLines(({ id }) => (id === 'feed-1' ? { stationId: 'pot-2' } : {}), {
      stations: [pot, other],
    });
    expect(stationOf(job, job.lines[0]!)!.id).toBe('pot-2');
    expect(stationOf(job, job.lines[1]!)!.id).toBe('pot-1');
    expect(stationOf(job, job.lines[3]!)).toBeNull();
  });

  test('the hose joins where the line says, and its bore is typed, of its stock, or the usual', () => {
    const [feed] = gore.lines;
    expect(inletOf({ ...feed!, inlet: 0 })).toEqual({ x: 0.12, y: 0.15 });
    expect(inletOf({ ...feed!, points: [{ x: 1, y: 1 }] })).toEqual({ x: 1, y: 1 });
    const stocked = {
      ...gore,
      materials: [...gore.materials, ...demoMaterials.filter(({ id }) => id === 'hose-8')],
    };
    expect(hoseOfLine(stocked, { ...feed!, hoseId: 'hose-8' }).bore).toBe(0.008);
    expect(hoseOfLine(stocked, { ...feed!, hoseId: 'hose-8', hoseBore: 0.01 }).bore).toBe(0.01);
    expect(hoseOfLine(gore, feed!).bore).toBe(0.012);
  });

  test('the resin ledger counts every feed hose, and none that leads to the pump', () => {
    const request = ledgerRequestOf({ ...gore, stations: [pump] }, partSums(gore, demoShop));
    const hoses = request.items.filter(({ what }) => what === 'hose');
    // 1.2 m of 12 mm each.
    const bore = (Math.PI / 4) * 0.012 ** 2;
    expect(hoses.map(({ volume }) => volume / bore)).toEqual([1, 1, 1].map(() => expect.closeTo(1.2, 9)));
    expect(hoses.map(({ sources }) => sources[0]!.id)).toEqual(['feed-1', 'feed-2', 'feed-3']);
  });
});
