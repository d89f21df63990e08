import { describe, expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import fc from 'fast-check';
import { newEntrySchema } from '@wick/contract/run/run';
import { runStateOf } from '../run/state.ts';
import { clocksEndedBy, heldBy, openTicks, waitsFor } from './progress.ts';
import type { CardStep } from './step.ts';
import { combReadings, combsWanted, filmAfter } from './surface.ts';
import { makeCard, minuteOf, START, workedRun } from './test/worked-run.ts';

const spinner = makeCard('Hydro spinner');
const coated = () => {
  const run = workedRun(spinner);
  for (const [n, { id }] of spinner.steps.filter(({ each }) => each === 'coat').entries()) run.do(8 * n, id);
  return run;
};
const overrule = (holdId: string, why = 'The foreman looked at it'): EntryBody => ({
  kind: 'overruled',
  holdId,
  title: holdId,
  why,
});
const gelled = (from = 40) => {
  const run = coated();
  for (let pass = 1; pass <= 4; pass++) run.do(from + pass, `gel-pass:${pass}`);
  return run;
};

describe('hold points', () => {
  test('no gel coat on release that is not finished, nor past its window; one more coat begins it anew', () => {
    const begun = workedRun(spinner);
    begun.do(0, 'coat:wax-1');
    expect(heldBy(begun.at(1), 'gelCoat')).toMatchObject({ id: 'released', isOpen: false });
    expect(heldBy(begun.at(1), 'gelCoat')!.why).toContain('4 coats are still to be laid');
    const run = coated();
    expect(heldBy(run.at(91.9), 'gelCoat')).toBeNull();
    // The last of five coats at minute 32, an hour from there.
    expect(heldBy(run.at(92), 'gelCoat')).toMatchObject({
      ...{ id: 'late-release', isOpen: false, again: 'coat:wax-5' },
    });
    run.do(95, 'coat:wax-5');
    // Until it has hazed and is wiped.
    const ids = run.at(96).holds.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    expect(heldBy(run.at(99), 'gelCoat')?.id).toBe('early-release');
    expect(heldBy(run.at(100), 'gelCoat')).toBeNull();
  });

  test('none opens by itself, however long it stands; by name and reason it is gone past, until things change', () => {
    const run = coated();
    expect(heldBy(run.at(10_000), 'gelCoat')?.id).toBe('late-release');
    run.say(100, overrule('late-release'));
    expect(heldBy(run.at(101), 'gelCoat')).toBeNull();
    expect(run.at(101).holds.find(({ id }) => id === 'late-release')!.overruled).toMatchObject({
      by: 'Ada',
      why: 'The foreman looked at it',
    });
    // The window begins anew and closes again: what was said of the first says nothing of this one.
    run.do(110, 'coat:wax-5');
    expect(heldBy(run.at(169), 'gelCoat')).toBeNull();
    expect(heldBy(run.at(171), 'gelCoat')?.id).toBe('late-release');
    const entry = { id: 'x', at: new Date(START).toISOString(), by: '', body: overrule('tight') };
    expect(newEntrySchema.safeParse(entry).error!.message).toContain('needs a name');
    expect(
      newEntrySchema.safeParse({ ...entry, by: 'Ada', body: overrule('tight', ' ') }).error!.message,
    ).toContain('needs a reason');
    expect(newEntrySchema.safeParse({ ...entry, by: 'Ada' }).success).toBe(true);
  });

  test('no lay-up on gel coat that still comes off on the finger: touched, and touched anew after another pass', () => {
    const run = gelled();
    const held = (minute: number) => heldBy(run.at(minute), 'barrier');
    expect(held(80)!.why).toContain('Nobody has touched it');
    run.say(80, { kind: 'touched', where: 'gelCoat', word: 'transfers' });
    expect(held(81)!.why).toContain('still comes off');
    run.say(90, { kind: 'touched', where: 'gelCoat', word: 'tacky' });
    expect(held(91)).toBeNull();
    run.do(95, 'gel-pass:4');
    expect(held(96)?.id).toBe('early-gelCoat');
    // Its clock says 25 minutes at 20 C, the finger says now: the finger outranks it.
    run.say(97, { kind: 'touched', where: 'gelCoat', word: 'noTransfer' });
    expect(held(98)).toBeNull();
  });

  test('leaving steps out opens nothing behind them: what waited for one waits before the next', () => {
    const skip = (run: ReturnType<typeof workedRun>, minute: number, of: (step: CardStep) => boolean) => {
      for (const { id, phase, title } of spinner.steps.filter(of))
        run.say(minute, { kind: 'skipped', stepId: id, phase, title, why: 'not today' });
    };
    // The first pass left out, the window of the release still closes on the second.
    const one = coated();
    skip(one, 40, ({ id }) => id === 'gel-pass:1');
    expect(heldBy(one.at(41), 'gelCoat')).toBeNull();
    expect(heldBy(one.at(92), 'gelCoat')?.id).toBe('late-release');
    // The second laid on ends that clock in the place of the first.
    const second = spinner.steps.find(({ id }) => id === 'gel-pass:2')!;
    expect(clocksEndedBy(spinner, one.at(50), second)).toHaveLength(2);
    one.do(50, 'gel-pass:2');
    expect(heldBy(one.at(92), 'gelCoat')).toBeNull();
    // No gel coat at all: the same window is that of the skin coat, and of no gel coat nothing comes off.
    const none = coated();
    skip(none, 40, ({ phase }) => phase === 'gelCoat');
    expect(heldBy(none.at(41), 'barrier')).toBeNull();
    expect(heldBy(none.at(92), 'barrier')?.id).toBe('late-release');
    // Begun in time it ends the clocks of the release.
    const [skin] = spinner.steps.filter(({ phase }) => phase === 'barrier');
    expect(clocksEndedBy(spinner, none.at(50), skin!)).toHaveLength(2);
    expect(clocksEndedBy(spinner, none.at(50), spinner.steps[0]!)).toEqual([]);
    // Release not finished, and the first step after it left out.
    const early = workedRun(spinner);
    skip(early, 1, ({ id }) => id === 'gel-pass:1');
    expect(heldBy(early.at(2), 'gelCoat')?.id).toBe('released');
    // The skin coat left out: lay-up waits for the finger.
    const soft = gelled();
    skip(soft, 50, ({ phase }) => phase === 'barrier');
    expect(heldBy(soft.at(51), 'layUp')).not.toBeNull();
    soft.say(52, { kind: 'touched', where: 'gelCoat', word: 'tacky' });
    expect(heldBy(soft.at(53), 'layUp')).toBeNull();
    const nameless = { id: 'x', at: new Date(START).toISOString(), by: '' };
    const left: EntryBody = { kind: 'skipped', stepId: 'a', phase: 'bag', title: '', why: 'not today' };
    expect(newEntrySchema.safeParse({ ...nameless, body: left }).error!.message).toContain('needs a name');
  });

  test('nothing is mixed before a drop test has passed, nor after air was let in again', () => {
    const run = workedRun(makeCard('Footbridge kerb plate'));
    const judged = (shutId: string, verdict: 'passes' | 'leaks' | 'cannotTell'): EntryBody => ({
      ...{
        kind: 'judged',
        shutId,
        verdict,
        throughput: { value: 1e-4, low: 0, high: 2e-4 },
        throughputLimit: 1e-3,
      },
      ...{ freeVolume: 0.01, start: 1500, duration: 900, voids: 0.001 },
    });
    const why = (minute: number) => heldBy(run.at(minute), 'mix')?.why ?? null;
    expect(why(0)).toContain('No drop test');
    run.say(1, { kind: 'pull' });
    const first = run.say(2, { kind: 'shut' });
    run.say(17, judged(first.id, 'leaks'));
    expect(why(18)).toContain('found a leak');
    run.say(20, { kind: 'pull' });
    const second = run.say(21, { kind: 'shut' });
    expect(why(22)).toContain('No drop test');
    run.say(40, judged(second.id, 'passes'));
    expect(why(41)).toBeNull();
    run.say(50, { kind: 'letGo' });
    expect(why(51)).toContain('Air was let into the bag');
    run.say(52, overrule('tight'));
    expect(why(53)).toBeNull();
    run.say(60, { kind: 'pull' });
    run.say(61, { kind: 'shut' });
    expect(why(62)).toContain('No drop test');
  });
});

test('whatever is said in whatever order, nothing is mixed without a passed test or a name that answers for it', () => {
  const card = makeCard('Footbridge kerb plate');
  const judged = (verdict: 'leaks' | 'cannotTell'): EntryBody => ({
    ...{
      kind: 'judged',
      shutId: 'e1',
      verdict,
      throughput: { value: 1, low: 0, high: 2 },
      throughputLimit: 1,
    },
    ...{ freeVolume: 0.01, start: 1500, duration: 900, voids: 0.001 },
  });
  const step = fc.constantFrom(...card.steps).map(({ id, phase, title }) => ({ stepId: id, phase, title }));
  const any: fc.Arbitrary<EntryBody> = fc.oneof(
    step.map((own): EntryBody => ({ kind: 'done', ...own })),
    step.map((own): EntryBody => ({ kind: 'skipped', ...own, why: 'so' })),
    fc.constantFrom<EntryBody>(
      { kind: 'pull' },
      { kind: 'shut' },
      { kind: 'letGo' },
      judged('leaks'),
      judged('cannotTell'),
    ),
    fc.constantFrom('released', 'late-release', 'touch-gelCoat').map(overrule),
    fc.constant<EntryBody>({ kind: 'struck', entryId: 'e1', why: '' }),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 500 }), any), { maxLength: 60 }), (said) => {
      const run = workedRun(card);
      for (const [minute, body] of said) run.say(minute, body);
      for (const minute of [0, 250, 10_000]) expect(heldBy(run.at(minute), 'mix')?.id).toBe('tight');
      run.say(600, overrule('tight'));
      expect(heldBy(run.at(601), 'mix')).toBeNull();
    }),
    { numRuns: 200 },
  );
});

