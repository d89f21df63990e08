import type { FlowForecast } from '@wick/core/flow/forecast';
import type { Fineness, FlowProblem } from '@wick/core/flow/problem';
import { ModelError } from '@wick/core/model-error';
import { drivenClock } from '@wick/core/reforecast/driven-clock';
import { warmedClock } from '@wick/core/resin/warmed-clock';
import type { LaidJob } from '../job/laid.ts';
import { asItWent, onFromHere, runTimes, type AsItWent, type RunTimes, type Turn } from './as-it-went.ts';
import { openingNow, type Infusion } from './infusion.ts';
import type { LiveClock } from './live-clock.ts';
import type { Reforecast } from './reforecast.ts';
import type { ResinLeft } from './resin-left.ts';

/** One way on from here. */
export interface Option {
  readonly id: string;
  readonly title: string;
  /** What it takes or risks, one line. */
  readonly caution: string;
  readonly turns: readonly Omit<Turn, 'at'>[];
  /** K warmer from when it is there. */
  readonly warmer: number;
  /** s until it acts. */
  readonly takes: number;
}

export interface TriedOption {
  readonly option: Option;
  /** When the last corner is wet, s since first contact; Infinity past gel, or where a part stays dry. */
  readonly last: number;
  readonly gelTime: number;
  /** Share of the part that is wet in the end or at gel. */
  readonly wet: number;
  /** m2 that air keeps. */
  readonly shutIn: number;
  /** Until when it has to be decided so that it still fills in time, s since first contact; null where it does not, or waiting costs nothing. */
  readonly decideBy: number | null;
}

export interface WhatNowRequest {
  readonly job: LaidJob;
  readonly problem: FlowProblem;
  readonly answer: Pick<Reforecast, 'likeliest' | 'now'>;
  readonly infusion: Infusion;
  readonly clock: LiveClock;
  readonly resin: ResinLeft | null;
  readonly fineness: Fineness;
}

/** From a word to a valve that has turned, and to a laminate that is warmer, s; K that a blanket brings on the way. */
const HAND = 30;
const BLANKET = 600;
const WARMER = 6;

/** What can be done at all, the wait first. */
export function optionsOf(job: LaidJob, infusion: Infusion, resin: ResinLeft | null): Option[] {
  const option = (id: string, title: string, caution: string, changes: Partial<Option> = {}): Option => ({
    ...{ id, title, caution, turns: [], warmer: 0, takes: HAND },
    ...changes,
  });
  const feeds = job.lines.filter(({ kind }) => kind === 'feed');
  const standing = feeds.map((line) => ({ line, opening: openingNow(infusion, line) }));
  const open = standing.filter(({ opening }) => opening > 0);
  return [
    option('wait', 'Go on as planned', ''),
    ...standing
      .filter(({ opening }) => opening < 1)
      .map(({ line, opening }) =>
        option(
          `open-${line.id}`,
          opening > 0 ? `Open ${line.name} fully` : `Open ${line.name} now`,
          'Ahead of the front it shuts air in between: look at the plan first.',
          { turns: [{ lineId: line.id, opening: 1 }] },
        ),
      ),
    option(
      'warm',
      `Warm the part by ${WARMER} K: blanket or tent`,
      'It thins first and gels sooner. Never near solvent; watch the limits.',
      {
        warmer: WARMER,
        takes: BLANKET,
      },
    ),
    ...(resin && resin.short > 0
      ? [
          option('mix', 'Mix more now', 'A new batch starts its own clock; no air into the hose.', {
            takes: resin.preparation,
          }),
        ]
      : []),
    ...(open.length > 0
      ? [
          option(
            'throttle',
            'Throttle every open feed to half',
            'For a bag that floats or a pot that runs out: it costs time.',
            {
              turns: open.map(({ line }) => ({ lineId: line.id, opening: 0.5 })),
            },
          ),
          option('shut', 'Shut the feed now', 'What is dry now stays dry, but for what still creeps.', {
            turns: open.map(({ line }) => ({ lineId: line.id, opening: 0 })),
          }),
        ]
      : []),
    option(
      'giveUp',
      'Give this part up',
      'Feed shut, bag off while it is liquid: the mould is saved, the rest goes outside on a plate that does not burn.',
    ),
  ];
}

