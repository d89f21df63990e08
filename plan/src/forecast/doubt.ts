import type { Doubt } from '@wick/core/verdict/verdict';
import { settledIn, type Settling } from '../settle.ts';

/** One in ten lies beyond either end of a spread; of a measured interval one in forty. */
const [ONE_IN_TEN, ONE_IN_FORTY] = [1.2815515655446004, 1.959963984540054];
/** What a good vacuum drives resin with, Pa. */
const USUAL_DRIVE = 95_000;

/** Times scale with the pressure that drives the resin as they do with permeability: its doubt goes into the same factor. */
function withPressure(permeability: number, ventSpread: number | null): number {
  if (ventSpread === null) return permeability;
  const drive = (ONE_IN_TEN * ventSpread) / (ONE_IN_FORTY * USUAL_DRIVE);
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