test('the next step is the first that is neither done nor left out; a struck one is open again', () => {
  const run = workedRun(spinner);
  expect(run.at(0).next!.id).toBe('inspect');
  run.do(1, 'inspect');
  run.say(
    2,
    { kind: 'skipped', stepId: 'clean', phase: 'mould', title: 'Clean', why: 'done yesterday' },
    'Bo',
  );
  const progress = run.at(3);
  expect(progress.next!.id).toBe('mask');
  expect(progress.steps.get('inspect')).toMatchObject({
    done: { by: 'Ada', at: START + 60_000 },
    skipped: null,
  });
  expect(progress.steps.get('clean')).toMatchObject({
    done: null,
    skipped: { by: 'Bo', why: 'done yesterday' },
  });
  run.say(4, { kind: 'struck', entryId: 'e1', why: '' });
  expect(run.at(5).next!.id).toBe('inspect');
});

test('when each is to be expected: hands on one after the other, clocks waited for', () => {
  const run = workedRun(makeCard('Dome gore 7'));
  const at = (id: string) => minuteOf(run.at(0).expected.get(id)!);
  // 10 + 20 + 10 min on the mould, then each coat 5 min of work and its wait.
  expect(at('coat:sealer-1')).toBe(40);
  expect(at('coat:sealer-2')).toBe(40 + 5 + 15);
  expect(at('coat:release-1')).toBe(60 + 5 + 60);
  run.do(10, 'inspect');
  expect(minuteOf(run.at(200).expected.get('clean')!)).toBe(200);
  expect(run.at(200).expected.has('inspect')).toBe(false);
});

