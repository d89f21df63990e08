import type { Band } from '../verdict/rule.ts';

/** What a simulated layout comes to, as far as layouts are ranked by it. Times s from first mix; Infinity where it does not fill. */
export interface LayoutScore {
  readonly band: Band;
  readonly fillTime: number;
  readonly gelTime: number;
  /** Time at the last corner over usable time; Infinity where it does not fill. */
  readonly timeUsed: number;
  /** Share of the doubt in which it fills. */
  readonly chance: number;
  /** Share of the part wet by then. */
  readonly wetShare: number;
  /** Cut off from the vents, as a share of the part. */
  readonly dryShare: number;
  /** The same, the worst of runs in which an edge races; 0 where that was not tried. */
  readonly dryShareRacing: number;
  /** Resin that does not stay in the part, over what does. */
  readonly waste: number;
  readonly operatorActions: number;
  /** Of lines and hoses, m. */
  readonly laidLength: number;
}

/** Weights against one whole usable time two and a half times over, about a life. Common practice, no source. */
const WEIGHTS = { time: 0.4, doubt: 0.5, racing: 0.5, waste: 0.5, action: 0.025, metre: 0.006 };

/** What a layout costs in time, doubt, waste and work; lower is better. Infinity where it does not fill. */
export function costOf(score: LayoutScore): number {
  const { timeUsed, chance, dryShareRacing, waste, operatorActions, laidLength } = score;
  return (
    WEIGHTS.time * timeUsed +
    WEIGHTS.doubt * (1 - chance) +
    WEIGHTS.racing * Math.sqrt(dryShareRacing) +
    WEIGHTS.waste * waste +
    WEIGHTS.action * operatorActions +
    WEIGHTS.metre * laidLength
  );
}

export const hasDryRegion = ({ band }: LayoutScore) => band === 'drySpot' || band === 'airTrapped';
export const fillsInTime = ({ fillTime, gelTime }: LayoutScore) => fillTime < gelTime;

/**
 * Order of rank: what fills before what does not, and no layout with a dry region above one without; then by cost. Of two
 * that do not fill the one that gets farther comes first.
 */
export function compareScores(a: LayoutScore, b: LayoutScore): number {
  const dry = Number(hasDryRegion(a)) - Number(hasDryRegion(b));
  if (dry !== 0) return dry;
  const [fillsA, fillsB] = [fillsInTime(a), fillsInTime(b)];
  if (fillsA !== fillsB) return fillsA ? -1 : 1;
  if (!fillsA) return b.wetShare - a.wetShare || a.dryShare - b.dryShare;
  return costOf(a) - costOf(b);
}
