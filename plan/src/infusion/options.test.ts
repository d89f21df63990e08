import { describe, expect, test } from '@jest/globals';
import type { EntryBody } from '@wick/contract/run/run';
import { problemOf } from '../forecast/problem.ts';
import type { LaidJob } from '../job/laid.ts';
import { bareLine } from '../layout/edits.ts';
import { runConditionsOf } from '../resin/run.ts';
import { runStateOf } from '../run/state.ts';
import { infusionOf } from './infusion.ts';
import { liveClockOf } from './live-clock.ts';
import { optionsOf, stateNow, tryOption, whatNow, type WhatNowRequest } from './options.ts';
import { wholeAsItGoes } from './as-it-went.ts';
import { frontAt, shapeOf } from './problem-shapes.ts';
import { isOtherwise } from './reforecast.ts';
import { resinLeftOf } from './resin-left.ts';
import { solveFlow } from '@wick/core/flow/problem';
import { clockOf } from '@wick/core/verdict/verdict';
import { fineness, logOf, plate, shop } from './test/plate.ts';

/** With a feed across the middle that the plan keeps shut. */
const reserved: LaidJob = {
  ...plate,
  lines: [
    ...plate.lines.map((line) => ({ ...line, actions: [] })),
    {
      ...bareLine(
        'feed',
        [
          { x: 0.7, y: 0.05 },
          { x: 0.7, y: 0.4 },
        ],
        'reserve',
      ),
      ...{ name: 'Reserve', bore: 0.012, startsOpen: false },
    },
  ],
};
const run = runConditionsOf(reserved, shop)!;