test('a corner that has its pair before it waits for that', () => {
  const corner = (id: string, x: number) => ({
    ...{ id, name: id, kind: 'insideCorner' as const, height: 0.05, radius: 0.012, angle: null },
    points: [
      { x, y: 0.1 },
      { x, y: 1 },
    ],
  });
  const card = makeCard('Dome gore 7', (job) => ({
    ...job,
    part: { ...job.part, features: [corner('a', 1), corner('b', 1.03)] },
  }));
  const step = card.steps.find(({ each }) => each === 'ply')!;
  const [first, second] = step.ticks;
  expect(waitsFor(step, new Set(), first!.id)).toBeNull();
  expect(waitsFor(step, new Set(), second!.id)).toBe('a, its middle');
  expect(waitsFor(step, new Set([first!.id]), second!.id)).toBeNull();
  expect(openTicks(step, new Set([first!.id]))).toHaveLength(3);
});

test('a comb reading is held against what its pass is to have brought', () => {
  const gelCoat = { name: 'White', passes: 4, film: { low: 0.45e-3, high: 0.65e-3 } };
  expect(filmAfter(gelCoat, 1).low).toBeCloseTo(0.45e-3 / 4, 12);
  const run = workedRun(spinner);
  for (const [pass, film] of [
    [1, 0.13e-3],
    [4, 0.4e-3],
    [4, 0.5e-3],
    [4, 0.7e-3],
  ] as const)
    run.say(1, { kind: 'comb', pass, x: 0.1, y: 0.2, film });
  expect(combReadings(runStateOf(run.entries), gelCoat).map(({ state }) => state)).toEqual([
    'within',
    'thin',
    'within',
    'thick',
  ]);
  expect([combsWanted(0.2), combsWanted(1), combsWanted(40)]).toEqual([4, 4, 10]);
});
