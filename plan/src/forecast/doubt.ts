import { NINETEEN_IN_TWENTY } from '@wick/core/verdict/rule';
import { NINE_IN_TEN, type Doubt } from '@wick/core/verdict/verdict';
import { settledIn, type Settling } from '../settle.ts';

/** What a good vacuum drives resin with, Pa. */
const USUAL_DRIVE = 95_000;

/**
 * Times scale with the pressure that drives the resin as they do with permeability: its doubt goes into the same factor, narrowed from
 * the interval it was measured in to what one in ten lies beyond.
 */
function withPressure(permeability: number, ventSpread: number | null): number {
  if (ventSpread === null) return permeability;
  const drive = (NINE_IN_TEN * ventSpread) / (NINETEEN_IN_TWENTY * USUAL_DRIVE);
  return Math.exp(Math.hypot(Math.log(permeability), drive));
}

/** Spreads of the look-up, as entered or usual. */
export function doubtOf(job: Settling): Doubt {
  return {
    permeability: withPressure(settledIn(job, 'doubt.permeability'), job.vacuum.ventSpread),
    viscosity: settledIn(job, 'doubt.viscosity'),
    gelTime: settledIn(job, 'doubt.gelTime'),
    temperature: settledIn(job, 'doubt.temperature'),
  };
}

/** Further spreads, of the sampled runs. */
export function scatterOf(job: Settling) {
  return {
    thickness: settledIn(job, 'doubt.thickness'),
    raceChance: settledIn(job, 'doubt.raceChance'),
    raceGap: settledIn(job, 'doubt.raceGap'),
  };
}
