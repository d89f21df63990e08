/** A ply as the check of a lay-up sees it. */
export interface BookPly {
  readonly materialId: string;
  /** rad */
  readonly angle: number;
  /** kg/m2 */
  readonly arealWeight: number;
  /** Directions in which its fibres run, rad from its own 0; none for a mat, null where nobody has said. */
  readonly directions: readonly number[] | null;
}

export type Judgement = 'yes' | 'no' | 'unknown';

export interface BookCheck {
  /** The lower half mirrors the upper one: the panel stays flat as it cools. */
  readonly isSymmetric: boolean;
  /** First ply (from 0, mould side) whose partner differs; null when symmetric. */
  readonly firstOdd: number | null;
  /** As much fibre at every +angle as at -angle: it does not shear when pulled. */
  readonly balance: Judgement;
}

const SAME_ANGLE = 1e-4;
const SAME_WEIGHT = 1e-3;

/**
 * Symmetry about the middle and balance about the plan's x axis.
 * @param plies     mould side first
 * @param coreAfter plies under the core; null for none
 * Fabrics count as one ply each: a stitched fabric that is not symmetric in itself is taken as it is.
 * Source: definitions of classical laminate theory (Jones, Mechanics of Composite Materials, ch. 4; from memory).
 */
export function checkBook(plies: readonly BookPly[], coreAfter: number | null): BookCheck {
  const n = plies.length;
  let firstOdd = plies.findIndex((ply, i) => !isSamePly(ply, plies[n - 1 - i]));
  if (firstOdd < 0 && coreAfter !== null && 2 * coreAfter !== n)
    firstOdd = Math.min(coreAfter, n - coreAfter);
  return { isSymmetric: firstOdd < 0, firstOdd: firstOdd < 0 ? null : firstOdd, balance: balanceOf(plies) };
}

function isSamePly(a: BookPly, b: BookPly): boolean {
  if (a.materialId !== b.materialId) return false;
  const run = (ply: BookPly) =>
    (ply.directions ?? [0]).map((direction) => axisAngle(direction + ply.angle)).sort((p, q) => p - q);
  const [p, q] = [run(a), run(b)];
  return p.length === q.length && p.every((angle, i) => isSameAxis(angle, q[i]));
}

function balanceOf(plies: readonly BookPly[]): Judgement {
  const weights: { angle: number; weight: number }[] = [];
  for (const { angle, arealWeight, directions } of plies) {
    if (directions === null) return 'unknown';
    for (const direction of directions)
      weights.push({ angle: axisAngle(angle + direction), weight: arealWeight / directions.length });
  }
  const weightAt = (angle: number) =>
    weights.reduce((sum, item) => sum + (isSameAxis(item.angle, angle) ? item.weight : 0), 0);
  const isEven = weights.every(({ angle }) => {
    const [plus, minus] = [weightAt(angle), weightAt(-angle)];
    return Math.abs(plus - minus) <= SAME_WEIGHT * Math.max(plus, minus);
  });
  return isEven ? 'yes' : 'no';
}

/** A fibre has no front end: directions are the same after half a turn. */
function axisAngle(angle: number): number {
  const turned = angle % Math.PI;
  return turned < 0 ? turned + Math.PI : turned;
}

function isSameAxis(a: number, b: number): boolean {
  const away = axisAngle(a - b);
  return Math.min(away, Math.PI - away) < SAME_ANGLE;
}
