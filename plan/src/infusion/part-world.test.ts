import { describe, expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { clockOf } from '@wick/core/verdict/verdict';
import { runConditionsOf } from '../resin/run.ts';
import { settle } from '../settle.ts';
import { plate, plateShapes, shop } from './test/plate.ts';
import { createPartWorld, type PartWorld } from './part-world.ts';
import { createBefalling, drawFaults, drawTruth, wordsOfDrawn, type Truth } from './truth.ts';

const even: Truth = {
  ...{ job: plate, potShare: 1, faults: [] },
  patchwork: { origin: { x: 0, y: 0 }, spacing: 1, columns: 1, rows: 1, factor: [1] },
};
const run = runConditionsOf(plate, shop)!;
const clock = clockOf(run);
const vent = settle(plate, shop)['vacuum.ventPressure'].value;
const feed = settle(plate, shop)['shop.ambientPressure'].value;
const open: EntryBody = { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null };
const NODES = 200;

function begun(truth = even, poured = 30): PartWorld {
  const world = createPartWorld(truth, shop, NODES);
  world.hear({ kind: 'mixed', mass: null });
  world.hear({ kind: 'batchPoured', mass: poured });
  world.pass(run.openTime, vent);
  world.hear(open);
  return world;
}
const passTo = (world: PartWorld, from: number, to: number, pressure = vent, step = 20) => {
  for (let t = from + step; t <= to; t += step) world.pass(t, pressure);
};
const planned = clock.timeAtFluidity({ from: run.openTime, fluidity: plateShapes()[0]!.last });

describe('the part of a rehearsal', () => {
  test('without scatter it fills when the forecast says', () => {
    const world = begun();
    passTo(world, run.openTime, 1.2 * planned);
    expect(world.truth().filledAt / planned).toBeCloseTo(1, 1);
    expect(world.truth().drewAirAt).toBeNull();
    expect(world.seen().front!.every((level) => level >= 0)).toBe(true);
  });

  test('half the pressure takes the time that the resin needs for twice the flow', () => {
    const world = begun();
    passTo(world, run.openTime, clock.gelTime, feed - (feed - vent) / 2, 60);
    const expected = clock.timeAtFluidity({ from: run.openTime, fluidity: 2 * plateShapes()[0]!.last });
    expect(world.truth().filledAt / expected).toBeCloseTo(1, 1);
  });

  test('a pot that runs dry lets air in and stops it; resin on top lets it go on', () => {
    const world = begun(even, 1.2);
    passTo(world, run.openTime, planned);
    expect(world.seen().drawsAir).toBe(true);
    const stood = world.truth().drawn;
    passTo(world, planned, planned + 600);
    expect(world.truth().drawn).toBeCloseTo(stood, 6);
    world.hear({ kind: 'batchPoured', mass: 10 });
    passTo(world, planned + 600, 2.2 * planned);
    expect(world.truth().drawn).toBeGreaterThan(stood + 0.2);
    expect(world.truth().drewAirAt).toBeLessThan(planned);
  });

  test('past gel nothing moves any more', () => {
    const world = createPartWorld(even, shop, NODES);
    world.hear({ kind: 'mixed', mass: null });
    world.hear({ kind: 'batchPoured', mass: 30 });
    world.pass(0.98 * clock.gelTime, vent);
    world.hear(open);
    passTo(world, 0.98 * clock.gelTime, 1.1 * clock.gelTime, vent, 60);
    const { drawn, filledAt } = world.truth();
    expect(filledAt).toBeNaN();
    expect(world.seen().hasGelled).toBe(true);
    passTo(world, 1.1 * clock.gelTime, 1.3 * clock.gelTime, vent, 60);
    expect(world.truth().drawn).toBe(drawn);
  });

  test('what is said before anything is mixed, twice, or of lines that are not there does no harm', () => {
    const world = createPartWorld(even, shop, NODES);
    world.hear({ kind: 'valve', lineId: 'nowhere', opening: 1, actionId: null });
    world.hear({ kind: 'warming', is: 'blanket', temperature: 310 });
    world.pass(100, vent);
    world.pass(50, vent);
    expect(world.seen()).toMatchObject({ front: null, clock: null, time: 100 });
    world.hear(open);
    world.hear(open);
    world.hear({ kind: 'mixed', mass: null });
    world.hear({ kind: 'valve', lineId: 'vent-1', opening: 0, actionId: null });
    world.pass(200, vent);
    expect(world.seen().clock).toBeCloseTo(run.openTime + 100, 6);
  });

  test('the planned shutting is due when the part is full, and its delay later', () => {
    const world = begun();
    passTo(world, run.openTime, 0.9 * planned);
    expect(world.due()).toEqual([]);
    passTo(world, 0.9 * planned, 1.1 * planned);
    world.due();
    passTo(world, 1.1 * planned, 1.1 * planned + 180);
    expect(world.due()).toEqual(['feed-1-shuts']);
  });

  test('a blanket lets it flow on more easily, and gel sooner', () => {
    const [warm, plain] = [begun(), begun()];
    passTo(warm, run.openTime, 1500);
    passTo(plain, run.openTime, 1500);
    warm.hear({ kind: 'warming', is: 'blanket', temperature: run.temperature + 8 });
    passTo(warm, 1500, 1.2 * planned);
    passTo(plain, 1500, 1.2 * planned);
    expect(warm.truth().filledAt).toBeLessThan(plain.truth().filledAt - 60);
    expect(warm.truth().gelTime).toBeLessThan(0.8 * plain.truth().gelTime);
  });
});

describe('what is drawn', () => {
  test('the same seed draws the same, another another', () => {
    expect(drawTruth(plate, shop, 4)).toEqual(drawTruth(plate, shop, 4));
    expect(drawTruth(plate, shop, 4).patchwork).not.toEqual(drawTruth(plate, shop, 5).patchwork);
  });

  test('over many seeds every fault comes, about four in ten parts have none, and each has words', () => {
    const drawn = Array.from({ length: 400 }, (_, seed) => drawFaults(plate, seed));
    const none = drawn.filter(({ length }) => length === 0).length / 400;
    // 0.4 x 0.75 have neither, and the second may come alone.
    expect(none).toBeGreaterThan(0.22);
    expect(none).toBeLessThan(0.38);
    const kinds = new Set(drawn.flat().map(({ kind }) => kind));
    expect([...kinds].sort()).toEqual([
      'coldResin',
      'dryBucket',
      'leak',
      'permeabilityOff',
      'pumpDies',
      'race',
    ]);
    for (const fault of drawn.flat()) expect(wordsOfDrawn(fault)).toMatch(/^[A-Z].{8,}/);
  });

  test('what befalls the bag does so once, when so much of the part is full', () => {
    const due = createBefalling(
      [
        { kind: 'pumpDies', at: 0.5 },
        { kind: 'leak', at: 0.3, amount: 10 },
        { kind: 'coldResin', by: 4 },
      ],
      2e-3,
    );
    const at = (filled: number) => due(filled).map(({ what, amount }) => [what, amount]);
    expect([0.1, 0.35, 0.4, 0.9, 1].map(at)).toEqual([[], [['leak', 0.02]], [], [['pumpDies', 0]], []]);
  });
});
