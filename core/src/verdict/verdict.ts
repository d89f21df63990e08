import { createResinClock, scaledClock, type ResinClock, type Warmth } from '../resin/resin-clock.ts';
import type { ResinSystem } from '../resin/resin-system.ts';
import { halton, normalQuantile } from './sampling.ts';

/** What a solved layout tells, in fluidity times (1/Pa). */
export interface SolvedFlow {
  readonly isFilled: boolean;
  readonly fillTime: number;
  readonly poreVolume: number;
  readonly samples: readonly { readonly time: number; readonly stored: number }[];
  readonly dryRegions: readonly { readonly area: number }[];
}

export interface RunConditions {
  readonly resin: ResinSystem;
  /** K, when mixed. */
  readonly temperature: number;
  /** K/s by which the shop, and the resin with it, warms or cools meanwhile; 0 when left out. */
  readonly drift?: number;
  /** From first contact of resin and hardener to the opening of the first feed, s. */
  readonly openTime: number;
}

/** Likely spread (one in ten beyond either end): factors, and kelvin. */
export interface Doubt {
  readonly permeability: number;
  readonly viscosity: number;
  readonly gelTime: number;
  readonly temperature: number;
}

export const usualDoubt: Doubt = { permeability: 1.4, viscosity: 1.15, gelTime: 1.15, temperature: 2 };

/** Shares of the resin's life, common practice, no source; the shop may set its own. */
export interface Bands {
  readonly comfortable: number;
  readonly tight: number;
}

const usualBands: Bands = { comfortable: 0.5, tight: 0.8 };

export type Band = 'comfortable' | 'tight' | 'gamble' | 'willNotFill' | 'drySpot' | 'airTrapped';

export interface Verdict {
  readonly band: Band;
  /** Since first mix, s. fillTime is Infinity when gel comes first or the layout leaves a part dry. */
  readonly openTime: number;
  readonly fillTime: number;
  readonly gelTime: number;
  /** fillTime over gelTime: age of the front's resin at the last corner. */
  readonly ageRatio: number;
  /** Likely range of fillTime; Infinity for "gels first". */
  readonly likely: { readonly from: number; readonly to: number };
  /** Chance to fill before gel, 0-1. */
  readonly chance: number;
  /** Share of the pore volume filled when the run ends or the resin gels. */
  readonly reachedFraction: number;
  /** Which input moves the fill time most, largest first: fill times at its low and high end. */
  readonly drivers: readonly { readonly input: keyof Doubt; readonly low: number; readonly high: number }[];
}

const SAMPLES = 400;
/** Standard normal value with one in ten above it. */
const NINE_IN_TEN = 1.2815515655446004;

/**
 * Judges a solved layout with a resin: a table look-up in fluidity time, repeated over the doubt.
 * @throws ModelError of the resin curves
 * Valid: uniform temperature, one batch. Checked by verdict.test.ts.
 */
export function judge(
  flow: SolvedFlow,
  run: RunConditions,
  doubt: Doubt = usualDoubt,
  bands: Bands = usualBands,
): Verdict {
  const { openTime } = run;
  const timeWith = timesUnderDoubt(run, doubt);
  const fillTimeWith = (z: Record<keyof Doubt, number>) => timeWith(flow.fillTime, z);
  const still = { permeability: 0, viscosity: 0, gelTime: 0, temperature: 0 };
  const clock = clockOf(run);
  const available = clock.fluidity({ from: openTime, to: clock.gelTime });
  const fillTime = flow.isFilled ? fillTimeWith(still) : Infinity;
  const times = spreadOf(fillTimeWith);
  const names = Object.keys(still) as (keyof Doubt)[];
  const drivers = names.map((input) => ({
    input,
    low: fillTimeWith({ ...still, [input]: -NINE_IN_TEN }),
    high: fillTimeWith({ ...still, [input]: NINE_IN_TEN }),
  }));
  const swing = ({ low, high }: { low: number; high: number }) =>
    Math.abs(Math.min(low, 1e9) - Math.min(high, 1e9));
  return {
    band: bandFor(flow, fillTime / clock.gelTime, bands),
    openTime,
    fillTime,
    gelTime: clock.gelTime,
    ageRatio: fillTime / clock.gelTime,
    likely: middleOf(times),
    chance: flow.isFilled ? times.filter(Number.isFinite).length / SAMPLES : 0,
    reachedFraction: fillTime < Infinity ? 1 : storedAt(flow, available) / flow.poreVolume,
    drivers: drivers.sort((a, b) => swing(b) - swing(a)),
  };
}

