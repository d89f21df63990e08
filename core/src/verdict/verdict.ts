import {
  createResinClock,
  isClosed,
  scaledClock,
  type ResinClock,
  type Warmth,
} from '../resin/resin-clock.ts';
import type { ResinSystem } from '../resin/resin-system.ts';
import { gelTime } from '../resin/gel-time.ts';
import { createPotClock } from '../resin/pot.ts';
import { bandFor, chanceRange, fills, type Band, type JudgingRule } from './rule.ts';
import { halton, normalQuantile } from './sampling.ts';

/** What a solved layout tells, in fluidity times (1/Pa). */
export interface SolvedFlow {
  readonly isFilled: boolean;
  readonly fillTime: number;
  /** Share of the part that is wet through at each time. */
  readonly samples: readonly { readonly time: number; readonly wet: number }[];
  readonly dryRegions: readonly { readonly finalArea: number }[];
}

export interface RunConditions {
  readonly resin: ResinSystem;
  /** K, when mixed. */
  readonly temperature: number;
  /** K/s by which the shop, and the resin with it, warms or cools meanwhile; 0 when left out. */
  readonly drift?: number;
  /** The pot it is drawn from: mass of the first batch, kg, and around it when mixed, K. Without one it ages as a thin film does. */
  readonly pot?: { readonly mass: number; readonly ambient: number } | null;
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

export interface Verdict {
  readonly band: Band;
  /** Since first mix, s. fillTime is Infinity when gel comes first or the layout leaves a part dry. */
  readonly openTime: number;
  readonly fillTime: number;
  readonly gelTime: number;
  /** That is where the pot leaves the resin's data: when it gels is not known. */
  readonly endsUnknown: boolean;
  /** Until when the resin counts as usable, s since first mix. */
  readonly usableTime: number;
  /** At the last corner: time over usable time; Infinity where it does not fill. */
  readonly timeUsed: number;
  /** State of cure of the resin there, as a share of gel. */
  readonly lifeUsed: number;
  /** Fluidity from opening to there over fluidity from opening to gel. */
  readonly flowUsed: number;
  /** Gas shut in at the end, m2. */
  readonly shutIn: number;
  /** Likely range of fillTime; Infinity for "gels first". */
  readonly likely: { readonly from: number; readonly to: number };
  /** Chance to fill, 0-1, with the range in which it lies nineteen times in twenty, from so many runs. */
  readonly chance: number;
  readonly chanceRange: { readonly from: number; readonly to: number };
  readonly runs: number;
  /** Share of the part's area wet when the run ends or the resin gels. */
  readonly reachedFraction: number;
  /** Which input moves the margin most, largest first: flow used at its low and high end. */
  readonly drivers: readonly { readonly input: keyof Doubt; readonly low: number; readonly high: number }[];
}

const SAMPLES = 400;
/** Standard normal value with one in ten above it. */
export const NINE_IN_TEN = 1.2815515655446004;

/**
 * Judges a solved layout with a resin: a table look-up in fluidity time, repeated over the doubt.
 * @throws ModelError of the resin curves
 * Valid: uniform temperature, one batch. Checked by verdict.test.ts.
 */
export function judge(flow: SolvedFlow, run: RunConditions, doubt: Doubt, rule: JudgingRule): Verdict {
  const { openTime } = run;
  const under = underDoubt(run, doubt);
  const clock = clockOf(run);
  const available = clock.fluidity({ from: openTime, to: clock.gelTime });
  const fillTime = flow.isFilled ? under.timeAt(flow.fillTime, STILL) : Infinity;
  const usableTime = usableTimeOf(clock, rule);
  const times = spreadOf((z) => under.timeAt(flow.fillTime, z));
  const shutIn = flow.dryRegions.reduce((sum, { finalArea }) => sum + finalArea, 0);
  const canFill = flow.isFilled && shutIn <= rule.shutInArea;
  const inTime = canFill ? times.filter(Number.isFinite).length : 0;
  const drivers = (Object.keys(STILL) as (keyof Doubt)[]).map((input) => ({
    input,
    low: under.flowUsed(flow.fillTime, { ...STILL, [input]: -NINE_IN_TEN }),
    high: under.flowUsed(flow.fillTime, { ...STILL, [input]: NINE_IN_TEN }),
  }));
  const isInTime = fillTime < Infinity;
  const facts = {
    openTime,
    fillTime,
    gelTime: clock.gelTime,
    endsUnknown: clock.endsUnknown,
    usableTime,
    timeUsed: fillTime / usableTime,
    lifeUsed: isInTime ? clock.ageAt(fillTime) : Infinity,
    flowUsed: flow.isFilled ? flow.fillTime / available : Infinity,
    shutIn,
    likely: middleOf(times),
    chance: inTime / SAMPLES,
    chanceRange: chanceRange(inTime, SAMPLES),
    runs: SAMPLES,
    reachedFraction: isInTime ? 1 : wetAt(flow, available),
    drivers: drivers.sort((a, b) => swing(b) - swing(a)),
  };
  return { ...facts, band: bandFor({ ...facts, isWet: flow.isFilled, isInTime }, rule) };
}

/** The verdict by the chance that so many sampled runs came to, in place of the one looked up. */
export function withSampledChance(
  verdict: Verdict,
  sampled: { readonly count: number; readonly chance: number; readonly chanceRange: Verdict['chanceRange'] },
  rule: JudgingRule,
): Verdict {
  const { chance, chanceRange: range, count: runs } = sampled;
  const facts = { ...verdict, chance, chanceRange: range, runs };
  return fills(verdict.band)
    ? { ...facts, band: bandFor({ ...facts, isWet: true, isInTime: true }, rule) }
    : facts;
}

/** How far a margin swings, as a factor. */
const swing = ({ low, high }: { low: number; high: number }) => Math.abs(Math.log(high / low));

const STILL = { permeability: 0, viscosity: 0, gelTime: 0, temperature: 0 };
const LOOKS = 200;

/** When the resin first is as thick as it may be, s since first mix; gel at the latest. One that is thick from the start may grow only. */
export function usableTimeOf(clock: ResinClock, rule: Pick<JudgingRule, 'usableViscosity' | 'usableGrowth'>) {
  const fresh = clock.viscosityAt(0);
  const grown = rule.usableGrowth * fresh;
  const limit = fresh < rule.usableViscosity ? Math.min(rule.usableViscosity, grown) : grown;
  const isThick = (time: number) => clock.viscosityAt(time) >= limit;
  const first = Array.from({ length: LOOKS }, (_, i) => (clock.gelTime * (i + 1)) / LOOKS).find(isThick);
  if (first === undefined) return clock.gelTime;
  let [thin, thick] = [first - clock.gelTime / LOOKS, first];
  for (let i = 0; i < 30; i++) {
    const middle = (thin + thick) / 2;
    if (isThick(middle)) thick = middle;
    else thin = middle;
  }
  return thick;
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
  const { timeAt } = underDoubt(run, doubt);
  return middleOf(spreadOf((z) => timeAt(fluidity, z)));
}

/**
 * The same for many fluidity times, rising: nine in ten runs are later than `from`, and nine in ten earlier than `to`.
 * @returns times in s since first mix, one a fluidity time; Infinity past gel
 * @throws ModelError of the resin curves
 */
export function likelyCurve(
  fluidities: readonly number[],
  run: RunConditions,
  doubt: Doubt,
): { readonly from: Float64Array; readonly to: Float64Array } {
  const { timeline } = underDoubt(run, doubt);
  const lines = samplePoints.map(timeline);
  const spreads = fluidities.map((fluidity) =>
    middleOf(lines.map((timeAt) => timeAt(fluidity)).sort((a, b) => a - b)),
  );
  return {
    from: Float64Array.from(spreads, ({ from }) => from),
    to: Float64Array.from(spreads, ({ to }) => to),
  };
}

const spreadOf = (timeWith: (z: Record<keyof Doubt, number>) => number) =>
  samplePoints.map(timeWith).sort((a, b) => a - b);

const middleOf = (times: readonly number[]) => ({
  from: times[Math.floor(0.1 * SAMPLES)],
  to: times[Math.ceil(0.9 * SAMPLES) - 1],
});

/** With each unknown so many standard deviations from what is taken: time since first mix at a fluidity time, and flow used then. */
function underDoubt(run: RunConditions, doubt: Doubt) {
  const clockAt = clocksNear(run);
  const factor = (name: 'permeability' | 'viscosity' | 'gelTime', z: Record<keyof Doubt, number>) =>
    doubt[name] ** (z[name] / NINE_IN_TEN);
  const clockWith = (z: Record<keyof Doubt, number>) =>
    scaledClock(clockAt((doubt.temperature * z.temperature) / NINE_IN_TEN), {
      viscosity: factor('viscosity', z),
      gelTime: factor('gelTime', z),
    });
  const timeline = (z: Record<keyof Doubt, number>) => {
    const clock = clockWith(z);
    const permeability = factor('permeability', z);
    return (fluidity: number) =>
      clock.timeAtFluidity({ from: run.openTime, fluidity: fluidity / permeability });
  };
  return {
    timeline,
    timeAt: (fluidity: number, z: Record<keyof Doubt, number>) => timeline(z)(fluidity),
    flowUsed(fluidity: number, z: Record<keyof Doubt, number>) {
      const clock = clockWith(z);
      const available = clock.fluidity({ from: run.openTime, to: clock.gelTime });
      return fluidity / factor('permeability', z) / available;
    },
  };
}

/** The clock of a run's resin: of the pot it is drawn from. @throws ModelError of the resin's curves; its temperature has to lie in its gel table */
export function clockOf(run: RunConditions): ResinClock {
  gelTime(run.resin, run.temperature);
  return clocksNear(run)(0);
}

/** The same with everything so many kelvin warmer, also a little past the edge of a gel table. Errors as clockOf. */
export function clockNear(run: RunConditions, shift: number): ResinClock {
  const { resin, drift, pot } = run;
  const start = run.temperature + shift;
  if (!pot) return createResinClock(resin, warmthOf({ temperature: start, drift }));
  return createPotClock({ resin, mass: pot.mass, start, ambient: pot.ambient + shift, drift });
}

function warmthOf({ temperature, drift = 0 }: Pick<RunConditions, 'temperature' | 'drift'>): Warmth {
  return drift === 0 ? temperature : (time) => temperature + drift * time;
}

/** Kelvin between the clocks that are kept where each one costs an integration. */
const CLOCK_GRID = 0.25;

/** Most runs whose clocks are kept. */
const KEPT_RUNS = 12;
const kept = new Map<string, (shift: number) => ResinClock>();

/** Clocks for shifts of temperature, made once for all that is asked of a run: of the last few runs, by what they say. */
function clocksNear(run: RunConditions): (shift: number) => ResinClock {
  const key = JSON.stringify(run);
  const clocks = kept.get(key) ?? makeClocks(run);
  kept.delete(key);
  kept.set(key, clocks);
  if (kept.size > KEPT_RUNS) kept.delete(kept.keys().next().value!);
  return clocks;
}

/** A shift past what the resin's data cover is taken back towards what they do. */
function makeClocks(run: RunConditions): (shift: number) => ResinClock {
  const isExact = !run.drift && !run.pot && isClosed(run.resin);
  const known = new Map<number, ResinClock>();
  const make = (shift: number): ResinClock => {
    try {
      return clockNear(run, shift);
    } catch (error) {
      if (Math.abs(shift) < 0.05) throw error;
      return clockAt(shift / 2);
    }
  };
  const clockAt = (shift: number): ResinClock => {
    const key = isExact ? shift : CLOCK_GRID * Math.round(shift / CLOCK_GRID);
    const clock = known.get(key) ?? make(key);
    known.set(key, clock);
    return clock;
  };
  return clockAt;
}

function wetAt({ samples }: SolvedFlow, time: number): number {
  const after = samples.findIndex((sample) => sample.time >= time);
  if (after < 0) return samples[samples.length - 1].wet;
  if (after === 0) return samples[0].wet;
  const [a, b] = [samples[after - 1], samples[after]];
  return a.wet + ((b.wet - a.wet) * (time - a.time)) / (b.time - a.time);
}

/** Evenly spread standard normal quadruples: the same every time, so that a verdict does not flicker. */
const samplePoints: readonly Record<keyof Doubt, number>[] = Array.from({ length: SAMPLES }, (_, i) => ({
  permeability: normalQuantile(halton(i + 1, 2)),
  viscosity: normalQuantile(halton(i + 1, 3)),
  gelTime: normalQuantile(halton(i + 1, 5)),
  temperature: normalQuantile(halton(i + 1, 7)),
}));
