import { describe, expect, test } from '@jest/globals';
import type { Entry, EntryBody } from '@wick/contract/run/run';
import { contains } from '@wick/core/geometry/polygon';
import { logOf, plate, shop } from '../infusion/test/plate.ts';
import { cameOff } from './came-off.ts';
import { plannedPartOf } from './planned-part.ts';

const CONTACT = 1800;
const run = (seed: number) => ({ id: 'r', startedAt: '2026-03-14T09:00:00.000Z', speed: 60, seed });
/** Pulled for half an hour, mixed, poured, opened; what else is said at seconds since the start. */
const made = (...more: (readonly [number, EntryBody])[]): Entry[] =>
  logOf([
    ...more.filter(([at]) => at < CONTACT),
    [10, { kind: 'pull' }],
    [CONTACT, { kind: 'mixed', mass: null }],
    [CONTACT + 100, { kind: 'batchPoured', mass: 9 }],
    [CONTACT + 300, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    ...more.filter(([at]) => at >= CONTACT),
  ]);
const found = (seed: number, entries: readonly Entry[]) =>
  cameOff({ job: plate, shop, mould: null, run: run(seed), entries });
const dryOf = (bodies: readonly EntryBody[] | null) =>
  (bodies ?? []).flatMap((body) => (body.kind === 'finding' && body.is === 'drySpot' ? [body] : []));
const SEEDS = [3, 5, 7, 11];

describe('the part of a rehearsal, off its mould', () => {
  test('a sound fill is wet, and weighs what the laminate was planned to, within its scatter', () => {
    const planned = plannedPartOf(plate, shop)!;
    const weights = SEEDS.flatMap((seed) => {
      const bodies = found(seed, made());
      expect(dryOf(bodies)).toEqual([]);
      return bodies!.flatMap((body) => (body.kind === 'weighed' ? [body.mass] : []));
    });
    expect(weights.length).toBeGreaterThan(0);
    for (const mass of weights) expect(Math.abs(mass / planned.mass - 1)).toBeLessThan(0.12);
  });

  test('a pot that held a third of its resin leaves it dry, and what is found lies on the part to the millimetre', () => {
    const dry = SEEDS.flatMap((seed) =>
      dryOf(found(seed, made([20, { kind: 'trouble', what: 'dryBucket', placeId: null, amount: 0.33 }]))),
    );
    // Somebody sees it in 92 of 100.
    expect(dry.length).toBeGreaterThanOrEqual(3);
    for (const { path, size } of dry) {
      expect(path.every((corner) => contains(plate.part.outline, corner))).toBe(true);
      expect((path[0]!.x * 1000) % 1).toBeCloseTo(0, 6);
      expect(size!).toBeGreaterThan(0.05);
    }
  });

  test('a bag that was made to leak leaves pinholes or dry places, unless it was sealed before it was filled', () => {
    const leak: EntryBody = { kind: 'trouble', what: 'leak', placeId: 'pot:catch', amount: 0.05 };
    const sealed: EntryBody = {
      ...{ kind: 'looked', placeId: 'pot:catch', place: 'Catch pot', state: 'sealed', how: 'ear' },
    };
    const voids = (entries: Entry[]) =>
      SEEDS.filter((seed) =>
        found(seed, entries)!.some(
          (body) => body.kind === 'finding' && ['pinholes', 'drySpot'].includes(body.is),
        ),
      ).length;
    expect(voids(made([20, leak]))).toBeGreaterThanOrEqual(3);
    expect(voids(made([20, leak], [30, sealed]))).toBeLessThanOrEqual(1);
  });

  test('the same log comes to the same, whenever it is looked at; without an open feed there is no part', () => {
    const entries = made();
    expect(found(7, entries)).toEqual(found(7, [...entries].reverse()));
    const after = made([CONTACT + 300_000, { kind: 'note', text: 'looked the day after' }]);
    expect(found(7, after)).toEqual(found(7, entries));
    expect(found(7, logOf([[10, { kind: 'pull' }]]))).toBeNull();
  });
});
