import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { drawnAt, type Drawn } from './draw-down.ts';
import { faultsOf, suggestBatches, type PlannedBatch, type ScheduleRequest } from './schedule.ts';

/** A strip draws with the root of time (Darcy at constant pressure). */
const strip = (mass: number, open: number, duration: number): Drawn => {
  const steps = Array.from({ length: 61 }, (_, i) => i / 60);
  return {
    times: steps.map((share) => open + duration * share ** 2),
    masses: steps.map((share) => mass * share),
  };
};
const HEEL = 0.4;
const need = (drawn: number, fast: number, slow: number, open = 400) => ({
  fast: strip(drawn, open, fast),
  slow: strip(drawn, open, slow),
  drawn,
  total: drawn + HEEL,
  floor: HEEL,
  capacity: 20,
});
const base: ScheduleRequest = {
  pots: [need(9.6, 3000, 4200)],
  mixers: 1,
  preparation: 300,
  spare: 60,
  largestMix: 20,
  stay: () => Infinity,
};

/**
 * What a person with a clock and a scale would check, written apart from the product: the pot is looked at so many times, and just
 * before each batch is poured. First in, first out.
 */
function isSafe(request: ScheduleRequest, batches: readonly PlannedBatch[], looks: number): boolean {
  const { stay, mixers, preparation, largestMix, pots } = request;
  for (const batch of batches) {
    if (batch.mass > largestMix * 1.000001 || batch.pouredAt - batch.mixedAt < preparation - 1e-6)
      return false;
    const atOnce = batches.filter(
      ({ mixedAt }) => mixedAt <= batch.mixedAt && batch.mixedAt < mixedAt + preparation - 1e-6,
    );
    if (atOnce.length > mixers) return false;
  }
  return pots.every(({ fast, slow, floor, capacity, total }, pot) => {
    const own = batches.filter((batch) => batch.pot === pot).sort((a, b) => a.pouredAt - b.pouredAt);
    if (own.reduce((sum, { mass }) => sum + mass, 0) < total * 0.999999) return false;
    const end = Math.max(fast.times[fast.times.length - 1]!, slow.times[slow.times.length - 1]!);
    const inPot = (drawn: Drawn, time: number) =>
      own.reduce((sum, { pouredAt, mass }) => sum + (pouredAt <= time ? mass : 0), 0) - drawnAt(drawn, time);
    const evenly = Array.from({ length: looks + 1 }, (_, n) => (end * n) / looks);
    for (const time of [...evenly, ...own.map(({ pouredAt }) => pouredAt - 1e-6)])
      if (time >= fast.times[0]! && inPot(fast, time) < floor - 1e-6 * total) return false;
    let before = 0;
    for (const { mass, mixedAt, pouredAt } of own) {
      const content = inPot(slow, pouredAt);
      if (content > capacity * 1.000001) return false;
      before += mass;
      let [out, late] = [0, slow.times[slow.times.length - 1]!];
      for (let n = 0; n < 40; n++) {
        const middle = (out + late) / 2;
        if (drawnAt(slow, middle) < before) out = middle;
        else late = middle;
      }
      if (out - mixedAt > stay(content) * 1.000001) return false;
    }
    return true;
  });
}

/** Every set of up to three batches on a coarse grid of masses and times. */
function* everyPlan({ pots: [{ total, slow }], preparation }: ScheduleRequest): Generator<PlannedBatch[]> {
  const SHARES = 6;
  const TIMES = 14;
  const end = slow.times[slow.times.length - 1]!;
  const at = (n: number) => (end * n) / TIMES;
  const batch = (mixedAt: number, shares: number): PlannedBatch => ({
    ...{ pot: 0, mixedAt, pouredAt: mixedAt + preparation, mass: (total * shares) / SHARES },
  });
  yield [batch(0, SHARES)];
  for (let a = 1; a < SHARES; a++)
    for (let s = 0; s < TIMES; s++) {
      yield [batch(0, a), batch(at(s), SHARES - a)];
      for (let b = 1; a + b < SHARES; b++)
        for (let t = s; t < TIMES; t++) yield [batch(0, a), batch(at(s), b), batch(at(t), SHARES - a - b)];
    }
}

