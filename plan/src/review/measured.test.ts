import { describe, expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { NINE_IN_TEN } from '@wick/core/verdict/verdict';
import { demoShop } from '../demo/jobs.ts';
import { demo, logOf, plate } from '../infusion/test/plate.ts';
import type { LaidJob } from '../job/laid.ts';
import { ledgerOf } from '../resin/ledger.ts';
import { runStateOf } from '../run/state.ts';
import { weightWords } from './compared-part.ts';
import { comparedOf } from './measured.ts';
import { plannedPartOf } from './planned-part.ts';

const tray = demo('Rescue sled tray');
const said = (job: LaidJob, ...bodies: EntryBody[]) =>
  comparedOf(job, demoShop, runStateOf(logOf(bodies.map((body, n) => [n, body]))), null);
const weighed = (mass: number, more: Partial<Extract<EntryBody, { kind: 'weighed' }>> = {}): EntryBody => ({
  ...{ kind: 'weighed', what: 'part', mass, flange: 'off', isTrimmed: true, ...more },
});
const find = (list: ReturnType<typeof comparedOf>, id: string) => list.find((one) => one.id.startsWith(id))!;

describe('weight', () => {
  const planned = plannedPartOf(tray, demoShop)!;

  test('planned by its own fibre, core and resin', () => {
    expect(planned.mass).toBeCloseTo(planned.fibre + planned.core + planned.resin, 9);
    expect(planned.fraction).toBeGreaterThan(0.2);
    expect(planned.fraction).toBeLessThan(0.7);
  });

  test('the starved panel: 340 g estimated, 266 g weighed (common practice, no source)', () => {
    const plain: LaidJob = { ...tray, zones: [], part: { ...tray.part, holes: [] } };
    // The same laminate on so much less area that it comes to 340 g.
    const by = Math.sqrt(0.34 / plannedPartOf(plain, demoShop)!.mass);
    const outline = plain.part.outline.map((corner) => ({ ...corner, x: by * corner.x, y: by * corner.y }));
    const small: LaidJob = { ...plain, part: { ...plain.part, outline } };
    const estimate = plannedPartOf(small, demoShop)!.mass;
    expect(estimate / 0.34).toBeCloseTo(1, 1);
    const rows = said(small, weighed((0.266 / 0.34) * estimate));
    const weight = find(rows, 'weight');
    expect(weight.isInside).toBe(false);
    expect(weight.means).toBe('22 % lighter than planned: starved, unless it was cut smaller.');
    expect(find(rows, 'fraction').means).toContain('drier');
  });

  test('as planned within the doubt says nothing; heavy is said to be', () => {
    const rows = said(tray, weighed(planned.mass + 0.5 * planned.doubt));
    expect(find(rows, 'weight')).toMatchObject({ isInside: true, means: '' });
    expect(find(rows, 'fraction').isInside).toBe(true);
    expect(find(said(tray, weighed(1.4 * planned.mass)), 'weight').means).toContain('40 % heavier');
    expect(weightWords('low', -0.03)).toBe('3 % lighter than planned.');
  });

  test('with the flange on, or not trimmed, it is not held against the plan, and says what to do', () => {
    for (const more of [{ flange: 'on' as const }, { isTrimmed: false }]) {
      const row = find(said(tray, weighed(2 * planned.mass, more)), 'weight');
      expect(row.isInside).toBeNull();
      expect(row.means).toContain('Trim it');
    }
  });

  test('lighter than its own fibre: no fibre volume is made up of it', () => {
    const rows = said(tray, weighed(0.9 * (planned.fibre + planned.core)));
    expect(rows).toHaveLength(1);
    expect(rows[0]!.means).toContain('no more than its fibre');
  });

  test('weighed again: the last one counts', () => {
    expect(
      said(tray, weighed(1), weighed(planned.mass)).filter(({ id }) => id.startsWith('weight')),
    ).toHaveLength(1);
  });
});

describe('thickness and coupons', () => {
  const planned = plannedPartOf(plate, demoShop)!;
  const middle = { x: 0.5, y: 0.2 };
  const here = planned.at(middle)!;

  test('a fifth thinner: outside, and its fibre volume the plan’s over 0.8 (ASTM D3171 II)', () => {
    const rows = said(plate, { kind: 'gauged', ...middle, thickness: 0.8 * here.thickness });
    expect(find(rows, 'thickness')).toMatchObject({ isInside: false });
    expect(find(rows, 'thickness').means).toContain('20 % thinner');
    expect(find(rows, 'fraction').measured).toBeCloseTo(here.fraction / 0.8, 2);
  });

  test('within what a laminate scatters it is inside', () => {
    const thickness = here.thickness * Math.exp(0.9 * NINE_IN_TEN * planned.scatter);
    expect(find(said(plate, { kind: 'gauged', ...middle, thickness }), 'thickness').isInside).toBe(true);
  });

  test('beside the part nothing is planned, and nothing judged', () => {
    expect(
      find(said(plate, { kind: 'gauged', x: 50, y: 50, thickness: 0.003 }), 'thickness').isInside,
    ).toBeNull();
  });

  test('a coupon with three in a hundred of voids says so', () => {
    const { fibre, resin } = planned.densities;
    const [f, v] = [planned.fraction, 0.06];
    const density = f * fibre + (1 - f - v) * resin;
    const rows = said(plate, {
      ...{ kind: 'burned', how: 'burned', mass: 2e-3, density },
      left: (2e-3 * f * fibre) / density,
    });
    expect(find(rows, 'burn')).toMatchObject({ isInside: true });
    expect(find(rows, 'burn').measured).toBeCloseTo(f, 6);
    expect(find(rows, 'voids').measured).toBeCloseTo(0.06, 6);
    expect(find(rows, 'voids').isInside).toBe(false);
  });
});

describe('resin and vacuum', () => {
  test('drawn is what was mixed less what was left', () => {
    const ledger = ledgerOf(plate, demoShop)!;
    const rows = said(
      plate,
      { kind: 'mixed', mass: null },
      { kind: 'batchPoured', mass: ledger.total },
      {
        kind: 'weighed',
        what: 'resinLeft',
        mass: ledger.total - 0.6 * ledger.drawn,
        flange: null,
        isTrimmed: false,
      },
    );
    expect(find(rows, 'mixed').isInside).toBe(true);
    expect(find(rows, 'drawn').measured).toBeCloseTo(0.6 * ledger.drawn, 9);
    expect(find(rows, 'drawn')).toMatchObject({ isInside: false });
    expect(find(rows, 'drawn').means).toContain('stayed dry');
  });

  test('a leak within its limit passes however small; beyond it says so', () => {
    const judged = (value: number): EntryBody => ({
      ...{ kind: 'judged', shutId: 'e0', verdict: 'passes', throughputLimit: 1e-3, freeVolume: 0.01 },
      throughput: { value, low: 0.9 * value, high: 1.1 * value },
      ...{ start: 2000, duration: 900, voids: 0.001 },
    });
    expect(find(said(plate, { kind: 'shut' }, judged(1e-6)), 'leak').isInside).toBe(true);
    expect(find(said(plate, { kind: 'shut' }, judged(3e-3)), 'leak').means).toContain('More than this part');
  });

  test('nothing measured, nothing compared', () => {
    expect(said(plate)).toEqual([]);
  });
});
