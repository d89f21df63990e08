import type { Shop } from '@wick/contract/shop';
import { equivalentAge, timeOfAge, type Clock, type Warmth } from '@wick/core/cure/age';
import { glassAt, stallsAt } from '@wick/core/cure/glass';
import { ASSUMED_ACTIVATION_ENERGY, GAS_CONSTANT, REACH } from '@wick/core/resin/curve-fit';
import { cureLawOf } from '@wick/core/resin/cure-law';
import { gelTime } from '@wick/core/resin/gel-time';
import { orNull } from '@wick/core/model-error';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import type { RunState } from '../run/state.ts';
import { settle } from '../settle.ts';
import type { Infusion } from './infusion.ts';
import { warmthSince } from './live-clock.ts';

/** A window since the mix, as it falls at the temperatures there were and with the last going on; s since first contact. */
export interface CureWindow {
  readonly opensAt: number;
  readonly closesAt: number | null;
  /** From where it is known. */
  readonly basis: string;
}

/** How far the cure is. Times s since first contact; Infinity where at this warmth never. */
export interface CureClock {
  readonly now: number;
  /** K now, and of the coldest place as it is taken. */
  readonly temperature: number;
  readonly coldest: number;
  /** s at the reference temperature that the cure has had where it is coldest, and that temperature, K. */
  readonly age: number;
  readonly reference: number;
  /** Share of the way to gel there, 1 and more past it. */
  readonly gelShare: number;
  readonly gelsAt: number;
  /** Vacuum until then: a quarter longer than to gel. */
  readonly holdUntil: number;
  readonly demould: CureWindow;
  readonly recoat: CureWindow | null;
  readonly bond: CureWindow | null;
  /** With kinetics and a glass transition entered. */
  readonly glass: {
    readonly conversion: number;
    readonly temperature: number;
    readonly stallsAt: number;
  } | null;
  /** What a finger says of it about now. */
  readonly touch: 'wet' | 'strings' | 'rubber' | 'nailMarks' | 'hard';
}

/** By which the coldest place lies below the thermometer where zones do not say, K; common practice, no source. */
const COLD_PLACE = 2;
/** Beyond gel at the coldest place; and above the part's temperature a glass transition has to lie to demould, K. */
const HOLD_MORE = 0.25;
const GLASS_LEAD = 15;
/** Without any schedule: so many gel times; common practice, no source. */
const USUAL_DEMOULD = 8;
const LONGEST = 14 * 86_400;

/** @returns null before the mix, and while no resin is chosen @throws ModelError of the resin's curves */
export function cureClockOf(
  job: LaidJob,
  shop: Shop,
  infusion: Pick<Infusion, 'contactAt'>,
  state: Pick<RunState, 'entries'>,
  nowMs: number,
): CureClock | null {
  const resin = materialOf(job, job.resin.materialId, 'resin');
  const { contactAt } = infusion;
  if (!resin || contactAt === null) return null;
  const usual = settle(job, shop)['resin.temperature'].value;
  const told = warmthSince(state, contactAt);
  const warmth: Warmth =
    told.length === 0
      ? { times: [0], temperatures: [usual] }
      : { times: told.map(({ time }) => time), temperatures: told.map(({ temperature }) => temperature) };
  const now = Math.max(0, (nowMs - contactAt) / 1000);
  const below = coldBelow(job, usual);
  const cold: Warmth = { ...warmth, temperatures: warmth.temperatures.map((T) => T - below) };
  const clock: Clock = { reference: usual, activationEnergy: energyOf(resin, usual) };
  const gelAge = gelTime(resin, usual);
  const age = equivalentAge(cold, 0, now, clock);
  const gelsAt = timeOfAge(cold, 0, gelAge, clock);
  const window = (
    at: { opens: number; closes: number | null; temperature: number },
    basis: string,
  ): CureWindow => {
    const own = { ...clock, reference: at.temperature };
    return {
      basis,
      opensAt: timeOfAge(cold, 0, at.opens, own),
      closesAt: at.closes === null ? null : timeOfAge(warmth, 0, at.closes, own),
    };
  };
  const conversion = resin.kinetics ? conversionAt(resin, cold, now) : null;
  const glass =
    resin.glass && conversion !== null
      ? {
          conversion,
          temperature: glassAt(Math.min(1, conversion), resin.glass),
          stallsAt: stallsAt(cold.temperatures.at(-1)!, resin.glass),
        }
      : null;
  const demould = resin.demould
    ? window({ ...resin.demould, closes: null }, 'the data sheet')
    : resin.glass && resin.kinetics
      ? { opensAt: glassyAt(resin, cold, resin.glass), closesAt: null, basis: 'the glass transition' }
      : window(
          { opens: USUAL_DEMOULD * gelAge, closes: null, temperature: usual },
          `${USUAL_DEMOULD} gel times, common practice`,
        );
  return {
    ...{ now, age, reference: usual, gelsAt, demould, glass },
    temperature: warmth.temperatures.at(-1)!,
    coldest: cold.temperatures.at(-1)!,
    gelShare: age / gelAge,
    holdUntil: (1 + HOLD_MORE) * gelsAt,
    recoat: resin.recoat ? window(resin.recoat, 'the data sheet') : null,
    bond: resin.bond ? window(resin.bond, 'the data sheet') : null,
    touch: touchAt(age / gelAge, now >= demould.opensAt),
  };
}

