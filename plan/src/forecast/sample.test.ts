import { sidesOf } from '@wick/core/geometry/sides';
import { describe, expect, test } from '@jest/globals';
import { summariseEnsemble } from '@wick/core/verdict/ensemble';
import { demoShop } from '../demo/jobs.ts';
import { faultInLaid, laidDemos } from '../test/laid-demos.ts';
import type { LaidJob } from '../job/laid.ts';
import { drawJob, needsSolving, sampleJob } from './sample.ts';

const spinner = laidDemos[1] as LaidJob;
const sure: LaidJob = {
  ...spinner,
  doubt: {
    permeability: 1,
    viscosity: 1,
    gelTime: 1,
    temperature: 0,
    thickness: 1,
    raceChance: 0,
    raceGap: null,
  },
};

describe('drawing a job from its doubt', () => {
  test('a job without doubt is drawn as it is, and needs no solving', () => {
    const { drawn } = drawJob(sure, demoShop, 5);
    expect(needsSolving(sure)).toBe(false);
    expect(needsSolving(spinner)).toBe(true);
    expect(drawn.lines).toEqual(sure.lines);
    expect(drawn.materials).toEqual(sure.materials);
    expect(drawn.resin.temperature).toBeCloseTo(demoShop.temperature, 9);
  });

  test('every draw is a valid job; one in ten lies beyond either end of a factor', () => {
    const factors = Array.from({ length: 200 }, (_, i) => {
      const { drawn } = drawJob(
        { ...sure, doubt: { ...sure.doubt, permeability: 1.4, raceChance: 0.3 } },
        demoShop,
        i,
      );
      expect(faultInLaid(drawn)).toBe('');
      const mesh = (job: LaidJob) =>
        job.materials.find(({ kind }) => kind === 'flowMesh') as { permeability: number };
      return mesh(drawn).permeability / mesh(sure).permeability;
    });
    expect(factors.filter((f) => f > 1.4).length).toBeGreaterThan(14);
    expect(factors.filter((f) => f > 1.4).length).toBeLessThan(26);
    expect(factors.filter((f) => f < 1 / 1.4).length).toBeGreaterThan(14);
  });

  test('a race runs along the sides between corners', () => {
    const square = [
      { x: 0, y: 0 },
      { x: 2, y: 0 },
      { x: 2, y: 0.5 },
      { x: 2, y: 1 },
      { x: 0, y: 1 },
    ];
    const sides = sidesOf(square);
    expect(sides).toHaveLength(4);
    expect(sides[0]).toHaveLength(2);
    expect(sides.find((side) => side.length === 3)).toEqual([square[1], square[2], square[3]]);
  });
});

test('runs over the doubt: less permeable is slower, and permeability drives the spread', () => {
  const job = { ...spinner, doubt: { ...sure.doubt, permeability: 2 } };
  const samples = Array.from({ length: 9 }, (_, i) => sampleJob(job, demoShop, i));
  const summary = summariseEnsemble(samples, 0.1);
  expect(summary.chance).toBe(1);
  expect(summary.drivers[0]!.input).toBe('permeability');
  expect(summary.drivers[0]!.correlation).toBeLessThan(-0.95);
  expect(summary.fill.late).toBeGreaterThan(summary.fill.early);
});