describe('suggested batches', () => {
  test('one batch where it lasts; where the bucket is small two, the second as late as the fast side lets it', () => {
    const one = suggestBatches(base);
    expect(one).toMatchObject({ isFeasible: true, batches: [{ mass: 10, mixedAt: 0, pouredAt: 300 }] });
    const two = suggestBatches({ ...base, largestMix: 5 });
    if (!two.isFeasible) throw new Error('none');
    expect(two.batches.map(({ mass }) => mass)).toEqual([5, 5]);
    // 5 - 0.4 kg of 9.6 have gone after (4.6 / 9.6)^2 of 3000 s.
    const floored = 400 + 3000 * (4.6 / 9.6) ** 2;
    expect(two.batches[1]!.mixedAt).toBeCloseTo(floored - 300 - 60, -1);
  });

  test('what stands in the way is named: age, mixers, pot, bucket, or more than one', () => {
    const hindrance = (changes: Partial<ScheduleRequest>) => {
      const found = suggestBatches({ ...base, ...changes });
      return found.isFeasible ? 'none' : found.hindrance;
    };
    expect(hindrance({ stay: () => 350 })).toBe('stay');
    // 1.25 kg at first last seconds only.
    const small = { preparation: 390, stay: (mass: number) => (mass > 1.7 ? 0 : 9000) };
    expect(hindrance({ ...small, pots: [need(9.6, 3000, 3000)], spare: 0 })).toBe('mixers');
    expect(hindrance({ largestMix: 0.5 })).toBe('largestMix');
    // If it goes slowly the resin sets with a kilogram still in the pot.
    const sets = { times: [400, 4000], masses: [0, 8.6] };
    expect(hindrance({ pots: [{ ...base.pots[0]!, slow: sets }], stay: () => 9e4 })).toBe('stay');
    expect(hindrance({ pots: [{ ...base.pots[0]!, capacity: 0.45 }] })).toBe('capacity');
    expect(hindrance({ stay: () => 350, largestMix: 0.5 })).toBe('several');
  });

  test('two pots share one mixer: nothing is mixed at the same time, and the first begins at 0', () => {
    const found = suggestBatches({
      ...base,
      pots: [need(4, 2000, 3000), need(5, 2000, 3000, 1500)],
      stay: (mass) => 5000 - 600 * mass,
    });
    if (!found.isFeasible) throw new Error(found.hindrance);
    expect(found.batches[0]!.mixedAt).toBe(0);
    expect(new Set(found.batches.map(({ pot }) => pot))).toEqual(new Set([0, 1]));
  });

  const anyRequest = fc
    .record({
      drawn: fc.double({ min: 1, max: 30, noNaN: true }),
      fast: fc.double({ min: 600, max: 5000, noNaN: true }),
      slower: fc.double({ min: 1, max: 2.2, noNaN: true }),
      preparation: fc.double({ min: 60, max: 390, noNaN: true }),
      largestMix: fc.double({ min: 1, max: 30, noNaN: true }),
      capacity: fc.double({ min: 2, max: 40, noNaN: true }),
      life: fc.double({ min: 600, max: 9000, noNaN: true }),
      warmth: fc.double({ min: 0, max: 0.6, noNaN: true }),
      mixers: fc.integer({ min: 1, max: 3 }),
      pots: fc.integer({ min: 1, max: 2 }),
    })
    .map((given): ScheduleRequest => {
      const { drawn, fast, slower, preparation, largestMix, capacity, life, warmth, mixers, pots } = given;
      const one = { ...need(drawn, fast, slower * fast), capacity };
      return {
        ...base,
        ...{ preparation, largestMix, mixers, pots: Array.from({ length: pots }, () => one) },
        // A heavy batch warms and lasts a shorter time; as a power, which the heat balance comes near to.
        stay: (mass) => life * mass ** -warmth,
      };
    });

  test('never dry on the fast side, never too heavy, never past their time on the slow side', () => {
    let feasible = 0;
    fc.assert(
      fc.property(anyRequest, (request) => {
        const found = suggestBatches(request);
        if (!found.isFeasible) return;
        feasible += 1;
        expect(isSafe(request, found.batches, 4000)).toBe(true);
        expect(faultsOf(request, found.batches)).toEqual([]);
      }),
      { numRuns: 300 },
    );
    expect(feasible).toBeGreaterThan(60);
  });

  test('where none is found, trying everything on a coarse grid finds none either', () => {
    let none = 0;
    fc.assert(
      fc.property(anyRequest, (given) => {
        const request = { ...given, pots: [given.pots[0]!], mixers: 1, spare: 0 };
        if (suggestBatches(request).isFeasible) return;
        none += 1;
        for (const plan of everyPlan(request))
          if (isSafe(request, plan, 1)) throw new Error(`but this one does: ${JSON.stringify(plan)}`);
      }),
      { numRuns: 120 },
    );
    expect(none).toBeGreaterThan(20);
  });
});

describe('what is wrong with batches', () => {
  const two: PlannedBatch[] = [
    { pot: 0, mixedAt: 0, pouredAt: 300, mass: 5 },
    { pot: 0, mixedAt: 600, pouredAt: 900, mass: 5 },
  ];
  const kinds = (request: ScheduleRequest, batches: PlannedBatch[]) =>
    faultsOf(request, batches).map(({ kind, batch }) => [kind, batch]);

  test('nothing, of two that are poured in time', () => {
    expect(kinds(base, two)).toEqual([]);
  });

  test('dry when the second comes too late, told with the minute of the floor', () => {
    const late = [two[0]!, { ...two[1]!, mixedAt: 1200, pouredAt: 1500 }];
    const [fault] = faultsOf(base, late);
    expect(fault).toMatchObject({ kind: 'dry', batch: 0, pot: 0 });
    expect(fault!.time).toBeCloseTo(400 + 3000 * (4.6 / 9.6) ** 2, -1);
  });

  test('a bucket, a pot, a mixer and a time that do not suffice, each by its batch', () => {
    expect(kinds({ ...base, largestMix: 4 }, two)).toEqual([
      ['largestMix', 0],
      ['largestMix', 1],
    ]);
    expect(kinds({ ...base, pots: [{ ...base.pots[0]!, capacity: 6 }] }, two)).toEqual([['capacity', 1]]);
    expect(kinds(base, [two[0]!, { ...two[1]!, mixedAt: 200, pouredAt: 500 }])).toEqual([['mixers', 1]]);
    expect(kinds({ ...base, stay: () => 1000 }, two).map(([kind]) => kind)).toEqual(['stay', 'stay']);
    expect(kinds(base, [two[0]!, { ...two[1]!, mass: 4.8 }])).toEqual([
      ['dry', 1],
      ['short', null],
    ]);
  });
});