/** The coldest zone against the mould, else what is usual. */
function coldBelow(job: LaidJob, usual: number): number {
  const base = job.resin.mouldTemperature ?? usual;
  const zones = job.zones.flatMap(({ temperature }) => temperature ?? []);
  return zones.length > 0 ? Math.max(0, base - Math.min(base, ...zones)) : COLD_PLACE;
}

/** K to either side over which the slope of the gel times is read. */
const SLOPE_OVER = 2;

/** J/mol by which the cure follows temperature: the slope of its own gel times, where they tell. */
function energyOf(resin: Parameters<typeof gelTime>[0], at: number): number {
  const [cold, warm] = [at - SLOPE_OVER, at + SLOPE_OVER];
  const slope = orNull(() => Math.log(gelTime(resin, cold, REACH) / gelTime(resin, warm, REACH)));
  return slope === null ? ASSUMED_ACTIVATION_ENERGY : (GAS_CONSTANT * slope) / (1 / cold - 1 / warm);
}

/** Steps of an integration over a told warmth, s. */
const STEP = 120;

function conversionAt(resin: Parameters<typeof cureLawOf>[0], warmth: Warmth, until: number): number {
  let state = 0;
  for (const { conversion } of curing(resin, warmth, until)) state = conversion;
  return state;
}

function* curing(resin: Parameters<typeof cureLawOf>[0], { times, temperatures }: Warmth, until: number) {
  const { rate } = cureLawOf(resin);
  let conversion = 0;
  for (let time = 0; time < until; time += STEP) {
    const step = Math.min(STEP, until - time);
    const T =
      temperatures[
        Math.max(
          0,
          times.findLastIndex((from) => from <= time),
        )
      ]!;
    const half = conversion + 0.5 * step * rate(conversion, T);
    conversion = Math.min(1, conversion + step * rate(half, T));
    yield { time: time + step, conversion, temperature: T };
  }
}

/** When the glass transition leads the part's temperature far enough; Infinity within two weeks never. */
function glassyAt(
  resin: Parameters<typeof cureLawOf>[0],
  warmth: Warmth,
  glass: Parameters<typeof glassAt>[1],
): number {
  for (const { time, conversion, temperature } of curing(resin, warmth, LONGEST))
    if (glassAt(conversion, glass) >= temperature + GLASS_LEAD) return time;
  return Infinity;
}

/** From memory, common practice: what a spot of the same resin feels like. */
function touchAt(gelShare: number, isHard: boolean): CureClock['touch'] {
  if (isHard) return 'hard';
  if (gelShare < 0.7) return 'wet';
  if (gelShare < 1) return 'strings';
  return gelShare < 2.5 ? 'rubber' : 'nailMarks';
}

export const cureTouchWords: Readonly<Record<CureClock['touch'], string>> = {
  wet: 'wet: it drips off a stick',
  strings: 'draws strings',
  rubber: 'like rubber: a nail leaves a dent that comes back',
  nailMarks: 'firm: a nail just marks it',
  hard: 'hard: a nail leaves nothing',
};
