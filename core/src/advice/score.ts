/** What a simulated layout comes to, as far as layouts are ranked by it. Times s from first mix; Infinity where it does not fill. */
export interface LayoutScore {
  readonly fillTime: number;
  readonly gelTime: number;
  /** Share of the doubt in which it fills before gel. */
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

/** Dry share that the mesh cannot tell from none. */
const SPECK = 1e-4;

/** Weights against one whole resin life. Common practice, no source. */
const WEIGHTS = { doubt: 0.5, racing: 0.5, waste: 0.5, action: 0.025, metre: 0.006 };

/** What a layout costs in resin life, doubt, waste and work; lower is better. Infinity where it does not fill. */
export function costOf(score: LayoutScore): number {
  const { fillTime, gelTime, chance, dryShareRacing, waste, operatorActions, laidLength } = score;
  return (
    fillTime / gelTime +
    WEIGHTS.doubt * (1 - chance) +
    WEIGHTS.racing * Math.sqrt(dryShareRacing) +
    WEIGHTS.waste * waste +
    WEIGHTS.action * operatorActions +
    WEIGHTS.metre * laidLength
  );
}

export const hasDryRegion = ({ dryShare }: LayoutScore) => dryShare > SPECK;
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
