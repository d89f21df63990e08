import { describe, expect, test } from '@jest/globals';
import type { Entry, EntryBody } from '@wick/contract/run/run';
import { createRandom } from '@wick/core/random';
import { shownBy } from '@wick/core/vacuum/gauge-reading';
import fc from 'fast-check';
import { runStateOf } from '../run/state.ts';
import {
  afterTaking,
  currentMixes,
  firstContact,
  isSteady,
  mixesOf,
  mixState,
  pourState,
  scaleTrouble,
  type MixState,
} from './mixing.ts';
import { createScaleWorld } from './scale-world.ts';

const START = Date.parse('2026-03-14T09:00:00.000Z');
const said = (...list: [number, EntryBody][]): Entry[] =>
  list.map(([seconds, body], n) => {
    const at = new Date(START + seconds * 1000).toISOString();
    return { id: `e${n}`, runId: 'r1', by: 'Bo', device: '', order: n, at, writtenAt: at, body };
  });
const begun: EntryBody = {
  ...{ kind: 'mixBegun', number: 1, count: 2, materialId: 'epoxy', resin: 0.7, hardener: 0.301 },
  lots: { resin: 'R1', hardener: 'H1' },
  readied: [],
};
const tared: EntryBody = { kind: 'tared', mixId: 'e0', instrumentId: 'scale', value: 0.18 };
const pour = (what: 'resin' | 'hardener', mass: number): EntryBody => ({
  ...{ kind: 'poured', mixId: 'e0', what, mass, instrumentId: 'scale', zero: 0.18 + mass },
});
const rule = { parts: 43, window: { from: -0.02, to: 0.02 }, step: 0.001 };
const stateOf = (...bodies: EntryBody[]): MixState => {
  const entries = runStateOf(said(...bodies.map((body, n): [number, EntryBody] => [10 * n, body]))).entries;
  return mixState(mixesOf(entries)[0]!, rule);
};
const nextOf = (state: MixState) => {
  if (state.at !== 'pour') throw new Error(state.at);
  return state;
};

