import type { Shop } from '@wick/contract/shop';
import { drivenClock, type Drive, type DrivenClock } from '@wick/core/reforecast/driven-clock';
import { orNull } from '@wick/core/model-error';
import type { ResinClock } from '@wick/core/resin/resin-clock';
import { warmedClock } from '@wick/core/resin/warmed-clock';
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
  /** The resin's data cover what the thermometer said; otherwise its minutes are those of the last that they cover. */
  readonly isKnown: boolean;
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
  const told = warmthSince(state, contactAt);
  const { clock, temperature, isKnown } = warmedAsTold({ ...planned, openTime }, told);
  const run = { ...planned, openTime, temperature, drift: told.length === 0 ? planned.drift : 0 };
  const drive = driveOf(
    job,
    shop,
    openedAt === null ? [] : readings.filter(({ at }) => at >= openedAt),
    contactAt,
  );
  return {
    ...{ run, clock, drive, zero: contactAt },
    driven: drivenClock(clock, openTime, drive),
    hasTemperature: told.length > 0,
    isKnown,
    hasPressure: drive.times.length > 0,
  };
}

/** A temperature that holds from a time on, s since first contact. */
interface Told {
  readonly time: number;
  readonly temperature: number;
}

/** What was told of warmth, the last before the mix holding from it on. */
export function warmthSince({ entries }: Pick<RunState, 'entries'>, contactAt: number): Told[] {
  const told = entries.filter(isOf('warmth')).map(({ at, body }) => ({
    time: (Date.parse(at) - contactAt) / 1000,
    temperature: body.temperature,
  }));
  const before = told.filter(({ time }) => time <= 0).at(-1);
  const since = told.filter(({ time }) => time > 0);
  return [...(before ? [{ ...before, time: 0 }] : []), ...since];
}

/** The clock at the first temperature, from each further one on warmer or colder. @throws ModelError where the first is not covered */
function warmedAsTold(planned: RunConditions, told: readonly Told[]) {
  let temperature = told[0]?.temperature ?? planned.temperature;
  let clock = clockOf({ ...planned, temperature, ...(told.length === 0 ? {} : { drift: 0 }) });
  for (const next of told.slice(1)) {
    if (next.time >= clock.gelTime) break;
    const base = { clock, temperature };
    const warmed = orNull(() => warmedClock(planned.resin, base, next.time, next.temperature));
    if (!warmed) return { clock, temperature, isKnown: false };
    ({ temperature } = next);
    clock = warmed;
  }
  return { clock, temperature, isKnown: true };
}

/** By which share of the planned pressure difference a bag at a pressure drives. */
export function driveShareOf(job: LaidJob, shop: Shop): (pressure: number) => number {
  const settled = settle(job, shop);
  const feed = settled['shop.ambientPressure'].value;
  const planned = feed - settled['vacuum.ventPressure'].value;
  return (pressure) => (feed - pressure) / planned;
}

/** Below this share pump and bag are looked at. Common practice, no source. */
export const WEAK_DRIVE = 0.93;

/** Shares of the planned pressure difference, taken together over short times; none where nothing was read. */
function driveOf(job: LaidJob, shop: Shop, readings: readonly BagReading[], zero: number): Drive {
  const shareAt = driveShareOf(job, shop);
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
      return Math.min(MOST_SHARE, Math.max(0, shareAt(mean)));
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
