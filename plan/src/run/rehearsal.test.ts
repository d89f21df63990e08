import { describe, expect, test } from '@jest/globals';
import type { Entry, EntryBody } from '@wick/contract/run/run';
import { distance } from '@wick/core/geometry/polygon';
import { createRandom } from '@wick/core/random';
import { demoJobs, demoShop } from '../demo/jobs.ts';
import { laidOut } from '../job/laid.ts';
import { ambientOf } from '../shop/ambient.ts';
import { leakPlacesOf } from '../vacuum/places.ts';
import { createRehearsal, type RehearsalReading } from './rehearsal.ts';
import { instrumentIn } from './simulated.ts';

const gore = laidOut(demoJobs.find(({ name }) => name === 'Dome gore 7')!);
const places = leakPlacesOf(gore, demoShop, null);
const run = { id: 'r1', startedAt: '2026-03-14T09:00:00.000Z', speed: 1, seed: 7 };
const start = Date.parse(run.startedAt);
const at = (seconds: number) => new Date(start + seconds * 1000).toISOString();
const said = (...list: [number, EntryBody][]): Entry[] =>
  list.map(([seconds, body], n) => ({
    ...{
      id: `e${n}`,
      runId: 'r1',
      by: '',
      device: '',
      order: n,
      at: at(seconds),
      writtenAt: at(seconds),
      body,
    },
  }));
const of = (readings: readonly RehearsalReading[], own: string) =>
  readings.filter(({ instrumentId }) => instrumentId === instrumentIn(run, own));
const make = (changes: Partial<typeof run> = {}) =>
  createRehearsal(gore, demoShop, { ...run, ...changes }, places);

const pullThenShut = said([10, { kind: 'pull' }], [400, { kind: 'shut' }]);