describe('a batch on the scale', () => {
  test('tare, resin, hardener, right', () => {
    expect(stateOf(begun)).toEqual({ at: 'tare' });
    expect(mixesOf(said([0, begun], [1, tared]))[0]!.zero).toBe(0.18);
    expect(mixesOf(said([0, begun], [1, tared], [2, pour('resin', 0.7)]))[0]!.zero).toBeCloseTo(0.88, 12);
    expect(nextOf(stateOf(begun, tared)).next).toMatchObject({ what: 'resin', mass: 0.7 });
    const { next, total } = nextOf(stateOf(begun, tared, pour('resin', 0.7)));
    expect(next).toMatchObject({ what: 'hardener', isCorrection: false });
    expect(next.mass).toBeCloseTo(0.301, 9);
    expect(next.to).toBeCloseTo(0.301 * 1.02, 9);
    expect(total).toBeCloseTo(1.001, 9);
    expect(stateOf(begun, tared, pour('resin', 0.7), pour('hardener', 0.303)).at).toBe('mixed');
  });

  test('taken too early, the resin is poured on; a batch that was thrown away no longer counts', () => {
    const { next } = nextOf(stateOf(begun, tared, pour('resin', 0.1)));
    expect(next).toMatchObject({ what: 'resin', isCorrection: false });
    expect(next.mass).toBeCloseTo(0.6, 9);
    expect(nextOf(stateOf(begun, tared, pour('resin', 0.1), pour('resin', 0.6))).next.what).toBe('hardener');
    const again = said([0, begun], [1, tared], [9, { kind: 'contact', mixId: 'e0' }], [60, begun]);
    expect(currentMixes(mixesOf(again)).map(({ id }) => id)).toEqual(['e3']);
    expect(firstContact(mixesOf(again))).toBeNull();
  });

  test('what is on the scale is answered before it is taken: too much of either says what follows and the total', () => {
    const mixOf = (...bodies: EntryBody[]) =>
      mixesOf(said(...bodies.map((body, n): [number, EntryBody] => [n, body])))[0]!;
    const answer = (mix: ReturnType<typeof mixOf>, amount: number) => {
      const state = mixState(mix, rule);
      return afterTaking(mix, nextOf(state).next, amount, rule);
    };
    // 740 g of resin want 318.2 g; 330 g on 700 g want 67.4 g of resin (arithmetic).
    expect(answer(mixOf(begun, tared), 0.74)).toMatchObject({
      what: 'hardener',
      mass: expect.closeTo(0.3182, 4),
    });
    const over = answer(mixOf(begun, tared, pour('resin', 0.7)), 0.33)!;
    expect(over).toMatchObject({ what: 'resin', mass: expect.closeTo(0.0674, 4) });
    expect(over.total).toBeCloseTo(0.33 + 0.33 / 0.43, 9);
    expect(answer(mixOf(begun, tared, pour('resin', 0.7)), 0.301)).toBeNull();
  });

  test('too much resin: the hardener follows it, and the total is said anew', () => {
    const { next, total } = nextOf(stateOf(begun, tared, pour('resin', 0.74)));
    expect(next.mass).toBeCloseTo(0.74 * 0.43, 9);
    expect(total).toBeCloseTo(0.74 * 1.43, 9);
  });

  test('700 g with 330 g at 100:43: 67.4 g of resin make it good (arithmetic), and nothing is taken out', () => {
    const { next, total } = nextOf(stateOf(begun, tared, pour('resin', 0.7), pour('hardener', 0.33)));
    expect(next).toMatchObject({ what: 'resin', isCorrection: true });
    expect(next.mass).toBeCloseTo(0.0674, 4);
    expect(total).toBeCloseTo(0.33 + 0.33 / 0.43, 9);
    const right = stateOf(begun, tared, pour('resin', 0.7), pour('hardener', 0.33), pour('resin', 0.0674));
    expect(right.at).toBe('mixed');
  });

  test('too little hardener wants the rest of it; inside its band it is right', () => {
    const { next } = nextOf(stateOf(begun, tared, pour('resin', 0.7), pour('hardener', 0.25)));
    expect(next).toMatchObject({ what: 'hardener', isCorrection: true });
    expect(next.mass).toBeCloseTo(0.051, 9);
    expect(pourState(next, 0.02)).toEqual({ tone: 'under', left: expect.closeTo(0.031, 9) });
    expect(pourState(next, 0.051).tone).toBe('good');
    expect(pourState(next, 0.06).tone).toBe('over');
  });

  test('what lies in its band is right afterwards, whatever was poured before', () => {
    const mass = fc.double({ min: 0.05, max: 3, noNaN: true });
    fc.assert(
      fc.property(mass, mass, fc.double({ min: 0.01, max: 0.99, noNaN: true }), (resin, hardener, share) => {
        const state = stateOf(begun, tared, pour('resin', resin), pour('hardener', hardener));
        if (state.at !== 'pour') return;
        const { what, from, to } = state.next;
        const amount = from + share * (to - from);
        if (from > 0.0005)
          expect(
            stateOf(begun, tared, pour('resin', resin), pour('hardener', hardener), pour(what, amount)).at,
          ).toBe('mixed');
      }),
    );
  });

  test('the clock starts at first contact, or where nobody saw it with the pour of the second', () => {
    const list = said(
      [0, begun],
      [5, tared],
      [30, pour('resin', 0.7)],
      [50, { kind: 'contact', mixId: 'e0' }],
      [70, pour('hardener', 0.3)],
    );
    expect(firstContact(mixesOf(list))).toBe(START + 50_000);
    expect(firstContact(mixesOf(list.filter(({ body }) => body.kind !== 'contact')))).toBe(START + 70_000);
    expect(firstContact(mixesOf(list.slice(0, 3)))).toBeNull();
  });

  test('a pour that is struck out does not count, and two batches are kept apart', () => {
    const entries = said(
      [0, begun],
      [1, tared],
      [2, pour('resin', 0.9)],
      [3, { kind: 'struck', entryId: 'e2', why: 'wrong key' }],
      [4, { ...begun, number: 2 } as EntryBody],
    );
    const mixes = mixesOf(runStateOf(entries).entries);
    expect(mixes.map(({ poured }) => poured.resin)).toEqual([0, 0]);
    expect(mixes.map(({ begun: { number } }) => number)).toEqual([1, 2]);
    expect(mixes[1]!.zero).toBeNull();
  });
});

