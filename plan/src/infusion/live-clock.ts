import type { Shop } from '@wick/contract/shop';
import { drivenClock, type Drive, type DrivenClock } from '@wick/core/reforecast/driven-clock';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { freshViscosity } from '@wick/core/resin/resin-system';
import { clockOf, NINE_IN_TEN, type RunConditions } from '@wick/core/verdict/verdict';
import { doubtOf } from '../forecast/doubt.ts';
import type { LaidJob } from '../job/laid.ts';
import { runConditionsOf } from '../resin/run.ts';
import { isOf, type RunState } from '../run/state.ts';
import { settle } from '../settle.ts';
import type { Infusion } from './infusion.ts';

/** A pressure in the bag, Pa absolute, ms since 1970. */
export interface BagReading {
  readonly at: number;
  readonly pressure: number;
}

/** The clock of a run as it goes: its own times, temperature and pressure. Times s since first contact. */
export interface LiveClock {
  readonly run: RunConditions;
  readonly clock: ResinClock;
  readonly driven: DrivenClock;
  readonly drive: Drive;
  /** ms since 1970 at which it is 0. */
  readonly zero: number;
  /** Whether each was read or is the plan's. */
  readonly hasTemperature: boolean;
  readonly hasPressure: boolean;
}

/** s over which pressures are taken together: a fill does not feel a gauge's flicker. */
const TOGETHER = 30;
/** A gauge that shows more than so many times what was planned shows something else. */
const MOST_SHARE = 1.3;

/**
 * @param readings of the bag, ascending
 * @returns null before resin and hardener have met, and while no resin is chosen
 * @throws ModelError of the resin's curves
 */
export function liveClockOf(
  job: LaidJob,
  shop: Shop,
  infusion: Pick<Infusion, 'contactAt' | 'openedAt'>,
  state: Pick<RunState, 'entries'>,
  readings: readonly BagReading[],
): LiveClock | null {
  const planned = runConditionsOf(job, shop);
  const { contactAt, openedAt } = infusion;
  if (!planned || contactAt === null) return null;
  const openTime = openedAt === null ? planned.openTime : Math.max(0, (openedAt - contactAt) / 1000);
  const warmth = meanWarmth(state, contactAt);
  const run = { ...planned, openTime, ...(warmth === null ? {} : { temperature: warmth, drift: 0 }) };
  const clock = clockOf(run);
  const drive = driveOf(
    job,
    shop,
    openedAt === null ? [] : readings.filter(({ at }) => at >= openedAt),
    contactAt,
  );
  return {
    ...{ run, clock, drive, zero: contactAt },
    driven: drivenClock(clock, openTime, drive),
    hasTemperature: warmth !== null,
    hasPressure: drive.times.length > 0,
  };
}

/** How warm it was told to be since the mix, over time, K; null where nobody has said. */
function meanWarmth({ entries }: Pick<RunState, 'entries'>, from: number): number | null {
  const told = entries.filter(isOf('warmth'));
  const before = told.filter(({ at }) => Date.parse(at) <= from).at(-1);
  const since = told.filter(({ at }) => Date.parse(at) > from);
  const all = before ? [before, ...since] : since;
  if (all.length === 0) return null;
  const end = Math.max(from + 1, Date.parse(all.at(-1)!.at));
  const spans = all.map(({ at, body }, n) => {
    const start = n === 0 ? from : Date.parse(at);
    const next = all[n + 1];
    return { temperature: body.temperature, span: Math.max(1, (next ? Date.parse(next.at) : end) - start) };
  });
  const whole = spans.reduce((sum, { span }) => sum + span, 0);
  return spans.reduce((sum, { temperature, span }) => sum + (temperature * span) / whole, 0);
}

/** Shares of the planned pressure difference, taken together over short times; none where nothing was read. */
function driveOf(job: LaidJob, shop: Shop, readings: readonly BagReading[], zero: number): Drive {
  const settled = settle(job, shop);
  const feed = settled['shop.ambientPressure'].value;
  const planned = feed - settled['vacuum.ventPressure'].value;
  const bins = new Map<number, number[]>();
  for (const { at, pressure } of readings) {
    const bin = Math.floor((at - zero) / 1000 / TOGETHER);
    bins.set(bin, [...(bins.get(bin) ?? []), pressure]);
  }
  const ordered = [...bins].sort(([a], [b]) => a - b);
  return {
    times: ordered.map(([bin]) => bin * TOGETHER),
    shares: ordered.map(([, list]) => {
      const mean = list.reduce((sum, p) => sum + p, 0) / list.length;
      return Math.min(MOST_SHARE, Math.max(0, (feed - mean) / planned));
    }),
  };
}

/** A thermometer on the mould leaves so much open, K. */
const READ_WARMTH = 0.5;

/** Standard deviation of ln of the one factor before any mark: permeability with pressure, viscosity, and what warmth does to it. */
export function priorOf(
  job: LaidJob,
  { run, hasTemperature }: Pick<LiveClock, 'run' | 'hasTemperature'>,
): number {
  const doubt = doubtOf(job);
  const kelvin = hasTemperature ? Math.min(READ_WARMTH, doubt.temperature) : doubt.temperature;
  const thicker = (shift: number) => Math.log(freshViscosity(run.resin, run.temperature + shift));
  const perKelvin = Math.abs(thicker(1) - thicker(-1)) / 2;
  return (
    Math.hypot(Math.log(doubt.permeability), Math.log(doubt.viscosity), kelvin * perKelvin) / NINE_IN_TEN
  );
}
