import type { Shop } from '@wick/contract/shop';
import { pumpDown } from '@wick/core/vacuum/bag-world';
import { endPressure, regimeOf, type PumpCurve, type VacuumHose } from '@wick/core/vacuum/pump-down';
import type { LaidJob } from '../job/laid.ts';
import { materialOf } from '../job/material-of.ts';
import { HOSE_BORE, hoseRunsOf } from '../layout/hoses.ts';
import { settle } from '../settle.ts';
import { ambientOf } from '../shop/ambient.ts';

/** What the pump draws through. */
export interface Evacuation {
  readonly pump: PumpCurve;
  /** Of the pump, or that none is chosen. */
  readonly pumpName: string | null;
  /** The longest of those at the vents: the others help it. */
  readonly hose: VacuumHose;
  readonly isHoseOnPlan: boolean;
}

/** A pump of no name: one that the assumed pressure at the vents stands for. */
const SOUND_SPEED = 8 / 3600;

export function evacuationOf(job: LaidJob, shop: Shop): Evacuation {
  const pump = materialOf(job, job.vacuum.pumpId, 'pump');
  const settled = settle(job, shop);
  const vents = hoseRunsOf(job).filter(({ kind }) => kind === 'vent');
  const longest = vents.reduce<(typeof vents)[number] | null>(
    (a, b) => (a && a.length >= b.length ? a : b),
    null,
  );
  return {
    pump: pump
      ? { speed: pump.flowRate, ultimatePressure: Math.max(pump.ultimatePressure, 1) }
      : { speed: SOUND_SPEED, ultimatePressure: settled['vacuum.ventPressure'].value },
    pumpName: pump?.name ?? null,
    hose: {
      bore: longest?.bore ?? HOSE_BORE,
      length: longest?.length ?? settled['resin.hoseLength'].value,
    },
    isHoseOnPlan: longest !== null,
  };
}

export interface Reach {
  /** Of the air outside, Pa absolute. */
  readonly ambient: number;
  /** Whether it was read off a barometer here, or follows from the altitude. */
  readonly isMeasured: boolean;
  /** The least that a tight bag comes to, Pa absolute; and what a relative gauge shows for it, Pa below ambient. */
  readonly best: number;
  readonly onGauge: number;
  /** How air runs in the hose by then: where it is no longer viscous the forecast is too good. */
  readonly regime: ReturnType<typeof regimeOf>;
}

/** The best vacuum that can be reached here now. */
export function reachOf(job: LaidJob, shop: Shop): Reach {
  const ambient = ambientOf(shop);
  const { pump, hose } = evacuationOf(job, shop);
  const best = Math.min(ambient, endPressure(pump, hose, 0, ambient));
  return {
    ...{ ambient, best },
    isMeasured: shop.ambientPressure !== null,
    onGauge: ambient - best,
    regime: regimeOf(hose.bore, best),
  };
}

/**
 * Pressure while a tight and dry bag is pumped down, Pa.
 * @param freeVolume m3  @param times increasing, s, from 0
 */
export function pumpDownForecast(
  job: LaidJob,
  shop: Shop,
  freeVolume: number,
  times: ArrayLike<number>,
  throughput = 0,
): Float64Array {
  const { pump, hose } = evacuationOf(job, shop);
  const sources = { throughput, moisture: 0, settling: 600 };
  return pumpDown({ pump, hose, freeVolume, from: ambientOf(shop), sources, times });
}

/** How far a relative and an absolute gauge on one bag may differ before one of them is wrong, Pa: common practice, no source. */
const SAME_WITHIN = 1500;

/** What is odd about what a gauge shows, in words; null where nothing is. @param pressure Pa absolute */
export function gaugeSanity(
  pressure: number,
  reach: Pick<Reach, 'ambient' | 'best'>,
  show: (value: number, quantity: 'absolutePressure' | 'gaugePressure') => string,
): string | null {
  const { ambient, best } = reach;
  if (pressure < -500)
    return `${show(ambient - pressure, 'gaugePressure')} of vacuum is more than the air here presses with (${show(ambient, 'absolutePressure')}). Set the gauge to zero, or check its unit.`;
  if (pressure < 0.5 * best - 100)
    return `${show(pressure, 'absolutePressure')} is better than this pump can do (${show(best, 'absolutePressure')}). Check the gauge’s zero with the bag open.`;
  if (pressure > 1.05 * ambient)
    return `${show(pressure, 'absolutePressure')} is more than the air outside has (${show(ambient, 'absolutePressure')}). Is it a relative gauge, or set to another unit?`;
  return null;
}

/** What two gauges on one bag say of each other; null where they agree. @param step of the relative one’s display, Pa */
export function gaugesDisagree(
  absolute: number,
  fromRelative: number,
  ambient: number,
  step: number,
  show: (value: number, quantity: 'absolutePressure' | 'gaugePressure') => string,
): string | null {
  const apart = fromRelative - absolute;
  if (Math.abs(apart) <= Math.max(SAME_WITHIN, 2 * step)) return null;
  return `The relative gauge says ${show(fromRelative, 'absolutePressure')}, the absolute one ${show(absolute, 'absolutePressure')}. They agree if the air here has ${show(ambient - apart, 'absolutePressure')} now: read a barometer, or set the relative gauge’s zero with the bag open.`;
}