/**
 * Between which times, s since first mix, a front likely comes to where it comes at a fluidity time; nine in ten lie below the
 * later one, which is Infinity where that is past gel.
 * @throws ModelError of the resin curves
 */
export function likelyTimes(
  fluidity: number,
  run: RunConditions,
  doubt: Doubt = usualDoubt,
): Verdict['likely'] {
  const timeWith = timesUnderDoubt(run, doubt);
  return middleOf(spreadOf((z) => timeWith(fluidity, z)));
}

const spreadOf = (timeWith: (z: Record<keyof Doubt, number>) => number) =>
  samplePoints()
    .map(timeWith)
    .sort((a, b) => a - b);

const middleOf = (times: readonly number[]) => ({
  from: times[Math.floor(0.1 * SAMPLES)],
  to: times[Math.ceil(0.9 * SAMPLES) - 1],
});

/** Time since first mix at a fluidity time, with each unknown so many standard deviations from what is taken. */
function timesUnderDoubt(run: RunConditions, doubt: Doubt) {
  const clockAt = clocksNear(run);
  return (fluidity: number, z: Record<keyof Doubt, number>) => {
    const factor = (name: 'permeability' | 'viscosity' | 'gelTime') => doubt[name] ** (z[name] / NINE_IN_TEN);
    const clock = scaledClock(clockAt((doubt.temperature * z.temperature) / NINE_IN_TEN), {
      viscosity: factor('viscosity'),
      gelTime: factor('gelTime'),
    });
    return clock.timeAtFluidity({ from: run.openTime, fluidity: fluidity / factor('permeability') });
  };
}

/** The clock of a run's resin. @throws ModelError of the resin's curves */
export function clockOf(run: RunConditions): ResinClock {
  return createResinClock(run.resin, warmthOf(run));
}

function warmthOf({ temperature, drift = 0 }: RunConditions): Warmth {
  return drift === 0 ? temperature : (time) => temperature + drift * time;
}

/** Kelvin between the clocks that are kept where each one costs an integration. */
const CLOCK_GRID = 0.25;

/** Clocks for shifts of temperature; a shift past what the resin's data cover is taken back towards what they do. */
function clocksNear(run: RunConditions): (shift: number) => ResinClock {
  const isClosed = !run.drift && !run.resin.kinetics && !run.resin.viscosityCurve;
  const known = new Map<number, ResinClock>();
  const make = (shift: number): ResinClock => {
    try {
      return clockOf({ ...run, temperature: run.temperature + shift });
    } catch (error) {
      if (Math.abs(shift) < 0.05) throw error;
      return clockAt(shift / 2);
    }
  };
  const clockAt = (shift: number): ResinClock => {
    const key = isClosed ? shift : CLOCK_GRID * Math.round(shift / CLOCK_GRID);
    const clock = known.get(key) ?? make(key);
    known.set(key, clock);
    return clock;
  };
  return clockAt;
}

/** @param ratio share of its life that the resin has used when the last corner is wet */
export function bandFor(
  flow: { readonly isFilled: boolean; readonly dryRegions: readonly unknown[] },
  ratio: number,
  bands: Bands = usualBands,
): Band {
  if (!flow.isFilled) return 'drySpot';
  if (!(ratio < 1)) return 'willNotFill';
  if (flow.dryRegions.length > 0) return 'airTrapped';
  if (ratio <= bands.comfortable) return 'comfortable';
  return ratio <= bands.tight ? 'tight' : 'gamble';
}

function storedAt({ samples }: SolvedFlow, time: number): number {
  const after = samples.findIndex((sample) => sample.time >= time);
  if (after < 0) return samples[samples.length - 1].stored;
  if (after === 0) return samples[0].stored;
  const [a, b] = [samples[after - 1], samples[after]];
  return a.stored + ((b.stored - a.stored) * (time - a.time)) / (b.time - a.time);
}

/** Evenly spread standard normal quadruples: the same every time, so that a verdict does not flicker. */
function samplePoints(): Record<keyof Doubt, number>[] {
  return Array.from({ length: SAMPLES }, (_, i) => ({
    permeability: normalQuantile(halton(i + 1, 2)),
    viscosity: normalQuantile(halton(i + 1, 3)),
    gelTime: normalQuantile(halton(i + 1, 5)),
    temperature: normalQuantile(halton(i + 1, 7)),
  }));
}
