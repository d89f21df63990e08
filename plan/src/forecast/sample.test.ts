import { sidesOf } from '@wick/core/geometry/sides';
import { describe, expect, test } from '@jest/globals';
import { polygonOf } from '@wick/core/geometry/arcs';
import { rankCorrelation, summariseEnsemble } from '@wick/core/verdict/ensemble';
import { demoShop } from '../demo/jobs.ts';
import { faultInLaid, laidDemos } from '../test/laid-demos.ts';
import type { LaidJob } from '../job/laid.ts';
import { drawJob } from './draw.ts';
import { needsSolving, sampleJob } from './sample.ts';

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

  test('each side races by its own chance: never all of them at once because one does', () => {
    const chanceOf = 0.15;
    const racing = Array.from({ length: 400 }, (_, i) =>
      drawJob({ ...sure, doubt: { ...sure.doubt, raceChance: chanceOf } }, demoShop, i)
        .drawn.lines.filter(({ kind }) => kind === 'race')
        .map(({ id }) => id),
    );
    const sides = sidesOf(polygonOf(spinner.part.outline)).length;
    for (let side = 0; side < sides; side++) {
      const count = racing.filter((ids) => ids.includes(`race-drawn-${side}`)).length;
      // Binomial: 60 of 400, standard deviation 7.1.
      expect(Math.abs(count - 60)).toBeLessThan(4 * 7.1);
    }
    // Of independent sides 400 x 0.15^n race together; the first runs are no others.
    expect(racing.filter((ids) => ids.length === sides).length).toBeLessThan(400 * chanceOf ** sides + 8);
    expect(racing.slice(0, 10).some((ids) => ids.length < sides)).toBe(true);
  });

  test('what nobody typed for the job scatters by each entry: along, and through the thickness more', () => {
    const own = { ...sure, doubt: { ...sure.doubt, permeability: null } };
    const fabricIn = (job: LaidJob) => {
      const fabric = job.materials.find(({ id }) => id === 'biax-glass-600');
      if (fabric?.kind !== 'fabric' || !('along' in fabric.permeability)) throw new Error('no such fabric');
      return fabric.permeability;
    };
    const { along, across } = fabricIn(sure);
    const draws = Array.from({ length: 300 }, (_, i) => fabricIn(drawJob(own, demoShop, i).drawn));
    const beyond = (values: number[], factor: number) => values.filter((value) => value > factor).length;
    const [inPlane, through] = [
      draws.map((drawn) => drawn.along / along),
      draws.map((drawn) => drawn.through! / (drawn.along / along) / (0.05 * Math.min(along, across))),
    ];
    for (const [values, factor] of [
      [inPlane, 1.4],
      [through, 2.5],
    ] as const) {
      // One in ten of 300, standard deviation 5.2.
      expect(Math.abs(beyond(values, factor) - 30)).toBeLessThan(3 * 5.2);
      expect(
        Math.abs(
          beyond(
            values.map((value) => 1 / value),
            factor,
          ) - 30,
        ),
      ).toBeLessThan(3 * 5.2);
    }
    // A mesh and a fabric are not wrong together.
    const meshes = Array.from({ length: 300 }, (_, i) => {
      const mesh = drawJob(own, demoShop, i).drawn.materials.find(({ kind }) => kind === 'flowMesh');
      return mesh?.kind === 'flowMesh' ? mesh.permeability : NaN;
    });
    expect(Math.abs(rankCorrelation(meshes, inPlane))).toBeLessThan(0.2);
  });

  test('a draw past the edge of a gel table widens the answer instead of failing it', () => {
    const kiosk = laidDemos.find(({ resin }) => resin.materialId === 'polyester-p2')!;
    // A kelvin below the last column; draws reach some kelvin past it.
    const job = {
      ...kiosk,
      resin: { ...kiosk.resin, temperature: 297.15 },
      doubt: { ...kiosk.doubt, temperature: 4, raceChance: 0 },
    };
    const draws = Array.from({ length: 12 }, (_, i) => ({ ...drawJob(job, demoShop, i), i }));
    const warmest = draws.reduce((most, draw) =>
      draw.drawn.resin.temperature! > most.drawn.resin.temperature! ? draw : most,
    );
    expect(warmest.drawn.resin.temperature!).toBeGreaterThan(298.15);
    for (const { drawn } of draws) expect(faultInLaid(drawn)).toBe('');
    expect(sampleJob(job, demoShop, warmest.i).gelTime).toBeGreaterThan(0);
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