function at(
  now: number,
  said: readonly (readonly [number, EntryBody])[] = [],
  job = reserved,
): WhatNowRequest {
  const entries = logOf([
    [0, { kind: 'mixed', mass: null }],
    [run.openTime - 5, { kind: 'batchPoured', mass: 12 }],
    [run.openTime, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    ...said,
  ]);
  const state = runStateOf(entries);
  const infusion = infusionOf(state, job);
  const clock = liveClockOf(job, shop, infusion, state, [])!;
  const problem = problemOf(job, shop, { soft: false });
  const planClock = clockOf(run);
  const shape = shapeOf(
    { id: 'plan', event: null, prior: 1, lines: problem.lines },
    solveFlow(problem, fineness),
    planClock,
    run.openTime,
  );
  const answer = { likeliest: { shape, factor: 1 }, now };
  const resin = resinLeftOf(job, shop, infusion, clock, answer);
  return { job, problem, answer, infusion, clock, resin, fineness };
}
const by = (request: WhatNowRequest) => new Map(whatNow(request).map((one) => [one.option.id, one]));
const planned = () => {
  const { shape } = at(run.openTime + 1).answer.likeliest;
  return clockOf(run).timeAtFluidity({ from: run.openTime, fluidity: shape.last });
};
/** The front is then about at the reserve. */
const half = () => run.openTime + 0.35 * (planned() - run.openTime);

describe('what now', () => {
  test('going on as planned from half-way ends when the plan does', () => {
    expect(by(at(half())).get('wait')!.last / planned()).toBeCloseTo(1, 1);
  });

  test('the reserve feed, behind the front, gains time; opened far ahead of it, it shuts air in or gains less', () => {
    const late = by(at(half()));
    expect(late.get('open-reserve')!.last).toBeLessThan(late.get('wait')!.last - 120);
    expect(late.get('open-reserve')!.decideBy).toBeGreaterThan(half());
  });

  test('what has been turned counts: a reserve that is open is no option, a throttled feed can be opened fully', () => {
    const opened = at(half(), [
      [half() - 100, { kind: 'valve', lineId: 'reserve', opening: 1, actionId: null }],
    ]);
    expect(optionsOf(opened.job, opened.infusion, null).map(({ id }) => id)).not.toContain('open-reserve');
    const throttled = at(half(), [
      [run.openTime + 60, { kind: 'valve', lineId: 'feed-1', opening: 0.3, actionId: null }],
    ]);
    const titles = optionsOf(throttled.job, throttled.infusion, null).map(({ title }) => title);
    expect(titles).toContain('Open Feed fully');
  });

  test('a feed that was shut early has left the front where it stood', () => {
    const shut = at(half(), [
      [run.openTime + 200, { kind: 'valve', lineId: 'feed-1', opening: 0, actionId: null }],
    ]);
    const [stood, gone] = [stateNow(shut).start, stateNow(at(half())).start];
    const sum = (level: Float64Array) => level.reduce((all, one) => all + one, 0);
    expect(sum(stood.level)).toBeLessThan(0.8 * sum(gone.level));
  });

  test('warmer it is sooner full, and gels sooner', () => {
    const { wait, warm } = Object.fromEntries(by(at(half())));
    expect(warm!.last).toBeLessThan(wait!.last);
    expect(warm!.gelTime).toBeLessThan(wait!.gelTime);
  });

  test('too little resin ends the wait dry; more mixed in time does not', () => {
    const short = at(run.openTime + 60, [
      [run.openTime - 4, { kind: 'struck', entryId: 'e1', why: '' }],
      [run.openTime - 3, { kind: 'batchPoured', mass: 3.3 }],
    ]);
    expect(short.resin!.short).toBeGreaterThan(0.5);
    expect(short.resin!.mixBy).toBeGreaterThan(run.openTime + 60);
    const tried = by(short);
    expect(tried.get('wait')!.last).toBe(Infinity);
    expect(tried.get('wait')!.wet).toBeLessThan(1);
    expect(tried.get('mix')!.last).toBeLessThan(Infinity);
  });

  test('shutting now keeps what is wet; giving up needs no run', () => {
    const tried = by(at(half()));
    expect(tried.get('shut')!.last).toBe(Infinity);
    expect(tried.get('shut')!.wet).toBeGreaterThan(0.3);
    expect(tried.get('giveUp')!).toMatchObject({ last: Infinity, decideBy: half() });
  });

  test('every way on has a title, and all but the wait its price', () => {
    const request = at(half());
    for (const { id, title, caution } of optionsOf(request.job, request.infusion, request.resin)) {
      expect(title.length).toBeGreaterThan(5);
      expect(id === 'wait' || caution.length > 10).toBe(true);
    }
    expect(
      tryOption(request, stateNow(request), optionsOf(request.job, request.infusion, null)[0]!).decideBy,
    ).toBeNull();
  });
});

describe('resin that is left', () => {
  test('by the forecast until the pot is weighed, then by the scale', () => {
    const forecast = at(half()).resin!;
    expect(forecast.isWeighed).toBe(false);
    expect(forecast.inPot).toBeCloseTo(12 - forecast.drawn, 9);
    const weighed = at(half(), [[half() - 1, { kind: 'potLeft', mass: forecast.inPot - 1 }]]).resin!;
    expect(weighed.isWeighed).toBe(true);
    expect(weighed.inPot).toBeCloseTo(forecast.inPot - 1, 1);
    expect(weighed.needed).toBeCloseTo(forecast.needed + 1, 1);
  });

  test('enough is enough; of too little it says until when the next batch has to be begun', () => {
    expect(at(half()).resin!).toMatchObject({ short: 0 });
    const short = at(half(), [
      [0, { kind: 'struck', entryId: 'e1', why: '' }],
      [1, { kind: 'batchPoured', mass: 2.6 }],
    ]).resin!;
    expect(short.mixBy).toBeCloseTo(short.dryAt! - short.preparation, 6);
  });
});

describe('turned otherwise than planned', () => {
  const asks = (now: number, said: readonly (readonly [number, EntryBody])[]) => {
    const request = at(now, said);
    const { shape } = request.answer.likeliest;
    const again = () => {
      const flow = wholeAsItGoes(request.problem, 1, { ...request, now, fineness });
      return shapeOf({ ...shape, lines: request.problem.lines }, flow, request.clock.clock, run.openTime);
    };
    return { otherwise: isOtherwise(shape, request.infusion, request.clock, 1), again };
  };

  test('as planned it is not run again; with the reserve opened it is, and ends sooner than the plan', () => {
    expect(asks(half(), []).otherwise).toBe(false);
    const { otherwise, again } = asks(half() + 60, [
      [half(), { kind: 'valve', lineId: 'reserve', opening: 1, actionId: null }],
    ]);
    expect(otherwise).toBe(true);
    expect(again().last).toBeLessThan(0.95 * at(half()).answer.likeliest.shape.last);
    // What was wet before is as it was.
    const place = { x: 0.3, y: 0.2 };
    expect(frontAt(again(), place) / frontAt(at(half()).answer.likeliest.shape, place)).toBeCloseTo(1, 1);
  });

  test('a feed shut for a while makes it later by about that', () => {
    const pause: [number, EntryBody][] = [
      [half(), { kind: 'valve', lineId: 'feed-1', opening: 0, actionId: null }],
      [half() + 900, { kind: 'valve', lineId: 'feed-1', opening: 1, actionId: null }],
    ];
    const { last } = asks(half() + 1000, pause).again();
    const shut = clockOf(run).fluidity({ from: half(), to: half() + 900 });
    expect(last / (at(half()).answer.likeliest.shape.last + shut)).toBeCloseTo(1, 1);
  });

  test('a feed opened by half from the first moment stands so, and is later than one fully open', () => {
    const hosed = {
      ...reserved,
      lines: reserved.lines.map((line) => ({ ...line, hoseLength: 3, hoseBore: 0.004 })),
    };
    const lastAfter = (opening: number) => {
      const said: [number, EntryBody][] = [
        [0, { kind: 'struck', entryId: 'e2', why: '' }],
        [run.openTime, { kind: 'valve', lineId: 'feed-1', opening, actionId: null }],
      ];
      const request = at(run.openTime + 60, said, hosed);
      return wholeAsItGoes(request.problem, 1, { ...request, now: run.openTime + 60, fineness }).fillTime;
    };
    expect(lastAfter(0.5)).toBeGreaterThan(1.05 * lastAfter(1));
  });
});
