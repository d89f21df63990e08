import { expect, test } from '@jest/globals';
import type { LaidJob } from '../job/laid.ts';
import { fineness, plate, plateShapes, shop } from './test/plate.ts';
import { rehearse } from './operator.ts';
import { solvedOnce } from './test/solved-once.ts';
import { watchedPlaces } from './watched-places.ts';
import { tallyOf } from './tally.ts';
import { drawFaults } from './truth.ts';
import { debriefOf } from './debrief.ts';

const inThePart = (kind: string) => ['permeabilityOff', 'race', 'coldResin'].includes(kind);
const go = (seed: number, policy: 'planned' | 'follow' = 'planned', job = plate, shapes = plateShapes()) =>
  rehearse(job, shop, { seed, policy, shapes, fineness });

test('the same seed comes to the same, entry by entry', () => {
  expect(go(3)).toEqual(go(3));
});

/** plan/bench/rehearsals.ts takes 200 and more; these are enough to show a broken range. */
const FEW = 8;
test('the range holds mostly after three marks, and is half as wide as the plan had it', () => {
  const list = Array.from({ length: FEW }, (_, n) =>
    rehearse(plate, shop, {
      ...{ seed: n + 1, policy: 'planned', shapes: plateShapes(), fineness },
      faults: drawFaults(plate, n + 1).filter(({ kind }) => inThePart(kind)),
    }),
  );
  const { covered, asked, widthBefore, widthAfter } = tallyOf(list);
  expect(asked).toBe(FEW);
  // As many in each as of the 30 before: more than 17 of 30. The seeds are always the same.
  expect(covered / asked).toBeGreaterThan(17 / 30);
  expect(widthAfter / widthBefore).toBeLessThan(0.55);
});

/** Gels soon enough that a slow part is lost. */
const hurried: LaidJob = {
  ...plate,
  materials: plate.materials.map((material) =>
    material.kind === 'resin'
      ? { ...material, gelPoints: material.gelPoints.map((point) => ({ ...point, time: point.time / 3 })) }
      : material,
  ),
};

/** Parts saved, of 50 a job, are counted by plan/bench/rehearsals.ts. */
const SEEDS = 3;
test('who follows the advice keeps at least the parts that the plan keeps', () => {
  const shapes = solvedOnce(hurried, shop, fineness);
  const kept = (policy: 'planned' | 'follow') =>
    Array.from({ length: SEEDS }, (_, n) => go(n + 1, policy, hurried, shapes)).filter(
      ({ isSaved }) => isSaved,
    ).length;
  const planned = kept('planned');
  expect(planned).toBeLessThan(SEEDS);
  expect(kept('follow')).toBeGreaterThanOrEqual(planned);
});

test('a pump that dies is seen by whoever follows, and loses the part of whoever does not', () => {
  const faults = [
    { kind: 'pumpDies' as const, at: 0.3 },
    { kind: 'leak' as const, at: 0.3, amount: 400 },
  ];
  const with_ = (policy: 'planned' | 'follow') =>
    rehearse(plate, shop, { seed: 2, policy, shapes: plateShapes(), fineness, faults });
  expect(with_('planned').filledShare).toBeLessThan(with_('follow').filledShare + 1e-9);
  expect(with_('follow').log.some(({ body }) => body.kind === 'fault' && body.fault === 'pumpStopped')).toBe(
    true,
  );
});

test('places to watch are spread over fill and part', () => {
  const places = watchedPlaces({ marks: [] }, plateShapes()[0]!);
  expect(places).toHaveLength(5);
  const ys = places.map(({ y }) => y);
  expect(Math.max(...ys) - Math.min(...ys)).toBeGreaterThan(0.3);
});

test('afterwards it says what was drawn, from when it could be seen, and what the best answer would have given', () => {
  const faults = [
    { kind: 'permeabilityOff' as const, factor: 0.5 },
    { kind: 'dryBucket' as const, share: 0.6 },
  ];
  const one = rehearse(plate, shop, { seed: 8, policy: 'planned', shapes: plateShapes(), fineness, faults });
  const debrief = debriefOf({
    ...{ job: plate, shop, seed: 8, faults, entries: one.log, readings: [], shapes: plateShapes() },
    truth: {
      gelTime: one.gelTime,
      filledAt: one.filledAt,
      filledShare: one.filledShare,
      drewAirAt: 100,
      drawn: 1,
    },
  });
  expect(debrief.isSaved).toBe(false);
  expect(debrief.faults.map(({ words }) => words)).toEqual([
    'The stack took resin 50 % worse than planned',
    'The pot held 60 % of what was thought',
  ]);
  expect(debrief.faults[0]!.by).toMatch(/^mark [123]$/);
  expect(debrief.faults[0]!.seenFrom).toBeGreaterThan(0);
  expect(debrief.faults.every(({ answeredAt }) => answeredAt === null)).toBe(true);
  expect(debrief.advised.filledShare).toBeGreaterThanOrEqual(debrief.planned.filledShare - 1e-9);
});
