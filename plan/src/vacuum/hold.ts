import type { Shop } from '@wick/contract/shop';
import { effectiveSpeed, holdTime } from '@wick/core/vacuum/pump-down';
import type { LaidJob } from '../job/laid.ts';
import { settledIn } from '../settle.ts';
import { ambientOf } from '../shop/ambient.ts';
import { potOf } from './free-volume.ts';
import { evacuationOf } from './reach.ts';

export interface Hold {
  /** Pressure in the bag now or when it was last shut, Pa absolute. */
  readonly from: number;
  readonly marks: readonly {
    readonly limit: number;
    readonly why: string;
    /** s; the leak at its most and at its least. Infinity where nothing leaks. */
    readonly soonest: number;
    readonly latest: number;
  }[];
  /** Without a valve that holds: until half of the vacuum is gone through the pump, s. */
  readonly withoutValve: number;
}

/** More than this of pressure lost is seen in the part; common practice, no source. */
const FIRST_LOSS = 5000;

/**
 * How long a bag holds when the pump stops.
 * @param throughput of the leak, Pa m3/s, with the ends of its interval
 */
export function holdOf(
  job: LaidJob,
  shop: Shop,
  now: {
    readonly from: number;
    readonly freeVolume: number;
    readonly throughput: { readonly low: number; readonly high: number };
  },
): Hold {
  const ambient = ambientOf(shop);
  const { from, freeVolume, throughput } = now;
  const until = (limit: number, leak: number) =>
    leak > 0 ? holdTime({ freeVolume, from, limit, throughput: leak }) : Infinity;
  const marks = [
    { limit: from + FIRST_LOSS, why: 'the laminate is pressed a little less' },
    { limit: ambient / 4, why: 'a quarter of the pressing is lost' },
    { limit: ambient / 2, why: 'half of the pressing is lost: wet laminate opens up' },
  ].filter(({ limit }) => limit > from);
  const { pump, hose } = evacuationOf(job, shop);
  const speed = effectiveSpeed(pump.speed, hose, ambient);
  return {
    from,
    marks: marks.map((mark) => ({
      ...mark,
      soonest: until(mark.limit, throughput.high),
      latest: until(mark.limit, throughput.low),
    })),
    withoutValve: (freeVolume / speed) * Math.LN2,
  };
}

/** A pot is full when its hose would suck: so much of it may be used; common practice, no source. */
const USABLE = 0.7;

export type CatchPot =
  | { readonly state: 'none' }
  | {
      readonly state: 'enough' | 'small';
      readonly name: string;
      /** m3 */
      readonly usable: number;
      readonly vented: number;
    };

/** The catch pot against what the forecast draws through the vents. @param vented m3 */
export function catchPotOf(job: LaidJob, vented: number): CatchPot {
  const pot = potOf(job);
  if (!pot) return { state: 'none' };
  const usable = USABLE * pot.capacity;
  return { state: vented <= usable ? 'enough' : 'small', name: pot.name, usable, vented };
}

/** What the catch pot gives back to the bag where no valve holds: its resin, kg. @param vented m3 */
export const comesBack = (job: LaidJob, vented: number): number => vented * settledIn(job, 'resin.density');

/** What to do when the pump stops, in this order. */
export function stoppedPumpCard(job: LaidJob): string[] {
  return [
    job.vacuum.hasCheckValve
      ? 'The check valve holds. Clamp the vent hose at the bag all the same.'
      : 'Clamp the vent hose at the bag, at once: without a check valve air comes back through the pump.',
    'Shut the feed if resin is running. Write down the pressure and the time.',
    'Look at the catch pot: if resin stands over its inlet, keep the hose above it.',
    'Start the spare pump on the shut hose, bring it to full vacuum, and only then open the clamp.',
    'No spare: watch the gauge against the times here, and press the bag by hand where it lifts.',
    'A cold pump starts hard: warm its oil, or open its gas ballast, before it carries the bag again.',
  ];
}

/** Cautions that belong to pump and pots, a line each. */
export const pumpHazards: readonly string[] = [
  'Glass under vacuum can implode: pots of metal or of plastic made for it, never a jar. Follow your site’s rules.',
  'Resin or solvent vapour in the pump: keep the catch pot between, let the exhaust out of the room. Follow the safety data sheet.',
];
