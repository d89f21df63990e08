import type { Shop } from '@wick/contract/shop';
import type { FlowForecast } from '@wick/core/flow/forecast';
import type { Drawn } from '@wick/core/mix/draw-down';
import { clockOf, likelyCurve, type RunConditions } from '@wick/core/verdict/verdict';
import { timelineOf } from '../forecast/assess.ts';
import { doubtOf } from '../forecast/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { settledIn } from '../settle.ts';
import { ledgerOf, type LedgerFlow } from './ledger.ts';
import { potIndexOf, potsOf, type FeedPot } from './pots.ts';
import { runConditionsOf } from './run.ts';

/** What of a forecast tells how it is drawn. */
export type DrawnFlow = Pick<FlowForecast, 'timeUnit' | 'isFilled' | 'samples'> & LedgerFlow;

/** What one pot has to give over the time of the fuse. */
export interface PotDraw {
  readonly pot: FeedPot;
  /** As forecast, and the sides of its doubt of which one in ten lies beyond; kg over s since first mix. */
  readonly middle: Drawn;
  readonly fast: Drawn;
  readonly slow: Drawn;
  /** Drawn from it in all, kg, if nothing gels before. */
  readonly drawn: number;
  /** To be mixed for it, kg: what is drawn, its heel, its share of the reserve, and what stays on the buckets. */
  readonly total: number;
  /** Keeps the end of its hose covered, kg. */
  readonly heel: number;
  /** Stays on the mixing buckets, kg: it never comes into the pot, and counts as if it stood under the heel. */
  readonly cup: number;
  /** Of both. */
  readonly floor: number;
}

export interface Draw {
  readonly pots: readonly PotDraw[];
  /** It draws all that the ledger asks for; otherwise the resin stops before that. */
  readonly isWhole: boolean;
}

/**
 * What is drawn from each pot over time: the ledger's mass in the rhythm of the forecast. Its hoses are filled before its first feed opens.
 * @param run what the resin is and how warm, where it is not the job's own
 * @returns null while no resin is chosen or the laminate does not tell yet
 * @throws ModelError of the resin's curves
 */
export function drawOf(
  job: LaidJob,
  shop: Shop,
  flow: DrawnFlow,
  run: RunConditions | null = runConditionsOf(job, shop),
): Draw | null {
  const ledger = ledgerOf(job, shop, flow);
  if (!run || !ledger) return null;
  const samples = whileDrawn(flow);
  const pots = potsOf(job);
  const heel = massOf(ledger.rows, 'heel') / pots.length;
  const hoses = pots.map((_, pot) => hosesOf(job, pots, pot, ledger.rows));
  const last = samples[samples.length - 1]!;
  const inHoses = hoses.reduce((sum, mass) => sum + mass, 0);
  const density = run.resin.density;
  const perVolume = flow.isFilled && last.entered > 0 ? (ledger.drawn - inHoses) / last.entered : density;
  const fillDuration = settledIn(job, 'resin.hoseFillDuration');
  const times = timesOf(flow.timeUnit, samples, run, job);
  const share = (pot: number) =>
    last.entered > 0
      ? (last.enteredBy[pot] ?? 0) / last.entered
      : pots[pot]!.feeds.length / Math.max(1, job.lines.length);
  const [kept, cup] = [massOf(ledger.rows, 'reserve'), massOf(ledger.rows, 'cup')];
  return {
    isWhole: flow.isFilled && Number.isFinite(times.middle[times.middle.length - 1]),
    pots: pots.map((pot, n): PotDraw => {
      const masses = samples.map(({ enteredBy }) => hoses[n]! + perVolume * (enteredBy[n] ?? 0));
      const drawn = flow.isFilled
        ? masses[masses.length - 1]!
        : hoses[n]! + (ledger.drawn - inHoses) * share(n);
      const first = firstDrawn(masses, hoses[n]!);
      const along = (at: Float64Array): Drawn => drawnBetween(at, masses, first, fillDuration);
      return {
        pot,
        heel,
        drawn,
        cup: cup * share(n),
        floor: heel + cup * share(n),
        total: drawn + heel + (kept + cup) * share(n),
        middle: along(times.middle),
        fast: along(times.fast),
        slow: along(times.slow),
      };
    }),
  };
}