/**
 * Simulates every way on from how the front stands now.
 * @throws ModelError as asItWent
 */
export function whatNow(request: WhatNowRequest): TriedOption[] {
  const went = stateNow(request);
  return optionsOf(request.job, request.infusion, request.resin).map((option) =>
    tryOption(request, went, option),
  );
}

export const stateNow = ({ problem, answer, infusion, clock, fineness }: WhatNowRequest): AsItWent =>
  asItWent(problem, answer.likeliest.factor, { infusion, clock, now: answer.now, fineness });

/** Halvings by which the latest moment is found. */
const LOOKS = 4;

/** One way on, and until when it can wait. @throws ModelError as onFromHere */
export function tryOption(request: WhatNowRequest, went: AsItWent, option: Option): TriedOption {
  const { answer } = request;
  if (option.id === 'giveUp') return { option, ...asItStands(request, went) };
  const first = simulate(request, went, option, answer.now + option.takes);
  const acts = option.turns.length > 0 || option.warmer !== 0;
  return {
    option,
    ...first,
    decideBy: acts && first.last < Infinity ? latestOf(request, went, option) : null,
  };
}

/** As it stands now and stays, but for what still creeps. */
function asItStands(
  { answer, clock, fineness }: WhatNowRequest,
  went: AsItWent,
): Omit<TriedOption, 'option'> {
  const { wet } = onFromHere(went, [], fineness, went.start.time).samples[0]!;
  return { last: Infinity, gelTime: clock.clock.gelTime, wet, shutIn: 0, decideBy: answer.now };
}

function simulate(
  request: WhatNowRequest,
  went: AsItWent,
  { id, turns, warmer }: Option,
  at: number,
): Omit<TriedOption, 'option' | 'decideBy'> {
  const { clock, fineness, resin } = request;
  const live = warmer === 0 ? clock : warmedLive(clock, at, warmer);
  const times = warmer === 0 ? went.times : runTimes(went.problem, live);
  const flow = onFromHere(
    went,
    turns.map((turn) => ({ ...turn, at })),
    fineness,
  );
  const comesInTime = id === 'mix' && resin !== null && (resin.dryAt ?? Infinity) >= at;
  const limit = resin && !comesInTime ? resin.free / live.run.resin.density : Infinity;
  return endOf(flow, live, times, went.start.drawn + (resin?.poured ? limit : Infinity));
}

/** @param most volume that the pots can give in all, m3 */
function endOf(flow: FlowForecast, live: LiveClock, times: RunTimes, most: number) {
  const { gelTime } = live.clock;
  const dry = flow.samples.find(({ entered }) => entered > most * (1 + 1e-6));
  const last = flow.isFilled && !dry ? times.timeOf(flow.fillTime) : Infinity;
  const isInTime = last <= gelTime;
  const end = Math.min(times.at(gelTime * (1 - 1e-9)), dry?.time ?? Infinity);
  return {
    ...{ last: isInTime ? last : Infinity, gelTime },
    wet: isInTime ? 1 : (flow.samples.findLast(({ time }) => time <= end)?.wet ?? 0),
    shutIn: flow.dryRegions.reduce((sum, { finalArea }) => sum + finalArea, 0),
  };
}

/** The clock with the part warmer from a time on. */
function warmedLive(live: LiveClock, from: number, by: number): LiveClock {
  const { run, clock, drive } = live;
  const temperature = run.temperature + by;
  const warmed = warmedClock(run.resin, { clock, temperature: run.temperature }, from, temperature);
  return { ...live, clock: warmed, driven: drivenClock(warmed, run.openTime, drive) };
}

/** The latest moment at which it still fills before gel, by halving. */
function latestOf(request: WhatNowRequest, went: AsItWent, option: Option): number {
  const { answer, clock } = request;
  let [good, bad] = [answer.now, clock.clock.gelTime];
  for (let look = 0; look < LOOKS; look++) {
    const middle = (good + bad) / 2;
    if (fillsFrom(request, went, option, middle)) good = middle;
    else bad = middle;
  }
  return good;
}

function fillsFrom(request: WhatNowRequest, went: AsItWent, option: Option, at: number): boolean {
  try {
    return simulate(request, went, option, at + option.takes).last < Infinity;
  } catch (error) {
    if (error instanceof ModelError) return false;
    throw error;
  }
}