describe('a rehearsal of the bag', () => {
  test('pulled, it falls to a good vacuum; shut, it hardly rises', () => {
    const readings = make().pass(start + 1300_000, pullThenShut);
    const gauge = of(readings, 'gauge');
    expect(gauge).toHaveLength(1300);
    expect(gauge[5]!.value / ambientOf(demoShop)).toBeCloseTo(1, 2);
    expect(gauge[395]!.value).toBeLessThan(2500);
    expect(gauge[1299]!.value - gauge[401]!.value).toBeLessThan(150);
    // The needle shows what is missing to the air outside, in steps of half an inch of mercury: 1693.2 Pa.
    const needle = of(readings, 'needle')[395]!.value;
    expect(needle % 1693.2 < 1e-6 || 1693.2 - (needle % 1693.2) < 1e-6).toBe(true);
    expect(Math.abs(needle - (ambientOf(demoShop) - gauge[395]!.value))).toBeLessThan(2000);
  });

  test('comes to the same however it is asked, and again after it was begun anew', () => {
    const once = make().pass(start + 600_000, pullThenShut);
    const random = createRandom(3);
    const bit = make();
    const parts: RehearsalReading[] = [];
    for (let t = 0; t < 600; t = Math.min(600, t + 1 + 40 * random()))
      parts.push(
        ...bit.pass(
          start + t * 1000,
          pullThenShut.filter((entry) => Date.parse(entry.at) <= start + t * 1000),
        ),
      );
    parts.push(...bit.pass(start + 600_000, pullThenShut));
    expect(parts.map(({ id, instrumentId }) => [id, instrumentId])).toEqual(
      once.map(({ id, instrumentId }) => [id, instrumentId]),
    );
    parts.forEach(({ value }, n) =>
      expect(Math.abs(value - once[n]!.value)).toBeLessThanOrEqual(0.02 * Math.abs(once[n]!.value) + 60),
    );
  });

  test('a leak raises the shut bag by Q t / V until its place is sealed, and another place’s sealing changes nothing', () => {
    const placeId = places[2]!.id;
    const rehearsal = make();
    rehearsal.pass(start + 400_000, [
      ...pullThenShut,
      ...said(
        [10, { kind: 'pull' }],
        [20, { kind: 'trouble', what: 'leak', placeId, amount: 5e-3 }],
        [400, { kind: 'shut' }],
      ).slice(1, 2),
    ]);
    const looked = (id: string, state: 'found' | 'sealed' | 'sound'): EntryBody => ({
      ...{ kind: 'looked', placeId: id, place: '', state, how: 'ear' },
    });
    const [other, own] = said([700, looked(places[0]!.id, 'sealed')], [1000, looked(placeId, 'sealed')]).map(
      (entry) => ({ ...entry, id: `l${entry.order}` }),
    );
    const riseOver = (to: number, entries: Entry[]) => {
      const before = rehearsal.truth();
      rehearsal.pass(start + to * 1000, entries);
      const after = rehearsal.truth();
      return (after.pressure - before.pressure) / (after.time - before.time);
    };
    const leaking = riseOver(700, []);
    const still = riseOver(1000, [other!]);
    const sealed = riseOver(1300, [other!, own!]);
    const { limit } = rehearsal.truth();
    // Beside the leak there is an eighth of the limit, and moisture that dies away.
    expect(leaking).toBeGreaterThan(5e-3 / 0.06);
    expect(still / leaking).toBeGreaterThan(0.9);
    expect(sealed).toBeLessThan(0.2 * leaking);
    expect(rehearsal.truth().throughput).toBeLessThan(limit);
  });

  test('a silent gauge says nothing while the others go on; a heater that is off lets the mould cool', () => {
    const entries = said(
      [60, { kind: 'trouble', what: 'silent', placeId: null, amount: 0 }],
      [60, { kind: 'trouble', what: 'heaterOff', placeId: null, amount: 0 }],
    );
    const readings = make().pass(start + 1800_000, entries);
    expect(of(readings, 'gauge').length).toBeLessThan(62);
    const warmth = of(readings, 'thermometer');
    expect(warmth).toHaveLength(1800);
    expect(warmth[1799]!.value).toBeLessThan(warmth[30]!.value - 4);
  });

  test('the part fills under it: its pot is weighed, and empties as the front goes', () => {
    const at = 2400;
    const entries = said(
      [1, { kind: 'pull' }],
      [at, { kind: 'mixed', mass: null }],
      [at + 100, { kind: 'batchPoured', mass: 9 }],
      [at + 240, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    );
    const rehearsal = make();
    const before = rehearsal.pass(start + (at + 200) * 1000, entries);
    const early = of(before, 'potScale').map(({ value }) => value);
    expect(early[at]).toBeCloseTo(0, 1);
    expect(early.at(-1)).toBeCloseTo(9, 1);
    expect(rehearsal.part.world()).toBeNull();
    const pot = of(rehearsal.pass(start + (at + 1200) * 1000, entries), 'potScale');
    expect(pot[0]!.value).toBeCloseTo(9, 1);
    expect(pot.at(-1)!.value).toBeLessThan(8.5);
    const again = make();
    again.pass(start + (at + 1200) * 1000, entries);
    expect(again.part.world()!.truth()).toEqual(rehearsal.part.world()!.truth());
  });

  test('a dead pump is not brought back by looking at it, only by one that stands in', () => {
    const after = (...more: [number, EntryBody][]) => {
      const rehearsal = make();
      rehearsal.pass(
        start + 3000_000,
        said(
          [1, { kind: 'pull' }],
          [1200, { kind: 'trouble', what: 'pumpDies', placeId: null, amount: 0 }],
          [1200, { kind: 'trouble', what: 'leak', placeId: null, amount: 5e-3 }],
          ...more,
        ),
      );
      return rehearsal.truth().pressure;
    };
    const fault = (mends: boolean): EntryBody => ({ kind: 'fault', fault: 'pumpStopped', did: 'x', mends });
    const dead = after();
    expect(after([1300, fault(false)])).toBeCloseTo(dead, 0);
    expect(after([1300, fault(true)])).toBeLessThan(0.5 * dead);
  });

  test('the listener is loudest at the leak', () => {
    const placeId = places[1]!.id;
    const rehearsal = make();
    rehearsal.pass(start + 500_000, [
      ...said(
        [10, { kind: 'pull' }],
        [20, { kind: 'trouble', what: 'leak', placeId, amount: 4e-3 }],
        [400, { kind: 'shut' }],
      ),
    ]);
    const heardAt = (id: string, n: number) =>
      of(
        rehearsal.pass(start + (500 + 10 * n) * 1000, [
          { ...said([495 + 10 * n, { kind: 'listen', placeId: id }])[0]!, id: `h${n}` },
        ]),
        'listener',
      );
    const levels = places
      .filter(({ at: where }) => where)
      .map(({ id }, n) => ({ id, level: heardAt(id, n + 1)[0]!.value }));
    const where = (id: string) => places.find((place) => place.id === id)!.at!;
    const loudest = levels.sort((a, b) => b.level - a.level)[0]!.id;
    // A hand's breadth cannot be told apart.
    expect(distance(where(loudest), where(placeId))).toBeLessThan(0.15);
    const far = levels.filter(({ id }) => distance(where(id), where(placeId)) > 1);
    expect(Math.max(...far.map(({ level }) => level))).toBeLessThan(levels[0]!.level - 8);
  });

  test('at sixty times the speed readings lie further apart', () => {
    const rehearsal = make({ speed: 60 });
    expect(rehearsal.spacing).toBe(15);
    expect(of(rehearsal.pass(start + 600_000, []), 'gauge')).toHaveLength(40);
  });
});
