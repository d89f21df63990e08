import type { Doubt } from '@wick/core/verdict/verdict';
import { settledIn, type Settling } from '../settle.ts';

/** Spreads of the look-up, as entered or usual. */
export function doubtOf(job: Settling): Doubt {
  return {
    permeability: settledIn(job, 'doubt.permeability'),
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