const massOf = (
  rows: readonly { readonly what: string; readonly mass: number }[],
  what: 'heel' | 'reserve' | 'cup',
): number => rows.filter((row) => row.what === what).reduce((sum, { mass }) => sum + mass, 0);

/** In the hoses behind one pot, kg; those of tees hang on the first. */
function hosesOf(
  job: LaidJob,
  pots: readonly FeedPot[],
  pot: number,
  rows: NonNullable<ReturnType<typeof ledgerOf>>['rows'],
): number {
  const isOwn = (id: string | null) => {
    const line = job.lines.find((own) => own.id === id);
    return (line ? potIndexOf(pots, line) : 0) === pot;
  };
  return rows
    .filter(({ what, sources }) => what === 'hose' && isOwn(sources[0]!.id))
    .reduce((sum, { mass }) => sum + mass, 0);
}

/** Samples until nothing more is drawn: a soft laminate still settles after the feed is shut. */
function whileDrawn({ samples }: DrawnFlow): DrawnFlow['samples'] {
  const { entered } = samples[samples.length - 1]!;
  const end = samples.findIndex((sample) => sample.entered >= entered * (1 - 1e-9));
  return samples.slice(0, Math.max(2, end + 1));
}

/** Less than this share of what a pot gives is the solver's: its feeds are still shut. */
const STILL_SHUT = 1e-3;

/** The sample at which the feeds of a pot open. */
function firstDrawn(masses: readonly number[], inHoses: number): number {
  const whole = masses[masses.length - 1]! - inHoses;
  return Math.max(0, masses.findIndex((mass) => mass - inHoses > STILL_SHUT * whole) - 1);
}

/** What a pot gives: its hoses are filled just before its first feed opens, and once the resin has gelled nothing more is drawn. */
function drawnBetween(
  times: Float64Array,
  masses: readonly number[],
  first: number,
  fillDuration: number,
): Drawn {
  const gelled = times.findIndex((time) => !Number.isFinite(time));
  const end = gelled < 0 ? times.length : gelled;
  if (end <= first) return { times: [], masses: [] };
  return {
    times: [times[first]! - fillDuration, ...times.subarray(first, end)],
    masses: [0, ...masses.slice(first, end)],
  };
}

/** s since first mix of every sample of a forecast: as it stands, if all goes fast, and if all goes slowly. */
function timesOf(
  timeUnit: DrawnFlow['timeUnit'],
  samples: DrawnFlow['samples'],
  run: RunConditions,
  job: LaidJob,
) {
  const clock = clockOf(run);
  const { clockTime } = timelineOf({ timeUnit }, clock, run.openTime);
  const middle = Float64Array.from(samples, ({ time }) => clockTime(time));
  const from = run.openTime;
  const fluidities = samples.map(({ time }) =>
    timeUnit === 'fluidity' ? time : clock.fluidity({ from, to: Math.min(from + time, clock.gelTime) }),
  );
  const { from: fast, to: slow } = likelyCurve(fluidities, run, doubtOf(job));
  if (timeUnit === 'fluidity') return { middle, fast, slow };
  return { middle, fast: stretched(middle, fast, from), slow: stretched(middle, slow, from) };
}

/**
 * Where the run has its own clock, its doubt stretches it as it does that of the first pot; past what that pot tells, as it did last.
 */
function stretched(middle: Float64Array, looked: Float64Array, open: number): Float64Array {
  let factor = 1;
  return middle.map((time, n) => {
    const own = (looked[n]! - open) / (time - open);
    if (time > open && own > 0 && Number.isFinite(own)) factor = own;
    return open + factor * (time - open);
  });
}
