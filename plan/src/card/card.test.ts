import { expect, test } from '@jest/globals';
import { phases, stepLibrarySchema } from '@wick/contract/steps';
import { demoJobs } from '../demo/jobs.ts';
import { layOrder } from '../laminate/ply-book.ts';
import { laidOut } from '../job/laid.ts';
import { cardOf } from './card.ts';
import { stepTitle } from './step.ts';
import { makeCard, planOf } from './test/worked-run.ts';
import { usualSteps } from './usual-steps.ts';

test('the library that a workshop starts with reads as one, and has a step for every phase', () => {
  expect(stepLibrarySchema.parse(usualSteps)).toEqual(usualSteps);
  expect(new Set(usualSteps.steps.map(({ phase }) => phase))).toEqual(new Set(phases));
  for (const { why, takes, id } of usualSteps.steps)
    expect([id, why.length > 20, takes.length > 0 || id === 'lay-photo']).toEqual([id, true, true]);
});

test('a card has the phases in the order of work, every step once, each under its own id', () => {
  for (const { name } of demoJobs) {
    const card = makeCard(name);
    const order = card.phases.map(({ phase }) => phases.indexOf(phase));
    expect([...order].sort((a, b) => a - b)).toEqual(order);
    const ids = card.steps.flatMap(({ id, ticks }) => [id, ...ticks.map((tick) => tick.id)]);
    expect(new Set(ids).size).toBe(ids.length);
    expect(cardOf(planOf(name))).toEqual(card);
    for (const step of card.steps) {
      expect(step.id.length).toBeLessThanOrEqual(120);
      for (const { endsWith } of step.waits)
        if (endsWith !== null)
          expect(card.steps.findIndex(({ id }) => id === endsWith)).toBeGreaterThan(card.steps.indexOf(step));
    }
  }
});

test('the job fills in its own: each ply with angle and place, each layer, line, pleat, batch and valve', () => {
  const { job } = planOf('Dome gore 7');
  const laid = laidOut(job);
  const card = makeCard('Dome gore 7');
  const of = (each: string) => card.steps.filter((step) => step.each === each);
  expect(of('ply').map(({ aboutId }) => aboutId)).toEqual(layOrder(laid).map(({ ply }) => ply.id));
  expect(of('ply')[1]).toMatchObject({ what: 'ply 2 of 5', detail: 'Quad glass 850, 45°, whole part' });
  expect(of('ply')[0]!.ticks.map(({ what }) => what)).toEqual(['Turn-up at the foot']);
  // The ply of the brake lies in the brake alone, at the other end.
  expect(of('ply').at(-1)!.ticks).toEqual([]);
  expect(of('ply').at(-1)!.detail).toBe('Woven glass 300, 0°, Vent brake');
  expect(of('layer').map(({ what }) => what)).toEqual(['peel ply', 'flow mesh']);
  expect(of('line').map(({ what }) => what)).toEqual(['Feed 1', 'Feed 2', 'Feed 3', 'Vent']);
  // Either end of the one rise, a tenth higher than its 40 mm at least.
  expect(of('pleat').map(({ detail }) => detail)).toEqual(['44 mm high', '44 mm high']);
  expect(of('valve').map(({ what, detail }) => [what, detail])).toEqual([
    ['check that Vent is open', 'Before the first feed'],
    ['open Feed 1', 'To start'],
    ['open Feed 2', 'When the front has passed Feed 2'],
    ['open Feed 3', 'When the front has passed Feed 3'],
  ]);
  expect(
    makeCard('Footbridge kerb plate')
      .steps.filter(({ each }) => each === 'batch')
      .map(stepTitle),
  ).toEqual(['Weigh and mix']);
  const two = makeCard('Footbridge kerb plate', (kerb) => ({
    ...kerb,
    resin: {
      ...kerb.resin,
      batches: ['b1', 'b2'].map((id, n) => ({
        id,
        stationId: null,
        mixedAt: 900 * n,
        mass: n === 0 ? 2 : null,
      })),
    },
  }));
  expect(two.steps.filter(({ each }) => each === 'batch').map(stepTitle)).toEqual([
    'Weigh and mix batch 1',
    'Weigh and mix batch 2',
  ]);
});

test('the core is laid where it lies in the laminate', () => {
  const inMiddle = makeCard('Dome gore 7').steps.filter(({ each }) => each === 'ply' || each === 'core');
  expect(inMiddle.map(({ each }) => each)).toEqual(['ply', 'ply', 'core', 'ply', 'ply', 'ply']);
  const low = makeCard('Dome gore 7', (job) => ({
    ...job,
    laminate: { ...job.laminate, pliesUnderCore: 0 },
  }));
  expect(low.steps.filter(({ each }) => each === 'ply' || each === 'core').map(({ each }) => each)[0]).toBe(
    'core',
  );
});

test('corners are ticked singly; two that feed from each other in turn, each twice, in this order', () => {
  const corner = (id: string, name: string, x: number) => ({
    ...{ id, name, kind: 'insideCorner' as const, height: 0.05, radius: 0.012, angle: null },
    points: [
      { x, y: 0.1 },
      { x, y: 1 },
    ],
  });
  // 12 mm / 0.3 = 40 mm: 30 mm apart they lift each other, 300 mm apart they do not.
  const card = makeCard('Dome gore 7', (job) => ({
    ...job,
    part: { ...job.part, features: [corner('a', 'A', 1), corner('b', 'B', 1.03), corner('c', 'C', 1.5)] },
  }));
  const [ply] = card.steps.filter(({ each }) => each === 'ply');
  expect(ply!.ticks.map(({ what, after }) => [what, after?.split(':').slice(2).join(' ') ?? null])).toEqual([
    ['A, its middle', null],
    ['B, its middle', 'a 1'],
    ['A, once more to its ends', 'b 1'],
    ['B, once more to its ends', 'a 2'],
    ['C', null],
  ]);
});

test('processes and preparation decide what is on it', () => {
  const phasesOf = (...of: Parameters<typeof makeCard>) => makeCard(...of).phases.map(({ phase }) => phase);
  expect(phasesOf('Footbridge kerb plate')).not.toContain('gelCoat');
  expect(phasesOf('Hydro spinner')).toEqual(expect.arrayContaining(['gelCoat', 'barrier']));
  const tray = makeCard('Rescue sled tray').steps.map(({ id }) => id);
  expect(tray).toContain('wet-out');
  expect(tray).not.toContain('drop-test');
  const faces = (showFace: 'mould' | 'bag' | null) =>
    makeCard('Footbridge kerb plate', (job) => ({ ...job, showFace }))
      .steps.filter(({ id }) => id.startsWith('hairs'))
      .map(({ id }) => id);
  expect([faces('mould'), faces('bag'), faces(null)]).toEqual([
    ['hairs-mould'],
    ['hairs-bag'],
    ['hairs-mould'],
  ]);
  const off = planOf('Dome gore 7');
  const without = cardOf({
    ...off,
    steps: {
      ...off.steps,
      steps: off.steps.steps.map((step) => ({ ...step, isUsed: step.phase !== 'trim' })),
    },
  });
  expect(without.phases.map(({ phase }) => phase)).not.toContain('trim');
});