describe('the simulated scale', () => {
  /** What it shows from the seconds on, in steps of a gram. */
  function weigh(acts: [number, EntryBody][], until: number) {
    const world = createScaleWorld(5);
    const shown: { at: number; value: number }[] = [];
    const take = (to: number) =>
      shown.push(
        ...world.pass(to, 0.25).map(({ time, value, random }) => ({
          at: 1000 * time,
          value: shownBy({ resolution: 0.001, noise: 3e-4 }, value, random),
        })),
      );
    for (const [seconds, body] of acts) {
      take(seconds);
      world.hear(body);
    }
    take(until);
    return shown;
  }
  const hand = (does: 'bucket' | 'pour' | 'stop' | 'clear', rate = 0): EntryBody => ({
    kind: 'hand',
    does,
    rate,
  });
  const suffer = (what: 'scaleDrifts' | 'scaleFlat' | 'bucketLeans', amount: number): EntryBody => ({
    ...{ kind: 'trouble', what, placeId: null, amount },
  });
  const bucket: [number, EntryBody] = [1, hand('bucket')];

  test('bucket, ten seconds of 50 g/s: half a kilogram more, and steady only after it has settled', () => {
    const shown = weigh([bucket, [10, hand('pour', 0.05)], [20, hand('stop')]], 30);
    const at = (seconds: number) => shown.filter((one) => one.at <= 1000 * seconds);
    const tare = at(9.5).at(-1)!.value;
    expect(tare).toBeCloseTo(0.18, 2);
    expect(isSteady(at(9.5), 0.001)).toBe(true);
    expect(isSteady(at(15), 0.001)).toBe(false);
    expect(isSteady(at(30), 0.001)).toBe(true);
    expect(Math.abs(shown.at(-1)!.value - tare - 0.5)).toBeLessThan(0.003);
    expect(scaleTrouble(at(15), 15_000, 0.001)).toBeNull();
    expect(scaleTrouble(shown, 30_000, 0.001)).toBeNull();
  });

  test('a flat battery, a leaning bucket and a creeping zero are each told for what they are', () => {
    expect(scaleTrouble(weigh([bucket, [10, suffer('scaleFlat', 0)]], 20), 20_000, 0.001)).toBe('silent');
    const leans = weigh(
      [bucket, [5, hand('pour', 0.1)], [15, hand('stop')], [18, suffer('bucketLeans', 0.1)]],
      22,
    );
    expect(scaleTrouble(leans, 22_000, 0.001)).toBe('fell');
    expect(scaleTrouble(weigh([bucket, [5, suffer('scaleDrifts', 2e-4)]], 40), 40_000, 0.001)).toBe('creeps');
  });

  test('nothing is poured past a scale without a bucket, and it comes to the same in bits', () => {
    const dry = weigh([[2, hand('pour', 0.1)]], 8);
    expect(Math.abs(dry.at(-1)!.value)).toBeLessThan(0.002);
    const random = createRandom(9);
    const world = createScaleWorld(5);
    const bits: number[] = [];
    for (let time = 0; time < 30; time = Math.min(30, time + 0.05 + 2 * random()))
      bits.push(...world.pass(time, 0.25).map(({ sample }) => sample));
    expect(bits).toEqual(Array.from({ length: bits.length }, (_, n) => n + 1));
  });
});
