/** By what a run is judged: the workshop's to set. */
export interface JudgingRule {
  /** Chances to fill, 0-1, from which on a run is comfortable, and tight; below it is a gamble. */
  readonly comfortableChance: number;
  readonly tightChance: number;
  /** Shares of the usable time up to which a run is comfortable, and tight. */
  readonly comfortableTime: number;
  readonly tightTime: number;
  /** A resin is usable until it is so thick, Pa s, or so many times thicker than fresh, whichever comes first. */
  readonly usableViscosity: number;
  readonly usableGrowth: number;
  /** Area, m2, that gas shut in may take in the end. */
  readonly shutInArea: number;
}

export type Band = 'comfortable' | 'tight' | 'gamble' | 'willNotFill' | 'drySpot' | 'airTrapped';

/** What a run comes to, as far as its band goes. */
export interface Judged {
  /** The front gets everywhere that it has to, gel apart. */
  readonly isWet: boolean;
  /** And before gel. */
  readonly isInTime: boolean;
  /** Gas shut in at the end, m2. */
  readonly shutIn: number;
  /** To fill, 0-1. */
  readonly chance: number;
  /** Time at the last corner over usable time, both from first mix. */
  readonly timeUsed: number;
}

/** The worse of chance and usable time; above all that the run fills. The one place that gives a band. */
export function bandFor({ isWet, isInTime, shutIn, chance, timeUsed }: Judged, rule: JudgingRule): Band {
  if (!isWet) return 'drySpot';
  if (!isInTime) return 'willNotFill';
  if (shutIn > rule.shutInArea) return 'airTrapped';
  if (chance >= rule.comfortableChance && timeUsed <= rule.comfortableTime) return 'comfortable';
  return chance >= rule.tightChance && timeUsed <= rule.tightTime ? 'tight' : 'gamble';
}

/** A run of this band fills, well or not. */
export const fills = (band: Band): boolean => ['comfortable', 'tight', 'gamble'].includes(band);

/** 1.96 standard deviations: nineteen in twenty. */
export const NINETEEN_IN_TWENTY = 1.959964;

/**
 * Between which chances the true one lies, nineteen times in twenty, when so many of so many runs came out.
 * Source: Wilson 1927 (J. Am. Stat. Assoc. 22:209). Checked by verdict.test.ts.
 */
export function chanceRange(successes: number, runs: number): { readonly from: number; readonly to: number } {
  if (runs === 0) return { from: 0, to: 1 };
  const z2 = NINETEEN_IN_TWENTY ** 2;
  const share = successes / runs;
  const centre = share + z2 / (2 * runs);
  const half = NINETEEN_IN_TWENTY * Math.sqrt((share * (1 - share)) / runs + z2 / (4 * runs * runs));
  const scale = 1 + z2 / runs;
  return { from: Math.max(0, (centre - half) / scale), to: Math.min(1, (centre + half) / scale) };
}
